import { SOURCE_RANKS } from '@/core/catalogue/match';
import { TEMPERATURES } from '@/core/catalogue/others-in-force';
import { COMPONENTS } from '@/core/engine/quantities';
import { REGAP_POLICIES } from '@/core/gap/check';
import { SHEET_LUBRICANTS, TORQUE_CONDITIONS } from '@/core/policy/apply';
import type { ImportKind } from '../kind';
import { ATTRIBUTE_COLUMNS } from './parts';

/** The columns of a file of spec sheets. */
export const SHEET_COLUMNS: ImportKind['columns'] = [
  {
    key: 'engine_family',
    required: true,
    help: 'Code of the engine family',
    example: 'PW-34M',
    aliases: ['engine', 'family'],
  },
  { key: 'component', help: 'What it is a spec of; plug when empty', example: 'plug', choices: COMPONENTS },
  { key: 'variant', help: 'Only for this variant; empty for all', example: '' },
  { key: 'model_year_from', help: 'First model year', example: '2016', aliases: ['year_from'] },
  { key: 'model_year_to', help: 'Last model year', example: '', aliases: ['year_to'] },
  { key: 'built_from', help: 'First day of build', example: '' },
  { key: 'built_to', help: 'Last day of build', example: '' },
  { key: 'serial_from', help: 'First serial: the last six digits of the VIN', example: '' },
  { key: 'serial_to', help: 'Last serial', example: '' },
  { key: 'fuel', help: 'Only for this fuel', example: '' },
  { key: 'induction', help: 'Only for natural, turbo or supercharged', example: '' },
  { key: 'market', help: 'Only for this market', example: '' },
  { key: 'part_number', required: true, help: 'The part', example: 'EM-7310', aliases: ['part', 'plug'] },
  {
    key: 'part_maker',
    help: 'Who makes it; may be empty where the part is here',
    example: 'Emberline',
    aliases: ['maker'],
  },
  ...ATTRIBUTE_COLUMNS,
  { key: 'gap', help: 'As a range or a value with tolerance: 1.00 to 1.10 mm, 1.05 ± 0.05 mm', example: '' },
  { key: 'gap_min', help: 'Or its ends: least gap, in gap_unit or with its own unit', example: '1.00' },
  { key: 'gap_max', help: 'Greatest gap', example: '1.10' },
  { key: 'gap_unit', help: 'mm, in or thou', example: 'mm' },
  {
    key: 'torque',
    help: 'Of a plug, clean dry threads; of another part, of the screw that holds it. As a range: 16 to 19 N·m. One figure is taken ±10 %',
    example: '',
  },
  { key: 'torque_min', help: 'Or its ends: least torque', example: '16' },
  { key: 'torque_max', help: 'Greatest torque', example: '19' },
  { key: 'torque_unit', help: 'N·m, lbf·ft or lbf·in', example: 'Nm' },
  { key: 'primary', help: 'Primary winding of a coil, as a range: 0.6 to 0.8 Ω', example: '' },
  { key: 'secondary', help: 'Secondary winding of a coil, as a range: 8 to 12 kΩ', example: '' },
  { key: 'resistance', help: 'Of a lead or rotor from end to end, as a range: 4 to 6 kΩ', example: '' },
  { key: 'ohm_per_metre', help: 'The most that a lead may have by its length: 16 kΩ', example: '' },
  { key: 'angle_deg', help: 'The sheet’s own turn from finger-tight', example: '' },
  {
    key: 'interval',
    help: 'Distance in normal duty; “on failure” for what has none',
    example: '96000',
    aliases: ['interval_normal'],
  },
  { key: 'interval_severe', help: 'Distance in severe duty', example: '72000' },
  { key: 'interval_unit', help: 'km or mi', example: 'km' },
  { key: 'interval_months', help: 'Months, whichever comes first', example: '72', aliases: ['months'] },
  {
    key: 'engine_temperature',
    help: 'cold, warm or by_bulletin; empty: the shop’s choice',
    example: 'cold',
    choices: ['', ...TEMPERATURES],
  },
  {
    key: 'torque_for',
    help: 'Threads for which the torque is given: dry or greased. Empty: the source does not say',
    example: 'dry',
    choices: TORQUE_CONDITIONS,
  },
  {
    key: 'lubricant',
    help: 'dry, nickel or copper; empty: the shop’s choice',
    example: '',
    choices: ['', ...SHEET_LUBRICANTS],
  },
  {
    key: 'regap',
    help: 'adjust, ground_only or never; empty: the shop’s choice',
    example: '',
    choices: ['', ...REGAP_POLICIES],
  },
  { key: 'method', help: 'How the old ones come out, in words', example: '', aliases: ['removal_method'] },
  {
    key: 'source_kind',
    required: true,
    help: SOURCE_RANKS.join(', '),
    example: 'service_information',
    choices: SOURCE_RANKS,
  },
  {
    key: 'source_document',
    required: true,
    help: 'Where the figures stand',
    example: 'Demo data: Pellworm engine book 4',
    aliases: ['source'],
  },
  { key: 'source_dated', help: 'Date of the source', example: '2024-03-01' },
  { key: 'expires_on', help: 'Last day on which it holds', example: '' },
  { key: 'revision', help: 'Revision number; 1 when empty', example: '1' },
  { key: 'entered_by', required: true, help: 'Who copied the figures', example: 'R. Tolland' },
  {
    key: 'checked_by',
    help: 'Who compared them with the source before. A remark: here, another person than you checks the sheet',
    example: 'M. Vane',
  },
  { key: 'note', help: 'Anything the technician should know', example: 'Demo data, not for real work' },
];

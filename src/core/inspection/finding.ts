import type { SiteKey } from '../engine/model';
import { siteId } from '../engine/model';
import type { Wear } from '../gap/wear';
import type { Mm } from '../shared/kinds';
import type { Place, Shape } from './shape';
import type { BreakawayFeel, Condition } from './vocabulary';

/* What a finding is made of: what was seen at each site, and what may be said of it. */

/** One thing seen at a site. Severity from 1, just visible, to 3, beyond doubt. */
export interface Observation {
  readonly condition: Condition;
  readonly severity: 1 | 2 | 3;
}

/** A resistance that the sheet does not allow. */
export interface OutOfRange {
  readonly measured: 'primary' | 'secondary' | 'lead' | 'rotor';
  /** "secondary open circuit, sheet 8 to 12 kΩ" */
  readonly words: string;
}

/** What was found at one site. */
export interface SiteReading extends SiteKey {
  /** Null: not looked at. */
  readonly seen: readonly Observation[] | null;
  readonly gapMm: Mm | null;
  readonly breakaway: BreakawayFeel | null;
  /** The number read off it is neither the one on record nor a renumbering of it; null: one of the two is not known. */
  readonly differs: boolean | null;
  /** What a meter says that is out of the sheet's range; left out: nothing is, or nothing was measured. */
  readonly outOfRange?: readonly OutOfRange[];
  /** How its gap has grown; null: one of the two gaps, or the distance, is not known. */
  readonly wear: Wear | null;
}

export interface EngineReading extends Place {
  readonly sites: readonly SiteReading[];
  /** What the parts of the whole engine show: cap and rotor; left out: not looked at. */
  readonly engine?: Pick<SiteReading, 'seen' | 'outOfRange'>;
  /** Beyond this a gap is worn out, mm; null: no sheet gives one. */
  readonly gapLimitMm: Mm | null;
}

export const CAUSES = [
  'healthy',
  'rich_or_weak_spark',
  'bank_rich',
  'bank_lean',
  'lean_or_hot',
  'runner_leak',
  'cylinder_hot',
  'cylinder_rich',
  'oil_inside',
  'oil_everywhere',
  'oil_outside',
  'coolant_between',
  'coolant_in_one',
  'coloured_by_fuel',
  'washed_alike',
  'detonation',
  'loose_plug',
  'seat_leaked',
  'tracked',
  'water_in_well',
  'coolant_in_well',
  'gap_worn_out',
  'gap_worn_in_one',
  'bank_wears_faster',
  'wears_faster',
  'electrodes_worn',
  'other_part',
  'partner_polarity',
  'rests_at_part_load',
  'one_position_weak',
  'ash',
  'glazed',
  'bridged',
  'cracked',
  'threads_hurt',
  'wrong_gaskets',
  'debris',
  'boot_spent',
  'connector_broken',
  'coil_cracked',
  'coil_overheated',
  'coil_tower_tracked',
  'coil_terminal_corroded',
  'coil_in_oil',
  'coil_stuck',
  'coil_primary_out',
  'coil_secondary_out',
  'starved_by_coil',
  'boot_spent_by_oil',
  'boot_spring',
  'boot_left',
  'connector_pins',
  'lead_burnt',
  'lead_chafed',
  'lead_boot_torn',
  'lead_tracked',
  'lead_loose',
  'leads_crossed',
  'lead_high',
  'starved_by_lead',
  'leads_aged',
  'seal_leaks',
  'seal_hard',
  'cap_cracked',
  'cap_tracked',
  'cap_burnt',
  'cap_burnt_by_gaps',
  'cap_oxidised',
  'cap_wet',
  'cap_button',
  'rotor_burnt',
  'rotor_cracked',
  'rotor_worn',
  'rotor_corroded',
  'rotor_resistance',
] as const;
export type Cause = (typeof CAUSES)[number];

export const URGENCIES = ['note', 'soon', 'before_return', 'stop'] as const;
export type Urgency = (typeof URGENCIES)[number];
export const CONFIDENCES = ['low', 'medium', 'high'] as const;
export type Confidence = (typeof CONFIDENCES)[number];

/** What a person makes of a finding. */
export const VERDICTS = ['confirmed', 'rejected', 'corrected'] as const;
export type Verdict = (typeof VERDICTS)[number];

interface Evidence extends SiteKey {
  readonly words: string;
}

export interface Finding {
  readonly cause: Cause;
  readonly shape: Shape;
  /** None where it stands on one of two banks and nobody declared which end of the tray is which. */
  readonly sites: readonly SiteKey[];
  /** By site; none where the sites cannot be named. */
  readonly evidence: readonly Evidence[];
  /** Sites of that place that were looked at and show something else. */
  readonly against: readonly Evidence[];
  /** Plugs that were looked at, of all that the engine has. */
  readonly looked: number;
  readonly of: number;
  readonly confidence: Confidence;
  readonly urgency: Urgency;
  /** What would resolve it, the easiest first. */
  readonly next: readonly string[];
}

/** Whether a finding is of one of two banks, and nobody can tell which. */
export const isUnplaced = ({ shape, sites }: Pick<Finding, 'shape' | 'sites'>): boolean =>
  (shape === 'bank' || shape === 'partners') && sites.length === 0;

/** What tells one finding of an engine from another: its cause and where it stands. */
export const findingKey = ({ cause, sites }: Finding): string => `${cause} ${sites.map(siteId).join(' ')}`;

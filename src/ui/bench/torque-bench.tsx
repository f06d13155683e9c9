'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { chosenCompound, compoundAdvice } from '@/core/policy/apply';
import { GASKETS, HEADS, planTorque, SEATS, THREADS, type TorquePlan } from '@/core/torque/plan';
import { personUnits, type UnitSystem } from '@/core/units/person-units';
import { readNumber } from '@/core/units/read-number';
import { readRange } from '@/core/units/read-range';
import { N_PER_LBF, NM_PER_LBF_IN } from '@/core/units/unit';
import { rangeTexts, torqueText, turnText } from '@/text/format';
import type { FormAction } from '../primitives/action-form';
import { choicesOf, LiveSelect, LiveText } from '../primitives/live-fields';
import { Caution, Facts } from '../primitives/page';
import type { ToolProps } from './bench-data';
import { KeepForm } from './keep-form';
import { SheetPicker } from './pickers';

const pick = <T extends string>(values: readonly T[], value: string, fallback: T): T =>
  values.find((v) => v === value) ?? fallback;

/** As typed and chosen. */
interface Typed {
  readonly sheetId: string;
  readonly wrenchId: string;
  readonly spec: string;
  readonly thread: string;
  readonly seat: string;
  readonly head: string;
  readonly gasket: string;
  /** Empty: as the option in force says. */
  readonly lubricant: string;
  readonly reduction: string;
  readonly adapter: string;
  readonly angle: string;
}

const START: Omit<Typed, 'sheetId' | 'wrenchId'> = {
  spec: '20 to 25 N·m',
  thread: 'M14',
  seat: 'gasket',
  head: 'aluminium',
  gasket: 'new',
  lubricant: '',
  reduction: '30',
  adapter: '',
  angle: '0',
};

/** What the figures and choices mean, and the plan that follows; null where the torque cannot be read. */
function planOf(typed: Typed, data: ToolProps['data'], system: UnitSystem) {
  const sheet = data.sheets.find(({ id }) => id === typed.sheetId);
  const wrench = data.wrenches.find(({ id }) => id === typed.wrenchId);
  const range = readRange({ kind: 'torque', text: typed.spec, personUnit: personUnits(system).torque });
  const specNm = sheet?.torqueNm ?? (range.ok ? { min: range.minSi, max: range.maxSi } : null);
  const head = sheet?.head ?? pick(HEADS, typed.head, 'aluminium');
  const threads = { lubricant: sheet?.lubricant ?? null, torqueFor: sheet?.torqueFor ?? null };
  const inForce = compoundAdvice(sheet?.compoundOption ?? 'by_sheet', sheet?.shell ?? null, head, threads);
  const chosen = pick(['dry', 'anti_seize'] as const, typed.lubricant, inForce.lubricant);
  const advice = chosenCompound(chosen, inForce, sheet?.shell ?? null, threads);
  const percent = readNumber(typed.reduction)[0] ?? 30;
  const adapterMm = typed.adapter.trim() === '' ? null : (readNumber(typed.adapter)[0] ?? null);
  const angleDeg = Number(typed.angle.replace(',', '.')) || 0;
  const plan =
    specNm &&
    planTorque({
      specNm,
      thread: sheet?.thread ?? pick(THREADS, typed.thread, 'M14'),
      seat: sheet?.seat ?? pick(SEATS, typed.seat, 'gasket'),
      gasket: pick(GASKETS, typed.gasket, 'new'),
      head,
      lubricant: advice.lubricant,
      reduction: sheet?.torqueFor === 'greased' ? 0 : Math.min(99, Math.max(0, percent)) / 100,
      wrench: wrench && { ...wrench },
      adapter: adapterMm === null ? undefined : { lengthMm: adapterMm, angleDeg },
      on: data.today,
    });
  const assumed = !sheet && range.ok && range.assumedShare !== null;
  return { sheet, wrench, fault: range.ok ? null : range.message, specNm, assumed, inForce, advice, plan };
}

/** From the dry spec to the figure on this wrench, or the angle where none fits. */
export function TorqueBench({ data, system, keep }: ToolProps & { keep: FormAction }) {
  const [typed, setTyped] = useState<Typed>({
    ...START,
    sheetId: data.sheets[0]?.id ?? '',
    wrenchId: data.wrenches[0]?.id ?? '',
  });
  const put = (name: keyof Typed) => (value: string) => setTyped((before) => ({ ...before, [name]: value }));
  const worked = planOf(typed, data, system);
  const { sheet, wrench, specNm, advice, plan } = worked;
  const { adapter, angle } = typed;
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '400px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <SheetPicker data={data} value={typed.sheetId} onChange={put('sheetId')} />
          {!sheet && <TypedSpec typed={typed} put={put} fault={worked.fault} />}
          <ThreadFields typed={typed} put={put} worked={worked} />
          <WrenchFields typed={typed} put={put} data={data} />
        </Box>
        <Box minW="0">
          {plan && specNm && (
            <Result
              plan={plan}
              specNm={specNm}
              assumed={worked.assumed}
              says={advice.says}
              doubt={advice.doubt}
              why={advice === worked.inForce ? sheet?.compoundWhy : undefined}
              sheetAngle={sheet?.angleDeg ?? null}
            />
          )}
        </Box>
      </Grid>
      <KeepForm
        tool="torque"
        action={keep}
        kept={{
          input: {
            sheet: sheet?.label ?? typed.spec,
            wrench: wrench?.name ?? '',
            adapter,
            angle,
            lubricant: advice.lubricant,
          },
          summary: plan ? summaryText(plan, wrench?.name ?? null, sheet?.part ?? null) : null,
        }}
      />
    </>
  );
}

interface FieldsProps {
  readonly typed: Typed;
  readonly put: (name: keyof Typed) => (value: string) => void;
}

/** A spec that no sheet gives. */
function TypedSpec({ typed, put, fault }: FieldsProps & { fault: string | null }) {
  return (
    <>
      <LiveText label="Torque, clean dry threads" value={typed.spec} onChange={put('spec')} fault={fault} />
      <Grid templateColumns="1fr 1fr 1fr" columnGap="3">
        <LiveSelect label="Thread" value={typed.thread} onChange={put('thread')} choices={choicesOf(THREADS)} />
        <LiveSelect label="Seat" value={typed.seat} onChange={put('seat')} choices={choicesOf(SEATS)} />
        <LiveSelect label="Head" value={typed.head} onChange={put('head')} choices={choicesOf(HEADS)} />
      </Grid>
    </>
  );
}

function ThreadFields({
  typed,
  put,
  worked: { sheet, inForce, advice },
}: FieldsProps & { worked: ReturnType<typeof planOf> }) {
  return (
    <>
      <Grid templateColumns="1fr 1fr" columnGap="3">
        <LiveSelect label="Gasket" value={typed.gasket} onChange={put('gasket')} choices={choicesOf(GASKETS)} />
        <LiveSelect
          label="Threads"
          value={typed.lubricant}
          onChange={put('lubricant')}
          choices={[
            { value: '', label: `as in force: ${inForce.lubricant === 'dry' ? 'dry' : 'anti-seize'}` },
            { value: 'dry', label: 'dry' },
            { value: 'anti_seize', label: 'anti-seize' },
          ]}
        />
      </Grid>
      {advice.lubricant === 'anti_seize' && sheet?.torqueFor !== 'greased' && (
        <LiveText
          label="Torque lowered by"
          hint="%, 10 to 40"
          value={typed.reduction}
          onChange={put('reduction')}
          inputMode="decimal"
        />
      )}
    </>
  );
}

function WrenchFields({ typed, put, data }: FieldsProps & Pick<ToolProps, 'data'>) {
  return (
    <>
      <LiveSelect
        label="Wrench"
        value={typed.wrenchId}
        onChange={put('wrenchId')}
        choices={[
          ...data.wrenches.map((w) => ({ value: w.id, label: w.name })),
          { value: '', label: 'none: turn by angle' },
        ]}
      />
      <Grid templateColumns="1fr 1fr" columnGap="3">
        <LiveText
          label="Adapter"
          hint="mm, drive to fastener"
          value={typed.adapter}
          onChange={put('adapter')}
          inputMode="decimal"
        />
        <LiveText
          label="Its angle"
          hint="°, 0 in line"
          value={typed.angle}
          onChange={put('angle')}
          inputMode="decimal"
        />
      </Grid>
    </>
  );
}

interface ResultProps {
  readonly plan: TorquePlan;
  readonly specNm: { readonly min: number; readonly max: number };
  /** The sheet says one figure alone. */
  readonly assumed: boolean;
  readonly says: string;
  readonly doubt: string | null;
  readonly why: string | undefined;
  readonly sheetAngle: number | null;
}

function Result({ plan, specNm, assumed, says, doubt, why, sheetAngle }: ResultProps) {
  const { setting, angleDeg, pullN } = plan;
  const turn = sheetAngle !== null ? `${sheetAngle}° by the sheet` : turnText(angleDeg);
  return (
    <>
      <Box role="status" mb="4">
        <Box color="soft">{setting ? 'Set the wrench to' : 'Without a wrench'}</Box>
        <Box fontSize="34px" fontWeight="700" lineHeight="1.1">
          {setting ? `${setting.value} ${setting.unit}` : turn}
        </Box>
        {setting && (
          <Box color={plan.wrenchOk ? 'ink' : 'wrong.ink'} fontWeight="650">
            {plan.wrenchOk ? 'This wrench is good for it.' : 'Do not use this wrench for it: see below.'}
          </Box>
        )}
      </Box>
      <Facts
        rows={[
          ['Spec, dry', rangeTexts(specNm.min, specNm.max, 'metric', 'torque').join(' · ')],
          ['', `${(specNm.min / NM_PER_LBF_IN).toFixed(0)} to ${(specNm.max / NM_PER_LBF_IN).toFixed(0)} lbf·in`],
          ...(assumed ? [['', 'One figure, taken ±10 %: the shop’s default tolerance'] as const] : []),
          ['At the plug', torqueText(plan.targetNm, 'metric')],
          ['Threads', `${says}${why ? ` In force: ${why}.` : ''}`],
          ['By angle', `${turn} from finger-tight contact`],
          ...(pullN === null
            ? []
            : [['Pull at the handle', `${pullN.toFixed(0)} N · ${(pullN / N_PER_LBF).toFixed(1)} lbf`] as const]),
        ]}
      />
      {[...plan.warnings.map((w) => w.message), ...(doubt ? [doubt] : [])].map((message) => (
        <Box key={message} mt="3">
          <Caution>{message}</Caution>
        </Box>
      ))}
      <Box color="soft" fontSize="sm" mt="3">
        A straight extension changes nothing. Start every plug by hand; the manufacturer’s figure comes first.
      </Box>
    </>
  );
}

function summaryText(plan: TorquePlan, wrench: string | null, part: string | null): string {
  const what = part ? `${part}: ` : '';
  const at = `${plan.targetNm.toFixed(1)} N·m at the plug`;
  if (!plan.setting)
    return `${what}${at}; without a wrench ${plan.angleDeg.min} to ${plan.angleDeg.max}° from finger-tight.`;
  return `${what}${at}; ${wrench} set to ${plan.setting.value} ${plan.setting.unit}${plan.wrenchOk ? '' : ', which does not suit it'}.`;
}

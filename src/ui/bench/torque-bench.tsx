'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { compoundAdvice } from '@/core/policy/apply';
import { GASKETS, HEADS, planTorque, SEATS, THREADS, type TorquePlan } from '@/core/torque/plan';
import { readNumber } from '@/core/units/read-number';
import { readRange } from '@/core/units/read-range';
import { NM_PER_LBF_IN } from '@/core/units/unit';
import { rangeTexts, torqueText } from '@/text/format';
import type { FormAction } from '../primitives/action-form';
import { choicesOf, LiveSelect, LiveText } from '../primitives/live-fields';
import { Caution, Facts } from '../primitives/page';
import type { ToolProps } from './bench-data';
import { KeepForm } from './keep-form';
import { SheetPicker } from './pickers';

const pick = <T extends string>(values: readonly T[], value: string, fallback: T): T =>
  values.find((v) => v === value) ?? fallback;

/** From the dry spec to the figure on this wrench, or the angle where none fits. */
export function TorqueBench({ data, system, keep }: ToolProps & { keep: FormAction }) {
  const [sheetId, setSheetId] = useState(data.sheets[0]?.id ?? '');
  const [wrenchId, setWrenchId] = useState(data.wrenches[0]?.id ?? '');
  const [typedSpec, setTypedSpec] = useState('20 to 25 N·m');
  const [thread, setThread] = useState('M14');
  const [seat, setSeat] = useState('gasket');
  const [head, setHead] = useState('aluminium');
  const [gasket, setGasket] = useState('new');
  const [lubricant, setLubricant] = useState('');
  const [reduction, setReduction] = useState('30');
  const [adapter, setAdapter] = useState('');
  const [angle, setAngle] = useState('0');
  const sheet = data.sheets.find((s) => s.id === sheetId);
  const wrench = data.wrenches.find((w) => w.id === wrenchId);
  const range = readRange({ kind: 'torque', text: typedSpec, personUnit: system === 'us' ? 'lbf·ft' : 'N·m' });
  const specNm = sheet?.torqueNm ?? (range.ok ? { min: range.minSi, max: range.maxSi } : null);
  const headNow = sheet?.head ?? pick(HEADS, head, 'aluminium');
  const advice = compoundAdvice(sheet?.compoundOption ?? 'by_sheet', sheet?.shell ?? null, headNow, {
    lubricant: sheet?.lubricant ?? null,
    torqueFor: sheet?.torqueFor ?? null,
  });
  const greased = lubricant === '' ? advice.lubricant : pick(['dry', 'anti_seize'] as const, lubricant, 'dry');
  const percent = readNumber(reduction)[0] ?? 30;
  const adapterMm = adapter.trim() === '' ? null : (readNumber(adapter)[0] ?? null);
  const plan =
    specNm &&
    planTorque({
      specNm,
      thread: sheet?.thread ?? pick(THREADS, thread, 'M14'),
      seat: sheet?.seat ?? pick(SEATS, seat, 'gasket'),
      gasket: pick(GASKETS, gasket, 'new'),
      head: headNow,
      lubricant: greased,
      reduction: sheet?.torqueFor === 'greased' ? 0 : Math.min(99, Math.max(0, percent)) / 100,
      wrench: wrench && { ...wrench },
      adapter: adapterMm === null ? undefined : { lengthMm: adapterMm, angleDeg: Number(angle.replace(',', '.')) || 0 },
      on: data.today,
    });
  const summary = plan ? summaryText(plan, wrench?.name ?? null, sheet?.part ?? null) : null;
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '400px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <SheetPicker data={data} value={sheetId} onChange={setSheetId} />
          {!sheet && (
            <>
              <LiveText
                label="Torque, clean dry threads"
                value={typedSpec}
                onChange={setTypedSpec}
                fault={range.ok ? null : range.message}
              />
              <Grid templateColumns="1fr 1fr 1fr" columnGap="3">
                <LiveSelect label="Thread" value={thread} onChange={setThread} choices={choicesOf(THREADS)} />
                <LiveSelect label="Seat" value={seat} onChange={setSeat} choices={choicesOf(SEATS)} />
                <LiveSelect label="Head" value={head} onChange={setHead} choices={choicesOf(HEADS)} />
              </Grid>
            </>
          )}
          <Grid templateColumns="1fr 1fr" columnGap="3">
            <LiveSelect label="Gasket" value={gasket} onChange={setGasket} choices={choicesOf(GASKETS)} />
            <LiveSelect
              label="Threads"
              value={lubricant}
              onChange={setLubricant}
              choices={[
                { value: '', label: `as in force: ${advice.lubricant === 'dry' ? 'dry' : 'anti-seize'}` },
                { value: 'dry', label: 'dry' },
                { value: 'anti_seize', label: 'anti-seize' },
              ]}
            />
          </Grid>
          {greased === 'anti_seize' && sheet?.torqueFor !== 'greased' && (
            <LiveText
              label="Torque lowered by"
              hint="%, 10 to 40"
              value={reduction}
              onChange={setReduction}
              inputMode="decimal"
            />
          )}
          <LiveSelect
            label="Wrench"
            value={wrenchId}
            onChange={setWrenchId}
            choices={[
              ...data.wrenches.map((w) => ({ value: w.id, label: w.name })),
              { value: '', label: 'none: turn by angle' },
            ]}
          />
          <Grid templateColumns="1fr 1fr" columnGap="3">
            <LiveText
              label="Adapter"
              hint="mm, drive to fastener"
              value={adapter}
              onChange={setAdapter}
              inputMode="decimal"
            />
            <LiveText label="Its angle" hint="°, 0 in line" value={angle} onChange={setAngle} inputMode="decimal" />
          </Grid>
        </Box>
        <Box minW="0">
          {plan && specNm && (
            <Result
              plan={plan}
              specNm={specNm}
              says={advice.says}
              doubt={advice.doubt}
              why={sheet?.compoundWhy}
              sheetAngle={sheet?.angleDeg ?? null}
            />
          )}
        </Box>
      </Grid>
      <KeepForm
        tool="torque"
        action={keep}
        kept={{
          input: { sheet: sheet?.label ?? typedSpec, wrench: wrench?.name ?? '', adapter, angle, lubricant: greased },
          summary,
        }}
      />
    </>
  );
}

interface ResultProps {
  readonly plan: TorquePlan;
  readonly specNm: { readonly min: number; readonly max: number };
  readonly says: string;
  readonly doubt: string | null;
  readonly why: string | undefined;
  readonly sheetAngle: number | null;
}

function Result({ plan, specNm, says, doubt, why, sheetAngle }: ResultProps) {
  const { setting, angleDeg, pullN } = plan;
  const turn =
    sheetAngle !== null
      ? `${sheetAngle}° by the sheet`
      : angleDeg.min === angleDeg.max
        ? `${angleDeg.min}°`
        : `${angleDeg.min} to ${angleDeg.max}°`;
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
          ['At the plug', torqueText(plan.targetNm, 'metric')],
          ['Threads', `${says}${why ? ` In force: ${why}.` : ''}`],
          ['By angle', `${turn} from finger-tight contact`],
          ...(pullN === null
            ? []
            : [['Pull at the handle', `${pullN.toFixed(0)} N · ${(pullN / 4.448222).toFixed(1)} lbf`] as const]),
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

'use client';

import { Box, Grid } from '@chakra-ui/react';
import { useState } from 'react';
import { bendHistory, checkReachable } from '@/core/gap/bends';
import {
  type BatchVerdict,
  ELECTRODES,
  type Electrode,
  type GapSpec,
  type GapVerdict,
  gaugeAdvice,
  REGAP_POLICIES,
} from '@/core/gap/check';
import { allowedReversals } from '@/core/policy/apply';
import type { UnitSystem } from '@/core/units/person-units';
import { readQuantity } from '@/core/units/read-quantity';
import { readRange } from '@/core/units/read-range';
import { ELECTRODE_WORDS } from '@/text/catalogue-words';
import { gapText, rangeTexts } from '@/text/format';
import type { FormAction } from '../primitives/action-form';
import { choicesOf, LiveLines, LiveSelect, LiveText } from '../primitives/live-fields';
import { Caution } from '../primitives/page';
import { PlainTable } from '../primitives/plain-table';
import type { ToolProps } from './bench-data';
import { KeepForm } from './keep-form';
import { SheetPicker } from './pickers';

const POLICY_WORDS = {
  adjust: 'adjust',
  ground_only: 'ground electrode only, within 0.20 mm',
  never: 'never bend, return',
};

/** Gap set checker: each plug and the batch, what to bend and by how much. */
export function GapBench({ data, system, keep }: ToolProps & { keep: FormAction }) {
  const [sheetId, setSheetId] = useState(data.sheets[0]?.id ?? '');
  const sheet = data.sheets.find((s) => s.id === sheetId);
  const [range, setRange] = useState('1.00 to 1.10 mm');
  const [electrode, setElectrode] = useState<Electrode>('fine_wire');
  const [policy, setPolicy] = useState('');
  const [gaps, setGaps] = useState('');
  const [bends, setBends] = useState('');
  const unit = system === 'us' ? 'in' : 'mm';
  const typed = readRange({ kind: 'gap', text: range, personUnit: unit });
  const typedSpec = typed.ok ? { minMm: typed.minSi, maxMm: typed.maxSi, targetMm: typed.targetSi } : null;
  const spec = sheet ? sheet.gap : typedSpec;
  const wire = sheet?.electrode ?? electrode;
  const rule = REGAP_POLICIES.find((p) => p === policy) ?? sheet?.regap ?? 'ground_only';
  const read = readGaps(gaps, unit);
  // With a gap that cannot be read, the plugs after it would have wrong numbers.
  const result =
    spec && read.fault === null && read.values.length > 0 ? checkReachable(spec, wire, rule, read.values) : null;
  const reversals = bendHistory(readSigned(bends), allowedReversals(sheet?.reverseOption ?? 'once', wire));
  const count = read.values.length;
  const plugsText = `${count === 1 ? '1 plug' : `${count} plugs`}${sheet ? ` ${sheet.part}` : ''}`;
  const summary =
    result && spec ? `${plugsText} for ${rangeText(spec, system)}: ${batchText(result.batch, count, system)}` : null;
  return (
    <>
      <Grid templateColumns={{ base: '1fr', lg: '400px minmax(0, 1fr)' }} columnGap="8">
        <Box>
          <SheetPicker data={data} value={sheetId} onChange={setSheetId} />
          {!sheet && (
            <>
              <LiveText label="Gap range" value={range} onChange={setRange} fault={typed.ok ? null : typed.message} />
              <LiveSelect
                label="Electrode"
                value={electrode}
                onChange={(value) => setElectrode(ELECTRODES.find((e) => e === value) ?? electrode)}
                choices={choicesOf(ELECTRODES, ELECTRODE_WORDS)}
              />
            </>
          )}
          <LiveSelect
            label="Bending"
            value={policy}
            onChange={setPolicy}
            hint={sheet && policy === '' ? sheet.regapWhy : undefined}
            choices={[
              { value: '', label: `as in force: ${POLICY_WORDS[sheet?.regap ?? 'ground_only']}` },
              ...choicesOf(REGAP_POLICIES, POLICY_WORDS),
            ]}
          />
          <LiveLines
            label="Gaps measured"
            hint={`in ${unit}, or each with its unit`}
            value={gaps}
            onChange={setGaps}
            fault={read.fault}
          />
          <LiveText
            label="Bends of one plug so far"
            hint="+0.05 opens, -0.03 closes"
            value={bends}
            onChange={setBends}
          />
          {bends.trim() !== '' && <Reversals {...reversals} why={sheet?.reverseWhy ?? 'Once, never on fine wire'} />}
        </Box>
        <Box minW="0">
          {spec && (
            <Box mb="2">
              {rangeTexts(spec.minMm, spec.maxMm, system, 'gap').join(' · ')}, {ELECTRODE_WORDS[wire]}
            </Box>
          )}
          {!result && spec && (
            <Box color="soft" mb="3">
              Measure every new plug of the set and type the gaps: each is judged, and the batch.
            </Box>
          )}
          {result && <Verdict batch={result.batch} count={count} system={system} />}
          {result && <Plugs {...{ plugs: result.plugs, gaps: read.values, system }} dropped={dropped(result.batch)} />}
          <Caution>{gaugeAdvice(wire)} Nothing touches or levers on the centre electrode or insulator.</Caution>
        </Box>
      </Grid>
      <KeepForm tool="gaps" action={keep} kept={{ input: { sheet: sheet?.label ?? range, gaps, bends }, summary }} />
    </>
  );
}

function Reversals({ changesOfDirection, discard, why }: ReturnType<typeof bendHistory> & { readonly why: string }) {
  return (
    <Box role="status" mb="3" color={discard ? 'wrong.ink' : 'ink'}>
      {changesOfDirection} change{changesOfDirection === 1 ? '' : 's'} of direction
      {discard ? ': discard this plug, the metal is tired.' : '.'} ({why})
    </Box>
  );
}

const rangeText = ({ minMm, maxMm }: GapSpec, system: UnitSystem): string =>
  rangeTexts(minMm, maxMm, system, 'gap')[0] ?? '';

function Verdict({ batch, count, system }: { batch: BatchVerdict; count: number; system: UnitSystem }) {
  return (
    <Box
      role="status"
      fontWeight="650"
      px="3"
      py="2"
      mb="3"
      rounded="sm"
      bg={batch.verdict === 'good' ? 'tint' : 'wrong.bg'}
      color={batch.verdict === 'good' ? 'ink' : 'wrong.ink'}
    >
      {batchText(batch, count, system)}
    </Box>
  );
}

function batchText({ verdict, offsetMm, spreadMm, suspects }: BatchVerdict, count: number, system: UnitSystem): string {
  const off = `${gapText(Math.abs(offsetMm), system)} too ${offsetMm > 0 ? 'wide' : 'narrow'}`;
  const names = suspects.map((i) => i + 1).join(', ');
  // One plug is like itself: there is no batch to judge.
  if (count === 1) return verdict === 'good' ? 'In range.' : `This plug is ${off}.`;
  switch (verdict) {
    case 'good':
      return `Good batch, spread ${gapText(spreadMm, system)}.`;
    case 'wrong_application':
      return `All alike, but ${off}: gapped for another application. Check the part number before bending anything.`;
    case 'handling_damage':
      return `Plug ${names} lies far from the rest: dropped. Set it aside and measure the others again.`;
    case 'adjust_individually':
      return `Not alike, spread ${gapText(spreadMm, system)}: judge each plug.`;
  }
}

/** A single plug far from the rest is not bent back but set aside. */
const dropped = ({ verdict, suspects }: BatchVerdict): readonly number[] =>
  verdict === 'handling_damage' ? suspects : [];

const REASONS = {
  policy_never: 'the rule in force is never to bend: return it',
  multi_ground: 'several ground electrodes are never bent',
  bend_too_far: 'too far to bend, take another',
} as const;

function Plugs({
  plugs,
  gaps,
  dropped,
  system,
}: {
  plugs: readonly GapVerdict[];
  gaps: readonly number[];
  dropped: readonly number[];
  system: UnitSystem;
}) {
  return (
    <PlainTable heads={['Plug', 'Gap', 'What to do']}>
      {plugs.map((plug, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a plug is known by its place on the bench
        <tr key={i}>
          <td>{i + 1}</td>
          <td className="nowrap">{gapText(gaps[i] ?? null, system)}</td>
          <td className={plug.action === 'accept' && !dropped.includes(i) ? undefined : 'strong'}>
            {dropped.includes(i) ? 'set it aside: dropped' : plugText(plug, system)}
          </td>
        </tr>
      ))}
    </PlainTable>
  );
}

function plugText({ action, byMm, reason }: GapVerdict, system: UnitSystem): string {
  if (action === 'accept') return 'accept';
  if (action === 'reject') {
    const why = reason ? REASONS[reason] : 'out of range';
    return `reject: ${why}${reason === 'bend_too_far' ? ` (by ${gapText(byMm, system)})` : ''}`;
  }
  return `${action} by ${gapText(byMm, system)}`;
}

const GAP = /[\d.,]+\s*(?:mm|in\b|thou|["″])?/gi;

/** Gaps in a row or one on a line; whatever else is there is a fault. */
function readGaps(text: string, unit: 'mm' | 'in'): { values: number[]; fault: string | null } {
  const others = text.replace(GAP, ' ').match(/[^\s;/|]+/g) ?? [];
  const tokens = [...(text.match(GAP) ?? []), ...others];
  const values: number[] = [];
  let fault: string | null = null;
  for (const token of tokens) {
    const reading = readQuantity({ kind: 'gap', text: token, personUnit: unit });
    if (reading.verdict === 'ok') values.push(reading.valueSi);
    else fault ??= reading.message;
  }
  return { values, fault };
}

const readSigned = (text: string): number[] =>
  (text.match(/[+-]?\d+(?:[.,]\d+)?/g) ?? []).map((token) => Number(token.replace(',', '.')));

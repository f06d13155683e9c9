'use client';

import { memo } from 'react';
import { partKey } from '@/core/catalogue/match';
import { bendFault, gapsFromText, sayBends } from '@/core/gap/bends';
import { gapTarget } from '@/core/gap/check';
import type { Mm } from '@/core/shared/kinds';
import { type BendRules, bendRulesFor, gapFault, type PlugRules } from '@/core/work/place-done';
import { hasField } from '@/core/work/place-fields';
import { PART_WORDS } from '@/core/work/say-places';
import { rangeTexts } from '@/text/format';
import { type Hand, looksAlike, text } from './hand';
import { Leads } from './leads';
import { GaugeRow } from './number-read';
import { Press } from './parts';
import { ChoiceInput, QuantityInput, TextInput, verdictOf } from './place-inputs';

/** The part that goes in: the number read off it, its serial and lot, its gap, what is on its threads, its leads. */
function New({ hand }: { hand: Hand }) {
  const { job, place, task, fields, put } = hand;
  const { rules } = task;
  const number = text(fields, 'newNumber');
  const right = rules.accepted.some((same) => same.includes(partKey(number)));
  return (
    <>
      <TextInput
        hand={hand}
        field="newNumber"
        label={`Number on the new ${PART_WORDS[place.component]}`}
        known={rules.partNumber ? `this engine takes ${rules.partNumber}` : 'no sheet says which'}
        offer={rules.partNumber}
        verdict={verdictOf(number === '' ? null : right, 'right', 'not for this engine')}
      />
      {rules.component === 'plug' ? (
        <NewPlug hand={hand} rules={rules} number={number} />
      ) : (
        <>
          {hasField(place.component, 'tagIn') && (
            <TextInput
              hand={hand}
              field="tagIn"
              label="Serial of the new one"
              known="scanned or typed; it follows the part"
            />
          )}
          <TextInput hand={hand} field="newLot" label="Lot on the box" known="what a fault is traced by" />
          {rules.leads.length > 0 && (
            <Leads
              leads={rules.leads}
              on={text(fields, 'leadsOn')}
              system={job.units}
              onChange={(value) => put('leadsOn', value)}
            />
          )}
        </>
      )}
    </>
  );
}

/** The gap of a new plug, its bends, and what is on its threads. */
function NewPlug({ hand, rules, number }: { hand: Hand; rules: PlugRules; number: string }) {
  const { job, fields, put } = hand;
  const gap = hand.quantity('newGap');
  const bentFrom = gapsFromText(text(fields, 'bentFrom'));
  const fault = gap === null ? null : gapFault(gap, rules, number, bentFrom);
  const { minMm, maxMm } = rules.gap;
  const [range, other] = rangeTexts(minMm, maxMm, job.units, 'gap');
  return (
    <>
      <QuantityInput
        hand={hand}
        field="newGap"
        name="New gap"
        known={`spec ${range} · ${other}`}
        verdict={verdictOf(gap === null ? null : fault === null)}
      />
      {fault && <div className="fault">{fault}</div>}
      <Bends gap={gap} bentFrom={bentFrom} isOff={fault !== null} rules={bendRulesFor(rules, number)} put={put} />
      <GaugeRow
        steps={[...new Set([minMm, gapTarget(rules.gap), maxMm])]}
        job={job}
        value={gap}
        label="By wire gauge, the new"
        onPick={(value) => put('newGap', value)}
      />
      <Dropped fields={fields} put={put} />
      {(rules.lubricant === 'anti_seize' || fields.compound) && (
        <ChoiceInput hand={hand} field="compound" label="Compound on the threads">
          <div className="aside">Compound on the threads. {rules.threadsSay}</div>
        </ChoiceInput>
      )}
    </>
  );
}

/** Each bend is logged by the gap before it, so that its direction is known and none is bent too far or to and fro. */
function Bends({
  gap,
  bentFrom,
  isOff,
  rules: { electrode, reversals },
  put,
}: Pick<Hand, 'put'> & { gap: Mm | null; bentFrom: readonly Mm[]; isOff: boolean; rules: BendRules }) {
  const log = sayBends([...bentFrom, ...(gap === null ? [] : [gap])]);
  const again = (gaps: readonly Mm[]): void => {
    put('bentFrom', gaps.join(' '));
    put('newGap', '');
  };
  return (
    <>
      {log !== '' && <div className="aside">Bent: {log}</div>}
      {((isOff && gap !== null) || bentFrom.length > 0) && (
        <div className="press-row">
          {isOff && gap !== null && bendFault([...bentFrom, gap], electrode, reversals) === null && (
            <Press onPress={() => again([...bentFrom, gap])}>Bent: measure again</Press>
          )}
          <Press onPress={() => again([])}>Another plug taken</Press>
        </div>
      )}
    </>
  );
}

/** A plug that fell may have a closed gap and a cracked insulator: both are looked at again. */
function Dropped({ fields, put }: Pick<Hand, 'fields' | 'put'>) {
  const isDropped = fields.dropped === 'dropped';
  return (
    <div className="press-row">
      {isDropped ? (
        <>
          <div className="fault">Dropped: measure its gap again, and look at the insulator.</div>
          <Press onPress={() => put('dropped', 'insulator sound')}>Insulator sound</Press>
        </>
      ) : (
        <Press
          onPress={() => {
            put('dropped', 'dropped');
            put('newGap', '');
          }}
        >
          {fields.dropped ? 'Dropped again' : 'It was dropped'}
        </Press>
      )}
    </div>
  );
}

export const NewPart = memo(New, ({ hand: before }, { hand: after }) => looksAlike(before, after));

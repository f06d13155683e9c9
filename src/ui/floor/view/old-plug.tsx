'use client';

import { memo } from 'react';
import { isAnotherPart } from '@/core/catalogue/same-part';
import { gapGrowth } from '@/core/gap/check';
import { aboveThePlug, BREAKAWAY_FEELS } from '@/core/inspection/vocabulary';
import { gaugeSteps } from '@/core/work/next-site';
import { allNormal, type Seen } from '@/core/work/place-fields';
import { gapText, wearText } from '@/text/format';
import { NumberField } from './number-field';
import { GaugeRow, NumberRead } from './number-read';
import { Observations } from './observations';
import { FieldHead, Press } from './parts';
import { looksAlike, type Part, seenOf, text } from './site-parts';

const FEEL_WORDS: Readonly<Record<string, string>> = {
  loose: 'loose',
  normal: 'normal',
  tight: 'tight',
  seized: 'seized',
  unknown: 'not noticed',
};

function numberVerdict(found: string, expected: readonly string[] | null) {
  const another = isAnotherPart(found || null, expected);
  if (another === null) return null;
  return another ? { words: 'not what the record says', good: false } : { words: 'as recorded', good: true };
}

/** The plug that comes out: its number, gap, what it shows and how it came loose. */
function OldPlug({
  site,
  fields,
  put,
  job,
  plug,
  active,
  activate,
  quantity,
  pad,
  last,
  bare,
  more,
  onMore,
  onAlike,
}: Part & {
  last: Seen | null;
  /** Other sites that nobody has described yet. */
  bare: number;
  more: boolean;
  onMore: () => void;
  onAlike: () => void;
}) {
  const seen = seenOf(fields);
  const found = text(fields, 'observedNumber');
  const expected = site.expectedNumber;
  const oldMm = quantity('removedGap');
  const growth =
    oldMm !== null && site.fittedGapMm !== null && site.sinceKm !== null
      ? gapGrowth(site.fittedGapMm, oldMm, site.sinceKm)
      : null;
  const steps = gaugeSteps(site.fittedGapMm ?? plug.rules.gap.maxMm, { below: 0, above: 7 });
  const good = allNormal(plug.seat, job.layout.model.ignition);
  return (
    <>
      <NumberRead
        label="Number read off the old plug"
        value={found}
        known={expected ? `the record says ${expected}` : 'the record names none'}
        offer={expected}
        verdict={numberVerdict(found, site.expectedKeys)}
        onChange={(value) => put('observedNumber', value)}
      />
      <NumberField
        field="removedGap"
        name="Old gap"
        known={
          site.fittedGapMm === null
            ? 'gap when fitted is not known'
            : `fitted at ${gapText(site.fittedGapMm, job.units)}`
        }
        value={text(fields, 'removedGap')}
        system={job.units}
        active={active === 'removedGap'}
        verdict={
          growth === null ? null : { words: `${growth >= 0 ? '+' : ''}${wearText(growth, job.units)}`, good: true }
        }
        pad={pad}
        onActive={() => activate('removedGap')}
        onChange={(value) => put('removedGap', value)}
      />
      <GaugeRow
        steps={steps}
        job={job}
        value={oldMm}
        label="By wire gauge, the old"
        onPick={(value) => put('removedGap', value)}
      />
      <FieldHead name="What you see" known="press again: beyond doubt, just visible" />
      <div className="press-row">
        <Press
          chosen={
            Object.keys(good).every((word) => word in seen) && Object.keys(seen).length === Object.keys(good).length
          }
          onPress={() => {
            put('seen', good);
            if (!fields.breakawayFeel) put('breakawayFeel', 'normal');
          }}
        >
          All normal: tan, sharp, dry, clean
        </Press>
        {last && Object.keys(last).length > 0 && <Press onPress={() => put('seen', last)}>Same as the last</Press>}
        {bare > 0 && Object.keys(seen).length > 0 && (
          <Press onPress={onAlike}>All alike: so {bare === 1 ? 'is the other' : `are the other ${bare}`}</Press>
        )}
        <Press chosen={more} onPress={onMore}>
          {more ? 'Fewer' : 'Describe it'}
        </Press>
      </div>
      {!more && Object.keys(seen).length > 0 && <div>{Object.keys(seen).join(', ')}</div>}
      {more && (
        <Observations
          seen={seen}
          gapMm={oldMm}
          seat={plug.seat}
          above={aboveThePlug(job.layout.model.ignition)}
          onChange={(value) => put('seen', value)}
        />
      )}
      <CameLoose fields={fields} put={put} />
    </>
  );
}

function CameLoose({ fields, put }: Pick<Part, 'fields' | 'put'>) {
  return (
    <>
      <FieldHead name="How it came loose" />
      <div className="press-row">
        {BREAKAWAY_FEELS.map((feel) => (
          <Press
            key={feel}
            chosen={fields.breakawayFeel === feel}
            onPress={() => put('breakawayFeel', fields.breakawayFeel === feel ? null : feel)}
          >
            {FEEL_WORDS[feel]}
          </Press>
        ))}
      </div>
    </>
  );
}

export const OldPlugDrawn = memo(OldPlug, looksAlike);

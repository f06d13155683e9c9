'use client';

import { memo } from 'react';
import { isAnotherPart } from '@/core/catalogue/same-part';
import { gapGrowth } from '@/core/gap/check';
import { aboveThePlug, BREAKAWAY_FEELS } from '@/core/inspection/vocabulary';
import type { Mm } from '@/core/shared/kinds';
import { holeSays } from '@/core/work/gates';
import type { FloorJob } from '@/core/work/job-record';
import { gaugeSteps } from '@/core/work/next-site';
import {
  allNormal,
  crackedRegion,
  HOLE_THREADS,
  PIECES,
  piecesSays,
  placeRecord,
  type Seen,
} from '@/core/work/place-fields';
import { gapText, wearText } from '@/text/format';
import { NumberField } from './number-field';
import { GaugeRow, NumberRead } from './number-read';
import { Observations } from './observations';
import { FieldHead, Press } from './parts';
import { looksAlike, type Part, type PlugSite, seenOf, text } from './site-parts';

const FEEL_WORDS: Readonly<Record<string, string>> = {
  loose: 'loose',
  normal: 'normal',
  tight: 'tight',
  seized: 'seized',
  unknown: 'not noticed',
};

function numberVerdict(observed: string, expected: readonly string[] | null) {
  const another = isAnotherPart(observed || null, expected);
  if (another === null) return null;
  return another ? { words: 'not what the record says', good: false } : { words: 'as recorded', good: true };
}

const fittedWords = ({ fittedGapMm }: PlugSite, { units }: Pick<FloorJob, 'units'>): string =>
  fittedGapMm === null ? 'gap when fitted is not known' : `fitted at ${gapText(fittedGapMm, units)}`;

/** How fast the gap has grown; null where an end of it is not known. @param oldMm as measured, mm */
const grownSince = ({ fittedGapMm, sinceKm }: PlugSite, oldMm: number | null): number | null =>
  oldMm !== null && fittedGapMm !== null && sinceKm !== null ? gapGrowth(fittedGapMm, oldMm, sinceKm) : null;

interface Describing {
  readonly last: Seen | null;
  /** Other sites that nobody has described yet. */
  readonly bare: number;
  readonly more: boolean;
  readonly onMore: () => void;
  readonly onAlike: () => void;
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
}: Part & Describing) {
  const observed = text(fields, 'observedNumber');
  const expected = site.expectedNumber;
  const oldMm = quantity('removedGap');
  const growth = grownSince(site, oldMm);
  const steps = gaugeSteps(site.fittedGapMm ?? plug.rules.gap.maxMm, { below: 0, above: 7 });
  const normal = () => {
    put('seen', allNormal(plug.seat, job.layout.model.ignition));
    put('hole', 'sound');
    if (!fields.breakawayFeel) put('breakawayFeel', 'normal');
  };
  return (
    <>
      {expected && observed === '' && (
        <AsExpected
          number={expected}
          onPress={() => {
            put('observedNumber', expected);
            normal();
          }}
        />
      )}
      <NumberRead
        field="observedNumber"
        label="Number read off the old plug"
        value={observed}
        known={expected ? `the record says ${expected}` : 'the record names none'}
        offer={expected}
        verdict={numberVerdict(observed, site.expectedKeys)}
        onChange={(value) => put('observedNumber', value)}
      />
      <NumberField
        field="removedGap"
        name="Old gap"
        known={fittedWords(site, job)}
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
      <WhatYouSee {...{ fields, put, job, plug, last, bare, more, onMore, onAlike, normal }} gapMm={oldMm} />
      <CameLoose fields={fields} put={put} />
      <Hole fields={fields} put={put} />
    </>
  );
}

/** What the plug shows: in one press where all is normal, else word by word. */
function WhatYouSee({
  fields,
  put,
  job,
  plug,
  last,
  bare,
  more,
  onMore,
  onAlike,
  normal,
  gapMm,
}: Pick<Part, 'fields' | 'put' | 'job' | 'plug'> & Describing & { normal: () => void; gapMm: Mm | null }) {
  const seen = seenOf(fields);
  const good = allNormal(plug.seat, job.layout.model.ignition);
  const cracked = crackedRegion(seen);
  const pieces = <Pieces fields={fields} put={put} />;
  return (
    <>
      <FieldHead name="What you see" known="press again: beyond doubt, just visible" />
      <div className="press-row" data-field="seen">
        <Press
          chosen={
            Object.keys(good).every((word) => word in seen) && Object.keys(seen).length === Object.keys(good).length
          }
          onPress={normal}
        >
          All normal: tan, sharp, dry, clean, thread sound
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
          gapMm={gapMm}
          seat={plug.seat}
          above={aboveThePlug(job.layout.model.ignition)}
          onChange={(value) => put('seen', value)}
          // Where the crack was pressed: further down nobody sees it in time.
          below={(region) => region === cracked && pieces}
        />
      )}
      {!(more && cracked) && pieces}
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

/** Where nothing is out of order: number, look, how it came and the thread in one press. */
const AsExpected = ({ number, onPress }: { number: string; onPress: () => void }) => (
  <Press wide onPress={onPress}>
    Reads {number}, all normal, thread sound
  </Press>
);

/** A cracked insulator stops the start, and says so where it was seen, with a network or without. */
function Pieces({ fields, put }: Pick<Part, 'fields' | 'put'>) {
  const place = placeRecord(fields);
  const says = piecesSays(place);
  if (says === null && place.pieces === null) return null;
  return (
    <fieldset className="press-row" aria-label="Pieces of the cracked insulator">
      {says && (
        <div className="fault" role="alert">
          {says}
        </div>
      )}
      {PIECES.map((word) => (
        <Press
          key={word}
          chosen={place.pieces === word}
          onPress={() => put('pieces', place.pieces === word ? null : word)}
        >
          {word === 'all there' ? 'Every piece is there' : 'A piece is missing'}
        </Press>
      ))}
    </fieldset>
  );
}

/** The thread in the head, once the plug is out: what is torn is repaired before a plug goes in. */
function Hole({ fields, put }: Pick<Part, 'fields' | 'put'>) {
  const bad = fields.hole !== 'sound' && HOLE_THREADS.find((known) => known === fields.hole);
  return (
    <>
      <FieldHead name="Thread in the head" />
      <fieldset className="press-row" aria-label="Thread in the head" data-field="hole">
        {HOLE_THREADS.map((thread) => (
          <Press
            key={thread}
            chosen={fields.hole === thread}
            onPress={() => put('hole', fields.hole === thread ? null : thread)}
          >
            {thread}
          </Press>
        ))}
      </fieldset>
      {bad && <div className="fault">{holeSays(bad)}</div>}
    </>
  );
}

export const OldPlugDrawn = memo(OldPlug, looksAlike);

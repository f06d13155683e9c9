'use client';

import { Box } from '@chakra-ui/react';
import { memo } from 'react';
import { isAnotherPart } from '@/core/catalogue/same-part';
import { gapGrowth } from '@/core/gap/check';
import { aboveThePlug, NORMAL, REGIONS_OF } from '@/core/inspection/vocabulary';
import { sayOhmRange } from '@/core/units/say';
import { holeSays } from '@/core/work/gates';
import type { FloorPlug } from '@/core/work/job-record';
import { gaugeSteps } from '@/core/work/next-site';
import { isResistanceInRange, ohmRange, type PartRules } from '@/core/work/place-done';
import {
  allNormal,
  crackedRegion,
  HOLE_THREADS,
  hasField,
  normalFor,
  piecesSays,
  placeRecord,
  type Seen,
} from '@/core/work/place-fields';
import { PART_WORDS } from '@/core/work/say-places';
import { gapText, wearText } from '@/text/format';
import { type Hand, looksAlike, plugAt, seenOf, text } from './hand';
import { GaugeRow } from './number-read';
import { Observations, Words } from './observations';
import { FieldHead, Press } from './parts';
import { ChoiceInput, QuantityInput, TextInput, verdictOf } from './place-inputs';

interface Describing {
  readonly hand: Hand;
  /** What the place described last showed; null: none was. */
  readonly last: Seen | null;
  /** Other places of the same part that nobody has described yet. */
  readonly bare: number;
  readonly more: boolean;
  readonly onMore: () => void;
  readonly onAlike: () => void;
}

/** What is normal here, in one press. */
function allNormalAt({ job, place }: Hand): Seen {
  return place.component === 'plug' && job.plug
    ? allNormal(job.plug.seat, job.layout.model.ignition)
    : normalFor(place.component);
}

/** The part that comes out: its number, what it measures, what it shows and how it came loose. */
function Old({ hand, ...describing }: Describing) {
  const { job, place, task, fields } = hand;
  const plug = plugAt(job, place);
  const normal = () => {
    hand.put('seen', allNormalAt(hand));
    if (!plug) return;
    hand.put('hole', 'sound');
    if (!fields.breakawayFeel) hand.put('breakawayFeel', 'normal');
  };
  return (
    <>
      <Numbers {...{ hand, normal }} />
      {plug && <OldGap {...{ hand, plug }} />}
      <WhatYouSee {...{ hand, plug, normal }} {...describing} />
      {plug && <ChoiceInput hand={hand} field="breakawayFeel" head="How it came loose" words={FEEL_WORDS} />}
      {plug && <Hole hand={hand} />}
      {task.rules.component !== 'plug' && <Measured {...{ hand, rules: task.rules }} />}
    </>
  );
}

const FEEL_WORDS = { unknown: 'not noticed' };

/** Number and serial, as the record has them or as they are read. */
function Numbers({ hand, normal }: { hand: Hand; normal: () => void }) {
  const { component, expectedNumber, expectedKeys, expectedTag } = hand.place;
  const observed = text(hand.fields, 'observedNumber');
  const another = isAnotherPart(observed || null, expectedKeys);
  const serial = text(hand.fields, 'tagOut');
  const asRecorded = (good: boolean | null) => verdictOf(good, 'as recorded', 'not what the record says');
  return (
    <>
      {component === 'plug' && expectedNumber && observed === '' && (
        <Press
          wide
          onPress={() => {
            hand.put('observedNumber', expectedNumber);
            normal();
          }}
        >
          Reads {expectedNumber}, all normal, thread sound
        </Press>
      )}
      <TextInput
        hand={hand}
        field="observedNumber"
        label={component === 'plug' ? 'Number read off the old plug' : `Number on the old ${PART_WORDS[component]}`}
        known={expectedNumber ? `the record says ${expectedNumber}` : 'the record names none'}
        offer={expectedNumber}
        verdict={asRecorded(another === null ? null : !another)}
      />
      {hasField(component, 'tagOut') && (
        <TextInput
          hand={hand}
          field="tagOut"
          label="Serial of the old one"
          known={expectedTag ? `the record says ${expectedTag}` : 'no serial on record'}
          offer={expectedTag}
          verdict={asRecorded(serial === '' || !expectedTag ? null : serial === expectedTag)}
        />
      )}
    </>
  );
}

/** The gap of the plug that came out, and how fast it grew where both ends of its life are known. */
function OldGap({ hand, plug }: { hand: Hand; plug: FloorPlug }) {
  const { job, place, put } = hand;
  const { fittedGapMm, sinceKm } = place;
  const oldMm = hand.quantity('removedGap');
  const growth =
    oldMm !== null && fittedGapMm !== null && sinceKm !== null ? gapGrowth(fittedGapMm, oldMm, sinceKm) : null;
  return (
    <>
      <QuantityInput
        hand={hand}
        field="removedGap"
        name="Old gap"
        known={fittedGapMm === null ? 'gap when fitted is not known' : `fitted at ${gapText(fittedGapMm, job.units)}`}
        verdict={
          growth === null ? null : { words: `${growth >= 0 ? '+' : ''}${wearText(growth, job.units)}`, good: true }
        }
      />
      <GaugeRow
        steps={gaugeSteps(fittedGapMm ?? plug.rules.gap.maxMm, { below: 0, above: 7 })}
        job={job}
        value={oldMm}
        label="By wire gauge, the old"
        onPick={(value) => put('removedGap', value)}
      />
    </>
  );
}

/** What the part shows: in one press where all is normal, else word by word. */
function WhatYouSee({
  hand,
  plug,
  normal,
  last,
  bare,
  more,
  onMore,
  onAlike,
}: Describing & { plug: FloorPlug | null; normal: () => void }) {
  const { job, place, fields, put } = hand;
  const seen = seenOf(fields);
  const words = Object.keys(seen);
  const good = Object.keys(allNormalAt(hand));
  const isGood = plug
    ? words.length === good.length && good.every((word) => word in seen)
    : words.length > 0 && words.every((word) => NORMAL.has(word));
  const cracked = crackedRegion(seen);
  const change = (value: Seen) => put('seen', value);
  return (
    <>
      <FieldHead name="What you see" known="press again: beyond doubt, just visible" />
      <div className="press-row" data-field="seen">
        <Press chosen={isGood} onPress={normal}>
          {plug ? 'All normal: tan, sharp, dry, clean, thread sound' : 'All sound'}
        </Press>
        {last && Object.keys(last).length > 0 && <Press onPress={() => put('seen', last)}>Same as the last</Press>}
        {bare > 0 && words.length > 0 && (
          <Press onPress={onAlike}>All alike: so {bare === 1 ? 'is the other' : `are the other ${bare}`}</Press>
        )}
        <Press chosen={more} onPress={onMore}>
          {more ? 'Fewer' : 'Describe it'}
        </Press>
      </div>
      {!more && words.length > 0 && <div>{words.join(', ')}</div>}
      {more && plug && (
        <Observations
          seen={seen}
          gapMm={hand.quantity('removedGap')}
          seat={plug.seat}
          above={aboveThePlug(job.layout.model.ignition)}
          onChange={change}
          // Where the crack was pressed: further down nobody sees it in time.
          below={(region) => region === cracked && <Pieces hand={hand} />}
        />
      )}
      {more && !plug && <Words seen={seen} regions={REGIONS_OF[place.component]} onChange={change} />}
      {more && !plug && (
        <ChoiceInput hand={hand} field="grade" head="Grade" known="1 as new to 5 failed; else the words say it" />
      )}
      {!(more && cracked) && <Pieces hand={hand} />}
    </>
  );
}

/** A cracked insulator stops the start, and says so where it was seen, with a network or without. */
function Pieces({ hand }: { hand: Hand }) {
  const place = placeRecord(hand.fields);
  const says = piecesSays(place);
  if (says === null && place.pieces === null) return null;
  return (
    <ChoiceInput
      hand={hand}
      field="pieces"
      label="Pieces of the cracked insulator"
      words={{ 'all there': 'Every piece is there', 'one is missing': 'A piece is missing' }}
    >
      {says && (
        <div className="fault" role="alert">
          {says}
        </div>
      )}
    </ChoiceInput>
  );
}

/** The thread in the head, once the plug is out: what is torn is repaired before a plug goes in. */
function Hole({ hand }: { hand: Hand }) {
  const { hole } = hand.fields;
  const bad = hole !== 'sound' && HOLE_THREADS.find((known) => known === hole);
  return (
    <>
      <ChoiceInput hand={hand} field="hole" head="Thread in the head" />
      {bad && <div className="fault">{holeSays(bad)}</div>}
    </>
  );
}

const OHMS = [
  ['primaryOhm', 'Primary resistance'],
  ['secondaryOhm', 'Secondary resistance'],
  ['ohm', 'Resistance end to end'],
] as const;

/** What a meter says, against the sheet. "OL" where nothing conducts. Shut where no test is asked for. */
function Measured({ hand, rules }: { hand: Hand; rules: PartRules }) {
  const { place, fields, task } = hand;
  const measured = OHMS.filter(([field]) => hasField(place.component, field));
  if (measured.length === 0) return null;
  const written = measured.some(([field]) => text(fields, field) !== '');
  return (
    <Box as="details" mt="3" key={place.target} {...(task.action === 'test' || written ? { open: true } : {})}>
      <summary>Resistance</summary>
      {measured.map(([field, name]) => {
        const range = field === 'ohm' ? ohmRange(rules, place.lengthMm) : rules[field];
        const ohm = hand.quantity(field);
        return (
          <QuantityInput
            key={field}
            hand={hand}
            field={field}
            name={name}
            known={range ? `sheet ${sayOhmRange(range)}` : 'no sheet gives a range; OL is an answer too'}
            verdict={verdictOf(ohm === null ? null : isResistanceInRange(ohm, range))}
          />
        );
      })}
    </Box>
  );
}

export const OldPart = memo(Old, ({ hand: before, ...was }, { hand: after, ...is }) =>
  looksAlike({ ...before, ...was }, { ...after, ...is }),
);

'use client';

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { cylinderText } from '@/core/engine/layout';
import { checkReachable } from '@/core/gap/bends';
import { type GapVerdict, gapTarget, gaugeAdvice } from '@/core/gap/check';
import type { Mm } from '@/core/shared/kinds';
import { personUnits, type UnitSystem } from '@/core/units/person-units';
import { fromSi } from '@/core/units/unit';
import type { FloorJob, FloorPlace, FloorPlug } from '@/core/work/job-record';
import { isNewAt, placeIn, quantityIn } from '@/core/work/order-model';
import { sayPlaces } from '@/core/work/say-places';
import { gapText, rangeTexts } from '@/text/format';
import { Caution } from '../../primitives/page';
import type { Floor } from '../sync/use-floor';
import { NumberField } from './number-field';
import { NumberPad } from './number-pad';
import { Press } from './parts';

const BATCH_WORDS: Readonly<Record<string, string>> = {
  good: 'Every gap is in range.',
  wrong_application:
    'All alike, and off: gapped for another application. Check the part number before anything is bent.',
  handling_damage: 'One differs from the rest: handling damage. Set it aside.',
  adjust_individually: 'Some want to be set one by one.',
};

interface NewPlugRow {
  readonly site: FloorPlace;
  readonly number: string;
  /** As typed. */
  readonly gap: string;
  readonly mm: Mm | null;
  readonly done: boolean;
}

/** The places at which a new part of one kind goes in. */
const newPlaces = ({ job, record }: Pick<Floor, 'job' | 'record'>, isPlug: boolean): readonly FloorPlace[] =>
  job.places.filter((place) => (place.component === 'plug') === isPlug && !place.moved && isNewAt(job, record, place));

const rowsOf = (floor: Pick<Floor, 'job' | 'record'>): readonly NewPlugRow[] =>
  newPlaces(floor, true).map((site) => {
    const { newNumber: number, newGap: gap, done } = placeIn(floor.record, site.target);
    const mm = quantityIn(floor.job, site.target, 'newGap', gap, personUnits(floor.job.units));
    return { site, number, gap, mm, done };
  });

/** The new parts on the bench, before anything is opened: each number read, and of plugs each gap, one by one and as a set. */
export function SetPanel({ floor }: { floor: Floor }) {
  const { plug } = floor.job;
  const rows = rowsOf(floor);
  const others = newPlaces(floor, false);
  return (
    <>
      {plug && rows.length > 0 && <NewPlugs floor={floor} plug={plug} rows={rows} />}
      {others.length > 0 && <OtherNewParts floor={floor} places={others} />}
      {rows.length === 0 && others.length === 0 && (
        <Box fontSize="18px">No new part is planned on this visit: it is looked at and measured.</Box>
      )}
    </>
  );
}

/** New parts that are no plugs, by number: each is read off before it goes in. */
function OtherNewParts({ floor, places }: { floor: Floor; places: readonly FloorPlace[] }) {
  const { job, record, set } = floor;
  return (
    <Box mt="4" maxW="720px">
      {job.tasks
        .filter(({ component }) => component !== 'plug')
        .map(({ id, rules }) => {
          const ofTask = places.filter(({ task }) => task === id);
          const { partNumber } = rules;
          const unread = ofTask.filter(({ target }) => placeIn(record, target).newNumber === '');
          if (ofTask.length === 0 || partNumber === null) return null;
          return (
            <Box key={id} borderTop="1px solid" borderColor="hair" py="2">
              <Box fontSize="18px">
                {ofTask.length} × <strong>{partNumber}</strong> for {sayPlaces(ofTask).toLowerCase()}
              </Box>
              {unread.length > 0 ? (
                <Press
                  wide
                  onPress={() => {
                    for (const { target } of unread) set(target, 'newNumber', partNumber);
                  }}
                >
                  Read off each: {unread.length === 1 ? 'it reads' : `all ${unread.length} read`} {partNumber}
                </Press>
              ) : (
                <Box className="aside">✓ every number read</Box>
              )}
            </Box>
          );
        })}
    </Box>
  );
}

function NewPlugs({ floor, plug, rows }: { floor: Floor; plug: FloorPlug; rows: readonly NewPlugRow[] }) {
  const { job, set, edit } = floor;
  const [active, setActive] = useState(rows[0]?.site.target ?? '');
  const units = personUnits(job.units);
  const { rules } = plug;
  const measured = rows.filter((row) => row.mm !== null);
  const { verdict, batch } = judged(measured, rules);
  const unread = rows.filter((row) => row.number === '');
  const unmeasured = rows.filter((row) => row.gap === '' && !row.done);
  const putGap = (target: string, text: string) => set(target, 'newGap', text);
  const [range, other] = rangeTexts(rules.gap.minMm, rules.gap.maxMm, job.units, 'gap');
  const chips = [...new Set([rules.gap.minMm, gapTarget(rules.gap), rules.gap.maxMm])].map(
    (mm) => `${fromSi(mm, units.gap).toFixed(units.gap === 'mm' ? 2 : 3)} ${units.gap}`,
  );
  return (
    <Flex gap="5" wrap="wrap" align="flex-start">
      <Box flex="1 1 360px" minW="0">
        <Box fontSize="18px" mb="2">
          {rows.length} × <strong>{rules.partNumber}</strong>, gap {range} · {other}. {gaugeAdvice(rules.electrode)}
        </Box>
        {unread.length > 0 && (
          <Press
            wide
            onPress={() => {
              for (const { site } of unread) set(site.target, 'newNumber', rules.partNumber);
            }}
          >
            Read off each: {unread.length === rows.length ? 'all' : `the other ${unread.length}`} read{' '}
            {rules.partNumber}
          </Press>
        )}
        {unmeasured.length > 1 && (
          <AllMeasure
            count={unmeasured.length}
            all={unmeasured.length === rows.length}
            chips={chips}
            onPress={(text) => {
              for (const { site } of unmeasured) putGap(site.target, text);
            }}
          />
        )}
        {rows.map((row) => (
          <NewPart
            key={row.site.target}
            row={row}
            job={job}
            chips={chips}
            active={active === row.site.target}
            verdict={verdict.get(row.site.target)}
            onActive={() => {
              setActive(row.site.target);
              edit(row.site.target, 'newGap');
            }}
            onChange={(text) => putGap(row.site.target, text)}
          />
        ))}
      </Box>
      <Box flex="0 1 280px" position={{ md: 'sticky' }} top="2">
        <NumberPad
          at={active}
          kind="gap"
          value={rows.find((row) => row.site.target === active)?.gap ?? ''}
          unit={units.gap}
          onChange={(text) => {
            edit(active, 'newGap');
            putGap(active, text);
          }}
        />
        <BenchVerdict measured={measured.length} all={rows.length} verdict={batch} />
      </Box>
    </Flex>
  );
}

/** What the set comes to, and what a wrong one does. */
function BenchVerdict({ measured, all, verdict }: { measured: number; all: number; verdict: string | undefined }) {
  return (
    <>
      {verdict && measured > 1 && (
        <Box mt="3" role="status" fontSize="18px" fontWeight="650">
          {measured} of {all} measured. {BATCH_WORDS[verdict]}
        </Box>
      )}
      <Box mt="3">
        <Caution>
          A wrong reach can strike the piston: compare a new plug with the first one out. All present, right and
          measured, else do not open the engine.
        </Caution>
      </Box>
    </>
  );
}

/** Each was measured, and all of them alike: said once. */
function AllMeasure({
  count,
  all,
  chips,
  onPress,
}: {
  count: number;
  all: boolean;
  chips: readonly string[];
  onPress: (text: string) => void;
}) {
  return (
    <Flex gap="1.5" wrap="wrap" align="center" mt="2">
      <Box fontSize="16px">{all ? 'Each of them measures' : 'Each of the others measures'}</Box>
      {chips.map((text) => (
        <Press key={text} label={`Each of ${count} measures ${text}`} onPress={() => onPress(text)}>
          {text}
        </Press>
      ))}
    </Flex>
  );
}

/** What each plug and the batch are judged to be. */
function judged(measured: readonly NewPlugRow[], { gap, electrode, regap }: FloorPlug['rules']) {
  const gaps = measured.map(({ mm }) => mm ?? 0);
  const check = gaps.length === 0 ? null : checkReachable(gap, electrode, regap, gaps);
  return {
    verdict: new Map(measured.map(({ site }, i) => [site.target, check?.plugs[i]])),
    batch: check?.batch.verdict,
  };
}

function verdictWords({ action, byMm }: GapVerdict, system: UnitSystem) {
  if (action === 'accept') return { words: 'in range', good: true };
  return { words: action === 'reject' ? 'set it aside' : `${action} by ${gapText(byMm, system)}`, good: false };
}

/** One new plug: its gap as measured, by pad or by what a gauge offers. */
function NewPart({
  row: { site, number, gap, mm, done },
  job,
  chips,
  active,
  verdict,
  onActive,
  onChange,
}: {
  row: NewPlugRow;
  job: FloorJob;
  chips: readonly string[];
  active: boolean;
  verdict: GapVerdict | undefined;
  onActive: () => void;
  onChange: (text: string) => void;
}) {
  return (
    <Box borderBottom="1px solid" borderColor="hair" pb="2">
      <NumberField
        field="newGap"
        name={`New plug for ${cylinderText(site.name)}`}
        known={number === '' ? 'number not read yet' : `reads ${number}`}
        value={gap}
        system={job.units}
        active={active}
        verdict={mm === null || !verdict ? null : verdictWords(verdict, job.units)}
        onActive={onActive}
        onChange={onChange}
      />
      {!done && (
        <Flex gap="1.5" mt="1.5" wrap="wrap">
          {chips.map((text) => (
            <Press key={text} chosen={text === gap} onPress={() => onChange(text)}>
              {text}
            </Press>
          ))}
        </Flex>
      )}
    </Box>
  );
}

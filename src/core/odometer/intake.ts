import { dayNumber, type PlainDate } from '../calendar/plain-date';
import type { Km } from '../shared/kinds';
import { keptKm } from '../units/round';
import { KM_PER_MILE } from '../units/unit';
import { type Beginning, MAX_ODOMETER_KM, type ReadingCheck, type ShownReading, suspectReadings } from './check';
import { shownFor } from './slips';
import { byDay, type Reading } from './use-rate';

/* How readings come in, from wherever: typed, sent, imported, or told when a work order is closed. */

interface Meter {
  readonly meterOffsetKm: Km;
  readonly meterReplacedOn: PlainDate | null;
}

/** What a shown figure means in the life of the vehicle: a replaced meter began anew. To a tenth of a km. */
export const lifeKm = (shownKm: Km, readOn: PlainDate, { meterOffsetKm, meterReplacedOn }: Meter): number =>
  keptKm(shownKm + (meterReplacedOn !== null && readOn >= meterReplacedOn ? meterOffsetKm : 0));

/** What the dash shows today at a life distance, in its unit. */
export const shownToday = (km: Km, unit: 'km' | 'mi', { meterOffsetKm }: Pick<Meter, 'meterOffsetKm'>): number =>
  Math.round(shownFor(km, unit, meterOffsetKm).value);

interface LifeReading {
  readonly readOn: PlainDate;
  readonly odometerKm: Km;
}

const readingOf = ({ readOn, odometerKm }: LifeReading): Reading => ({ day: dayNumber(readOn), km: odometerKm });

/** A reading with the unit in which its digits stood: they are what is misread. */
export interface GivenReading extends Reading {
  readonly unit: 'km' | 'mi';
  /** `estimated`: said to be about so much; left out: exact. */
  readonly certainty?: ReadingCertainty;
}

export const READING_CERTAINTIES = ['exact', 'estimated'] as const;
export type ReadingCertainty = (typeof READING_CERTAINTIES)[number];

export const certaintyOf = ({ isAbout }: { readonly isAbout: boolean }): ReadingCertainty =>
  isAbout ? 'estimated' : 'exact';

export const givenOf = (row: LifeReading & Pick<GivenReading, 'unit' | 'certainty'>): GivenReading => ({
  ...readingOf(row),
  unit: row.unit,
  certainty: row.certainty,
});

/**
 * What a round figure may be off: half of its last place that is no zero, 50 km of "about 102,900 km". At most a tenth of it.
 *
 * @returns km
 */
function roundingKm({ km, unit }: GivenReading): Km {
  const perUnit = unit === 'mi' ? KM_PER_MILE : 1;
  const shown = Math.round(km / perUnit);
  let place = 1;
  while (shown > 0 && shown % (place * 10) === 0 && place * 10 <= shown / 5) place *= 10;
  return (place / 2) * perUnit;
}

/** What the dash of that day showed. */
export const dashOf = ({ day, km, unit }: GivenReading, { meterOffsetKm, meterReplacedOn }: Meter): ShownReading => {
  const after = meterReplacedOn !== null && day >= dayNumber(meterReplacedOn);
  return { day, ...shownFor(km, unit, after ? meterOffsetKm : 0) };
};

/** In order of day and figure, as the checks want their history. */
export const historyOf = (rows: readonly LifeReading[]): readonly Reading[] => rows.map(readingOf).sort(byDay);

/** Two readings with one key are one: same day, same figure. */
export const readingKey = ({ day, km }: Reading): string => `${day} ${km}`;

/** What is known of a vehicle's meter. */
export interface KnownReadings {
  /** Day and figure of every reading, whatever its state, as `readingKey` writes them. */
  readonly known: ReadonlySet<string>;
  /** In order of day and figure. */
  readonly accepted: readonly Reading[];
  /** Null: nothing is known of it. */
  readonly beginning: Beginning | null;
  readonly meter: Meter;
}
/** Whether a reading lies below the last one before it by no more than it was rounded. */
function isRoundedDown(reading: GivenReading, accepted: readonly Reading[]): boolean {
  const last = accepted.findLast(({ day }) => day <= reading.day);
  return last !== undefined && reading.km <= last.km && last.km - reading.km <= roundingKm(reading);
}

/** The meter it was built with. */
const FIRST_METER: Meter = { meterOffsetKm: 0, meterReplacedOn: null };
export const NOTHING_KNOWN: KnownReadings = { known: new Set(), accepted: [], beginning: null, meter: FIRST_METER };

/** Why a figure cannot be a reading at all, whatever is known of its vehicle; null: it can. */
export function readingFault({ readOn, odometerKm }: LifeReading, today: PlainDate): 'future' | 'too_far' | null {
  if (readOn > today) return 'future';
  return odometerKm > MAX_ODOMETER_KM ? 'too_far' : null;
}

export type Taken =
  | { readonly kind: 'new' }
  /** Here already, or given twice: `sameAs` is the index of the one before it, null where the record has it. */
  | { readonly kind: 'known'; readonly sameAs: number | null }
  /** Kept, and not used until someone resolves it. */
  | { readonly kind: 'suspect'; readonly check: ReadingCheck };

/**
 * Judges new readings of one vehicle against what is known of it: sent twice does no harm, and what cannot follow is kept as
 * suspect. In order of day, whatever the order in which they come; one that passes counts as known for the next. A reading
 * that is only about so much is no evidence against others, and may lie below the last as far as it was rounded.
 *
 * @param given life distance, km
 * @param mayStand the vehicle is known to stand, as in a bay: the same figure again is no fault
 * @returns a verdict for each, in the order given
 */
export function takeIn(
  { known, accepted, beginning, meter }: KnownReadings,
  given: readonly GivenReading[],
  mayStand = false,
): readonly Taken[] {
  const first = new Map<string, number>();
  const fresh: { readonly index: number; readonly reading: GivenReading }[] = [];
  const taken = given.map((reading, index): Taken => {
    const key = readingKey(reading);
    if (known.has(key)) return { kind: 'known', sameAs: null };
    const sameAs = first.get(key);
    if (sameAs !== undefined) return { kind: 'known', sameAs };
    first.set(key, index);
    fresh.push({ index, reading });
    return { kind: 'new' };
  });
  fresh.sort((a, b) => byDay(a.reading, b.reading));
  const checks = new Map<number, ReadingCheck>();
  const judge = (some: typeof fresh, stands: boolean): void => {
    const shown = some.map(({ reading }) => dashOf(reading, meter));
    for (const [at, check] of suspectReadings(accepted, shown, !stands, beginning)) {
      const { index } = some[at] ?? {};
      if (index !== undefined) checks.set(index, check);
    }
  };
  judge(
    fresh.filter(({ reading }) => reading.certainty !== 'estimated'),
    mayStand,
  );
  for (const estimate of fresh.filter(({ reading }) => reading.certainty === 'estimated'))
    if (!isRoundedDown(estimate.reading, accepted)) judge([estimate], true);
  return taken.map((verdict, index) => {
    const check = checks.get(index);
    return check ? { kind: 'suspect', check } : verdict;
  });
}

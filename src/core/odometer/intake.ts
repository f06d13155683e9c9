import { dayNumber, type PlainDate } from '../calendar/plain-date';
import type { Km } from '../shared/kinds';
import { keptKm } from '../units/round';
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

interface LifeReading {
  readonly readOn: PlainDate;
  readonly odometerKm: Km;
}

const readingOf = ({ readOn, odometerKm }: LifeReading): Reading => ({ day: dayNumber(readOn), km: odometerKm });

/** A reading with the unit in which its digits stood: they are what is misread. */
export interface GivenReading extends Reading {
  readonly unit: 'km' | 'mi';
}

export const givenOf = (row: LifeReading & { readonly unit: 'km' | 'mi' }): GivenReading => ({
  ...readingOf(row),
  unit: row.unit,
});

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
 * suspect. In order of day, whatever the order in which they come; one that passes counts as known for the next.
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
  const shown = fresh.map(({ reading }) => dashOf(reading, meter));
  const suspects = suspectReadings(accepted, shown, !mayStand, beginning);
  const checks = new Map([...suspects].map(([at, check]) => [fresh[at]?.index, check]));
  return taken.map((verdict, index) => {
    const check = checks.get(index);
    return check ? { kind: 'suspect', check } : verdict;
  });
}

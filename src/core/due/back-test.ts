import { ownRateOfFew, type Reading, type UseRate, WIDEST_WINDOW_DAYS } from '../odometer/use-rate';
import { quantile, Z_80 } from '../stats/theil-sen';
import { ASSUMED_FORECAST, type Forecast, logSpread } from './forecast';

/* What a fleet's own past says of its forecasts: from every month, with what was known then, the day is forecast on which an
   odometer would show what it did show later. */

/** One forecast of the past and what came. */
export interface PastForecast {
  /** The day from which it looks ahead. */
  readonly from: number;
  readonly rate: UseRate;
  /** Days that the distance should have taken. */
  readonly days: number;
  /** ln of the days that it took over those. */
  readonly error: number;
}

/** What back-testing taught, and how well it would have done. */
export interface BackTest extends Forecast {
  /** Forecasts of the later half of the past, made with what the earlier half taught. */
  readonly forecasts: number;
  /** Those that held what came. */
  readonly held: number;
}

const MONTH = 30;
/** A vehicle must have been known so long before anything is forecast of it, days. */
const KNOWN = 60;
/** How far ahead, days: the first reading between the two. */
const AHEAD: readonly (readonly [number, number])[] = [
  [45, 120],
  [135, 240],
  [255, 400],
];

/** @param readings accepted ones of one vehicle, in order of day */
export function pastForecasts(readings: readonly Reading[]): readonly PastForecast[] {
  const [first, end] = [readings[0], readings.at(-1)];
  const forecasts: PastForecast[] = [];
  if (!first || !end) return forecasts;
  for (let from = first.day + KNOWN; from < end.day; from += MONTH) {
    const known = readings.filter(({ day }) => day <= from && day >= from - WIDEST_WINDOW_DAYS);
    const last = known.at(-1);
    const rate = ownRateOfFew(known);
    if (!last || !rate || rate.kmPerDay <= 0) continue;
    for (const [least, most] of AHEAD) {
      const came = readings.find(({ day }) => day >= last.day + least && day <= last.day + most);
      if (!came || came.km <= last.km) continue;
      const days = (came.km - last.km) / rate.kmPerDay;
      forecasts.push({ from, rate, days, error: Math.log((came.day - last.day) / days) });
    }
  }
  return forecasts;
}

/** Fewer teach nothing. */
const FEWEST = 20;
/** What is assumed weighs as much as so many forecasts. */
const WEIGHT_OF_ASSUMED = 8;
/** How far duty may drift, as a share of usual use a week: steps between which a band cannot be told apart. */
const DRIFTS = [0, 0.006, 0.012, 0.018, 0.025, 0.035, 0.05, 0.07];

/**
 * How far duty drifts and how wide a band has to be to hold 80 % of what came.
 *
 * @param past of the vehicles of one duty group, or of a fleet @returns null where there are too few to say
 */
export function backTest(past: readonly PastForecast[]): BackTest | null {
  if (past.length < FEWEST) return null;
  const ordered = [...past].sort((a, b) => a.from - b.from);
  const half = ordered.length >> 1;
  const later = ordered.slice(half);
  const taught = learn(ordered.slice(0, half));
  const held = later.filter(({ rate, days, error }) => Math.abs(error) <= Z_80 * logSpread(rate, days, taught)).length;
  return { ...learn(ordered), forecasts: later.length, held };
}

/** The drift with which near forecasts and far ones are off alike, and the width that holds 80 % of all. */
function learn(past: readonly PastForecast[]): Forecast {
  const middle = quantile(Float64Array.from(past.map(({ days }) => days)).sort(), 0.5);
  const fits = DRIFTS.map((drift) => {
    const off = past.map(({ rate, days, error }) => ({
      far: days > middle,
      deviation: Math.abs(error) / logSpread(rate, days, { ...ASSUMED_FORECAST, drift }),
    }));
    const width = (which: (one: { far: boolean }) => boolean): number =>
      quantile(Float64Array.from(off.filter(which).map(({ deviation }) => deviation)).sort(), 0.8) / Z_80;
    const unequal = Math.abs(Math.log(width(({ far }) => far) / width(({ far }) => !far)));
    return { drift, unequal: Number.isFinite(unequal) ? unequal : Number.POSITIVE_INFINITY, own: width(() => true) };
  });
  const { drift, own } = fits.reduce((a, b) => (b.unequal < a.unequal ? b : a));
  return { drift, scale: (past.length * own + WEIGHT_OF_ASSUMED) / (past.length + WEIGHT_OF_ASSUMED) };
}

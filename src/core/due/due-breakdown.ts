import { addDays, daysBetween, type PlainDate } from '../calendar/plain-date';
import type { UseRate } from '../odometer/use-rate';
import type { Km } from '../shared/kinds';
import { type DueInput, due, hoursAsDistance } from './due';

/** One line of the reckoning, as a person would check it with a pencil. km and days are not rounded. */
export type BreakdownLine =
  | { readonly kind: 'read'; readonly km: Km; readonly on: PlainDate }
  | { readonly kind: 'driven-since'; readonly days: number; readonly kmPerDay: number; readonly km: Km }
  | { readonly kind: 'now'; readonly km: Km }
  | { readonly kind: 'fitted'; readonly km: Km; readonly on: PlainDate }
  | { readonly kind: 'covered'; readonly km: Km }
  /** Looked at on that day, and good for so much more. */
  | { readonly kind: 'good'; readonly on: PlainDate; readonly km: Km; readonly forKm: Km }
  | { readonly kind: 'ran'; readonly hours: number; readonly kmPerHour: number; readonly km: Km }
  | { readonly kind: 'limit'; readonly km: Km; readonly fullKm: Km; readonly share: number }
  | { readonly kind: 'left'; readonly km: Km; readonly days: number | null; readonly on: PlainDate | null }
  | { readonly kind: 'time-limit'; readonly months: number; readonly share: number; readonly on: PlainDate }
  | { readonly kind: 'due'; readonly on: PlainDate; readonly by: 'distance' | 'hours' | 'time' };

/**
 * The sum behind a due date, line by line, in the order in which it is reckoned. Every line follows from those above it,
 * and the last is the date that `due` gives.
 */
export function dueBreakdown(input: DueInput): readonly BreakdownLine[] {
  const { today, odometer, rate, installed, limits } = input;
  const share = limits.share ?? 1;
  const result = due(input);
  const lines: BreakdownLine[] = [{ kind: 'read', ...odometer }];
  const days = Math.max(0, daysBetween(odometer.on, today));
  if (rate) lines.push({ kind: 'driven-since', days, kmPerDay: rate.kmPerDay, km: rate.kmPerDay * days });
  lines.push({ kind: 'now', km: result.odometerNowKm });
  if (installed.good) return [...lines, ...sinceLooked(input, result)];
  lines.push({ kind: 'fitted', ...installed });
  const covered = result.odometerNowKm - installed.km;
  lines.push({ kind: 'covered', km: covered });
  const ran = hoursAsDistance(input);
  if (ran && input.meter) {
    const { kmPerHour } = input.meter;
    lines.push({ kind: 'ran', hours: ran.km / kmPerHour, kmPerHour, km: ran.km });
  }
  const driven = { by: 'distance' as const, km: covered, ...dateOfDistance(input, covered, rate) };
  const run = ran && { by: 'hours' as const, km: ran.km, ...dateOfDistance(input, ran.km, ran.rate) };
  // The one that is used up first is the one to reckon with.
  const counts = run && (driven.on === null || (run.on !== null && run.on < driven.on)) ? run : driven;
  if (limits.distanceKm != null) {
    const km = limits.distanceKm * share;
    lines.push(
      { kind: 'limit', km, fullKm: limits.distanceKm, share },
      { kind: 'left', km: km - counts.km, days: counts.days, on: counts.on },
    );
  }
  const timeOnly = { ...input, meter: null, limits: { months: limits.months, share } };
  const byTime = limits.months == null ? null : due(timeOnly).due?.p50;
  if (limits.months != null && byTime) lines.push({ kind: 'time-limit', months: limits.months, share, on: byTime });
  if (result.due)
    lines.push({
      kind: 'due',
      on: result.due.p50,
      by: result.datedBy ?? counts.by,
    });
  return lines;
}

/** From the day on which somebody looked and said for how much longer it is good. */
function sinceLooked(
  { installed: { good }, rate, limits }: DueInput,
  result: ReturnType<typeof due>,
): readonly BreakdownLine[] {
  if (!good) return [];
  const left = good.km + good.forKm - result.odometerNowKm;
  const days = rate && rate.kmPerDay > 0 ? Math.floor(left / rate.kmPerDay) : null;
  const on = result.due?.p50 ?? null;
  return [
    { kind: 'good', ...good },
    { kind: 'left', km: left, days, on: result.datedBy === 'time' ? null : on },
    ...(limits.months != null && result.datedBy === 'time' && on
      ? [{ kind: 'time-limit', months: limits.months, share: limits.share ?? 1, on } as const]
      : []),
    ...(on ? [{ kind: 'due', on, by: result.datedBy ?? ('distance' as const) } as const] : []),
  ];
}

/** Days that the rest of the distance lasts, whole ones; null where nothing dates it. */
function dateOfDistance(
  { limits, today, installed }: DueInput,
  coveredKm: Km,
  rate: UseRate | null,
): { days: number | null; on: PlainDate | null } {
  if (limits.distanceKm == null || !rate || rate.kmPerDay <= 0) return { days: null, on: null };
  const left = limits.distanceKm * (limits.share ?? 1) - coveredKm;
  const asDriven = { on: today, km: installed.km + coveredKm };
  const only = { distanceKm: limits.distanceKm, share: limits.share };
  const on = due({ today, odometer: asDriven, rate, installed, limits: only }).due?.p50 ?? null;
  const days = Math.floor(left / rate.kmPerDay);
  return { days, on: on ?? addDays(today, days) };
}

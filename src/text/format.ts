import { DAY_NAMES, MONTH_NAMES } from '@/core/calendar/day-names';
import type { Km, Mm, Nm } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { fromSi, KM_PER_MILE, UNITS, type UnitName } from '@/core/units/unit';

/* The only place where a quantity becomes text. */

/** Missing is shown as such, never as zero. */
export const NONE = '–';

const formats = new Map<number, Intl.NumberFormat>();

/** A format made once: making one costs more than a hundred uses of it. */
function formatOf(decimals: number): Intl.NumberFormat {
  const known = formats.get(decimals);
  if (known) return known;
  const made = new Intl.NumberFormat('en', {
    minimumFractionDigits: decimals,
    maximumFractionDigits: decimals,
  });
  formats.set(decimals, made);
  return made;
}

const grouped = (value: number, decimals: number): string => formatOf(decimals).format(value);

function figureText(si: number, unit: UnitName): string {
  return `${grouped(fromSi(si, unit), UNITS[unit].decimals)} ${unit}`;
}

/** The person's unit first, the other after a middle dot: a wrong unit here could break something. */
const both = (si: number, system: UnitSystem, metric: UnitName, us: UnitName): string =>
  (system === 'us' ? [us, metric] : [metric, us]).map((unit) => figureText(si, unit)).join(' · ');

export const gapText = (mm: Mm | null, system: UnitSystem): string =>
  mm === null ? NONE : both(mm, system, 'mm', 'in');

export const torqueText = (nm: Nm | null, system: UnitSystem): string =>
  nm === null ? NONE : both(nm, system, 'N·m', 'lbf·ft');

function range(min: number, max: number, unit: UnitName): string {
  const [a, b] = [min, max].map((si) => grouped(fromSi(si, unit), UNITS[unit].decimals));
  return a === b ? `${a} ${unit}` : `${a} to ${b} ${unit}`;
}

/** Both ends in each unit, the person's first. */
export function rangeTexts(
  min: number,
  max: number,
  system: UnitSystem,
  kind: 'gap' | 'torque',
): readonly [string, string] {
  const units: readonly [UnitName, UnitName] = kind === 'gap' ? ['mm', 'in'] : ['N·m', 'lbf·ft'];
  const [metric, us] = [range(min, max, units[0]), range(min, max, units[1])];
  return system === 'us' ? [us, metric] : [metric, us];
}

/** How fast a gap grows. @param rate µm per 1,000 km */
export const wearText = (rate: number, system: UnitSystem): string =>
  system === 'us'
    ? `${fromSi(rate * KM_PER_MILE * 1e-3, 'thou').toFixed(2)} thou per 1,000 mi`
    : `${rate.toFixed(1)} µm per 1,000 km`;

export const distanceText = (km: Km | null, system: UnitSystem): string =>
  km === null ? NONE : figureText(km, system === 'us' ? 'mi' : 'km');

export const rateText = (kmPerDay: number, system: UnitSystem): string => `${distanceText(kmPerDay, system)} a day`;

/** How many there are of something. */
export const countText = (count: number): string => grouped(count, 0);

export const percentText = (share: number): string => `${grouped(share * 100, 0)} %`;

/** 18 Apr 2026: no order of day and month to mistake. */
export function dateText(date: string | null): string {
  if (date === null) return NONE;
  return `${Number(date.slice(8, 10))} ${MONTH_NAMES[Number(date.slice(5, 7)) - 1]} ${date.slice(0, 4)}`;
}

/** "Nov 2026" */
export const monthText = (month: string): string =>
  `${MONTH_NAMES[Number(month.slice(5, 7)) - 1]} ${month.slice(0, 4)}`;

/** The likely span of a date, as short as it can be told: "7 to 10 Apr", "28 Nov to 3 Dec". */
export function spanText(from: string, to: string): string {
  const [a, b] = [dateText(from), dateText(to)];
  if (from.slice(0, 7) === to.slice(0, 7)) return `${Number(from.slice(8, 10))} to ${b.slice(0, -5)}`;
  return from.slice(0, 4) === to.slice(0, 4) ? `${a.slice(0, -5)} to ${b.slice(0, -5)}` : `${a} to ${b}`;
}

export const weekdayText = (date: string, monday: string): string =>
  `${DAY_NAMES[Math.round((Date.parse(date) - Date.parse(monday)) / 86_400_000)]} ${Number(date.slice(8, 10))}`;

export const hoursText = (minutes: number): string => {
  return minutes < 60 ? `${Math.round(minutes)} min` : `${Number((minutes / 60).toFixed(1))} h`;
};

const instant = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: 'UTC' });

export const instantText = (at: Date): string => `${instant.format(at)} UTC`;

/** Money in the fleet's currency: cents only where they matter. */
/** Where an hour meter stands, to a tenth at most. */
export const meterText = (hours: number): string => `${formatOf(Number.isInteger(hours) ? 0 : 1).format(hours)} h`;

export { moneyText } from '@/core/units/money';

/** A turn from finger-tight, as a range or one figure, degrees. */
export const turnText = ({ min, max }: { readonly min: number; readonly max: number }): string =>
  min === max ? `${min}°` : `${min}° to ${max}°`;

import type { Binding, Certainty, DueState } from '@/core/due/due';
import type { DueItem } from '@/core/due/due-item';
import type { SeizingRisk } from '@/core/due/seizing-risk';
import type { UseRate } from '@/core/odometer/use-rate';
import type { Km } from '@/core/shared/kinds';
import type { UnitSystem } from '@/core/units/person-units';
import { countText, dateText, distanceText, percentText, rateText } from './format';

export const STATE_WORDS: Readonly<Record<DueState, string>> = {
  past: 'Past the limit',
  soon: 'Due soon',
  later: 'Later',
  inspect: 'Inspect',
  'no-match': 'No firm match',
  'no-odometer': 'No reading',
  deferred: 'Deferred',
  blocked: 'Other fault',
  'no-date': 'No date',
};

/** Which limit binds, and how large it is. */
export function bindingText(
  {
    binds,
    limitKm,
    limitMonths,
    limitBy = 'sheet',
    limitShare = 1,
  }: {
    binds: Binding | null;
    limitKm: Km | null;
    limitMonths: number | null;
    limitBy?: 'sheet' | 'maker' | 'shop';
    limitShare?: number;
  },
  system: UnitSystem,
): string {
  if (binds === null) return '–';
  const text = (share: number): string =>
    binds === 'time'
      ? `${Number(((limitMonths ?? 0) * share).toFixed(1))} months`
      : distanceText(limitKm === null ? null : limitKm * share, system);
  const notes = [
    limitShare < 1 && `early, ${percentText(limitShare)}`,
    binds === 'hours' && 'by engine hours',
    binds !== 'time' && limitBy === 'shop' && 'the shop’s limit',
    limitBy === 'maker' && 'the maker’s own limit',
  ].filter(Boolean);
  return `${text(limitShare)}${notes.length > 0 ? ` (${notes.join('; ')})` : ''}`;
}

/** "may be seized: never out in 10 years, 205,000 km; bare steel in aluminium" */
export function seizingText({ years, km, shell, isKnownFor }: SeizingRisk, system: UnitSystem): string {
  const metals = shell === 'bare' ? 'bare steel in aluminium' : 'steel, not known to be plated, in aluminium';
  const long = km === null ? `${years} years` : `${years} years, ${distanceText(km, system)}`;
  return `may be seized: never out in ${long}; ${metals}${isKnownFor ? '; this engine is known for it' : ''}`;
}

const HISTORY_WORDS: Readonly<Record<Certainty, string>> = {
  exact: '',
  estimated: 'history estimated',
  assumed: 'history assumed from new',
};

/** How past forecasts of this duty group, or of the fleet, have done. */
export const heldText = ({ forecasts, held }: { forecasts: number; held: number }): string =>
  `Forecast check: ${Math.round((100 * held) / forecasts)} % of ${countText(forecasts)} past dates fell inside their range`;

/** How long a part has been in, where nothing dates it: "in since 3 Mar 2024, 41,200 km". */
export function sinceText(
  { fittedOn, fittedKm, odometerNowKm }: Pick<DueItem, 'fittedOn' | 'fittedKm' | 'odometerNowKm'>,
  system: UnitSystem,
): string {
  if (fittedOn === null) return 'nobody knows since when';
  const covered = fittedKm === null || odometerNowKm === null ? null : Math.max(0, odometerNowKm - fittedKm);
  return `in since ${dateText(fittedOn)}, ${distanceText(covered, system)}`;
}

/** What the date rests on, in one line. */
export function sureText(
  { rate, certainty }: { rate: Pick<UseRate, 'kmPerDay' | 'used' | 'borrowed'> | null; certainty: Certainty | null },
  system: UnitSystem,
): string {
  const history = certainty ? HISTORY_WORDS[certainty] : '';
  const use = rate
    ? `${rateText(rate.kmPerDay, system)}, ${rate.borrowed ? 'borrowed from its group' : `${rate.used} readings`}`
    : 'no use rate';
  return [use, history].filter(Boolean).join('; ');
}

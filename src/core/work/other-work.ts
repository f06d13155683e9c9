import { addMonths, daysBetween, type PlainDate } from '../calendar/plain-date';
import { NEARLY_USED } from '../due/vehicle-due';
import type { BankPlace } from '../engine/model';
import type { OtherWork } from '../engine/other-work';
import type { Km } from '../shared/kinds';

/** When something was done last. */
export interface LastDone {
  readonly on: PlainDate;
  readonly km: Km;
}

export interface OtherWorkDue extends OtherWork {
  /** Null: never on record here. */
  readonly last: LastDone | null;
  /** Share of its interval used, of distance or time, whichever is more; null: nobody knows. */
  readonly lifeUsed: number | null;
  /** Whether the visit opens the bank that it lies behind. */
  readonly inReach: boolean;
  /** Taken with the visit unless a person leaves it. */
  readonly isTaken: boolean;
}

interface OtherWorkInput {
  readonly today: PlainDate;
  readonly odometer: Km | null;
  readonly items: readonly OtherWork[];
  readonly lastDone: ReadonlyMap<string, LastDone>;
  /** Banks that the tasks of the visit open. */
  readonly opened: ReadonlySet<BankPlace>;
}

/**
 * What could be done in the same visit, the most used first. It is taken where it is in reach and nearly used; what nobody knows
 * the age of is shown, and left to the person who looks.
 */
export const otherWorkDue = ({ items, opened, ...facts }: OtherWorkInput): readonly OtherWorkDue[] =>
  items
    .map((item): OtherWorkDue => {
      const last = facts.lastDone.get(item.what) ?? null;
      const lifeUsed = last && usedSince(item, last, facts);
      const inReach = item.behind === null || opened.has(item.behind);
      return { ...item, last, lifeUsed, inReach, isTaken: inReach && lifeUsed !== null && lifeUsed >= NEARLY_USED };
    })
    .sort((a, b) => (b.lifeUsed ?? -1) - (a.lifeUsed ?? -1));

function usedSince(
  { everyKm, everyMonths }: OtherWork,
  { on, km }: LastDone,
  { today, odometer }: Pick<OtherWorkInput, 'today' | 'odometer'>,
): number {
  const byTime =
    everyMonths === null ? 0 : daysBetween(on, today) / Math.max(1, daysBetween(on, addMonths(on, everyMonths)));
  const byDistance = everyKm === null || odometer === null ? 0 : (odometer - km) / everyKm;
  return Math.max(0, byTime, byDistance);
}

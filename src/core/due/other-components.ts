import { daysBetween } from '../calendar/plain-date';
import type { Component } from '../engine/quantities';
import { type Certainty, type DueDates, type DueInput, due, type Installed, type Limits } from './due';
import { NEARLY_USED, WINDOW_DAYS } from './vehicle-due';

/** Another component of the engine, with a clock of its own. */
export interface OtherComponent {
  readonly component: Component;
  readonly partNumber: string;
  readonly quantity: number;
  readonly limits: Limits;
  readonly installed: Installed;
  readonly certainty: Certainty;
}

export interface Companion {
  readonly component: Component;
  readonly partNumber: string;
  readonly quantity: number;
  readonly installed: Installed;
  /** Share of its limit used today. */
  readonly lifeNow: number;
  readonly due: DueDates | null;
  readonly certainty: Certainty;
  /** Life it will have used when the plugs are changed, share of its limit. */
  readonly lifeUsed: number;
  /** Opening and closing that is done once instead of twice, minutes. */
  readonly savedMinutes: number;
  readonly advice: 'now' | 'look' | 'later';
}

/** History that is only assumed is no reason to buy: then it is looked at while it is open. */
function adviceOf(wanted: boolean, certainty: Certainty): Companion['advice'] {
  if (!wanted) return 'later';
  return certainty === 'assumed' ? 'look' : 'now';
}

/**
 * What else is due behind the same covers when the plugs are: each with its own date, what would be thrown away, and the
 * time that is spared. History that is only assumed is no reason to buy: then it is looked at while it is open.
 *
 * @param plugs when the plugs are due; those past their limit, or that nothing dates, count as due today
 * @param savedMinutes what getting to the plugs and closing again takes, minutes
 */
export function companions(
  plugs: DueDates | null,
  others: readonly OtherComponent[],
  vehicle: Pick<DueInput, 'today' | 'odometer' | 'rate' | 'forecast'>,
  savedMinutes: number,
): readonly Companion[] {
  const when = plugs && plugs.p50 > vehicle.today ? plugs.p50 : vehicle.today;
  return others
    .map((other): Companion => {
      const then = due({ ...vehicle, today: when, installed: other.installed, limits: other.limits });
      const close = then.due !== null && daysBetween(when, then.due.p50) <= WINDOW_DAYS;
      const wanted = close || then.lifeUsed >= NEARLY_USED;
      return {
        component: other.component,
        partNumber: other.partNumber,
        quantity: other.quantity,
        installed: other.installed,
        lifeNow: due({ ...vehicle, installed: other.installed, limits: other.limits }).lifeUsed,
        due: then.due,
        certainty: other.certainty,
        lifeUsed: then.lifeUsed,
        savedMinutes,
        advice: adviceOf(wanted, other.certainty),
      };
    })
    .sort((a, b) => b.lifeUsed - a.lifeUsed);
}

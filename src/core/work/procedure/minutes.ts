import type { BankAccess } from '../../engine/access';
import type { Layout } from '../../engine/layout';
import type { TaskAction, TaskComponent } from '../task';
import type { Phase } from './step';
import { banksOpened, placesWith, type VisitTask } from './visit';

/** Shares of the time of a plug service by phase. Source: trade guidance, coarse; a shop's own times win. */
const SHARE: Readonly<Record<Phase, number>> = { prepare: 0.15, open: 0.2, plugs: 0.35, close: 0.15, prove: 0.15 };

/** What a part takes while its place is open, minutes. Source: trade guidance, coarse; a shop's own times win. */
const EACH: Readonly<Record<Exclude<TaskComponent, 'plug'>, number>> = {
  coil: 3,
  rail: 6,
  boot: 2,
  lead: 4,
  lead_set: 25,
  cap: 12,
  rotor: 6,
  seal: 20,
};
/** A look takes less than a change; what is measured takes a little more. */
const ACTION: Readonly<Record<TaskAction, number>> = { replace: 1, inspect: 0.6, test: 1.2 };

interface Visit {
  readonly layout: Layout;
  readonly tasks: readonly VisitTask[];
  readonly access: readonly BankAccess[];
  /** Minutes for a service of all plugs. */
  readonly minutes: number;
}

/** How much of getting there is done: the share of its banks, by their own time where that is known. */
function shareOpened({ layout, tasks, access }: Visit): number {
  const opened = banksOpened({ layout, tasks });
  const minutesOf = (bank: number): number => access[bank - 1]?.minutes ?? 1;
  const all = layout.model.banks.map((_, i) => i + 1);
  const sum = (banks: readonly number[]): number => banks.reduce((total, bank) => total + minutesOf(bank), 0);
  return sum(all.filter((bank) => opened.has(bank))) / sum(all);
}

/**
 * Bay time of a visit by phase, minutes: getting ready and proving once, opening and closing by the banks that are reached, the
 * work by its parts. All plugs and nothing else take exactly the minutes of the plug service.
 */
export function phaseMinutes(visit: Visit): Readonly<Record<Phase, number>> {
  const { layout, tasks, minutes } = visit;
  const opened = shareOpened(visit);
  const plugs = placesWith(visit, 'plug').length / layout.sites.length;
  const others = tasks.reduce(
    (sum, { component, action, places }) =>
      component === 'plug' ? sum : sum + EACH[component] * ACTION[action] * places.length,
    0,
  );
  return {
    prepare: SHARE.prepare * minutes,
    open: SHARE.open * minutes * opened,
    plugs: SHARE.plugs * minutes * plugs + others,
    close: SHARE.close * minutes * opened,
    prove: SHARE.prove * minutes,
  };
}

/** Bay time of a visit in all, minutes. */
export const visitMinutes = (visit: Visit): number =>
  Object.values(phaseMinutes(visit)).reduce((sum, minutes) => sum + minutes, 0);

import type { AccessClass, BankAccess } from '../../engine/access';
import type { Layout } from '../../engine/layout';
import { siteId } from '../../engine/model';
import type { TaskAction, TaskComponent } from '../task';
import type { VisitTask } from './visit';

/** Minutes of the steps that every engine has. Source: trade guidance, coarse; what a shop's own orders took corrects them. */
export const MINUTES = {
  safe: 2,
  codes: 4,
  layOut: 3,
  newPart: 1,
  compare: 3,
  temperature: 1,
  isolate: 3,
  isolateTraction: 25,
  gas: 10,
  fuel: 6,
  reach: 4,
  clean: 2,
  cleanEach: 0.5,
  lift: 1,
  liftEach: 1,
  wells: 1,
  wellsEach: 0.25,
  loosenShort: 4,
  refit: 2,
  refitEach: 1,
  count: 3,
  start: 3,
  sweep: 2,
  road: 12,
  recheck: 1,
} as const;

/** A plug out, read, its new one in and torqued, minutes, by how its bank is reached. */
const PLUG: Readonly<Record<AccessClass, number>> = { open: 5, cover: 5, side: 8, by_feel: 12, under_intake: 6 };

/** What another part takes while its place is open, minutes. */
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
/** A look takes less than a change; what is measured takes a little more. A plug that is looked at goes back in. */
const ACTION: Readonly<Record<TaskAction, number>> = { replace: 1, inspect: 0.6, test: 1.2 };

interface Visit {
  readonly layout: Layout;
  readonly tasks: readonly VisitTask[];
  readonly access: readonly BankAccess[];
}

/** Minutes of the work at its places on some components. */
export const partMinutes = (visit: Visit, components: readonly TaskComponent[]): number =>
  visit.tasks
    .filter(({ component }) => components.includes(component))
    .reduce((sum, task) => sum + ACTION[task.action] * taskMinutes(visit, task), 0);

function taskMinutes({ layout, access }: Visit, { component, places }: VisitTask): number {
  if (component !== 'plug') return EACH[component] * places.length;
  const ids = new Set(places.map(siteId));
  return layout.sites
    .filter((site) => ids.has(siteId(site)))
    .reduce((sum, { bank }) => sum + PLUG[access[bank - 1]?.access ?? 'open'], 0);
}

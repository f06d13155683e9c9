import { ACCESS_CLASSES, type AccessClass, type BankAccess, type Fastener } from '../../engine/access';
import { type AccessItem, type CoilConnectors, itemsOnTheWay, usualItems, type Ways } from '../../engine/access-items';
import type { Layout, Site } from '../../engine/layout';
import { type SiteKey, siteId } from '../../engine/model';
import { isOfEngine, servedBy } from '../../engine/places';
import type { Nm } from '../../shared/kinds';
import type { TaskAction, TaskComponent } from '../task';

/* What one visit does, as far as its procedure depends on it. */

export interface VisitTask {
  readonly action: TaskAction;
  readonly component: TaskComponent;
  /** Where work is to be done: those that went to another visit are left out. */
  readonly places: readonly SiteKey[];
  /** Null: nothing new is planned. */
  readonly partNumber: string | null;
  /** Of the screw that holds it, N·m; null: none, or of a plug. */
  readonly torqueNm: { readonly min: Nm; readonly max: Nm } | null;
}

/** A component replaced at some places, before its part is known. */
export const replaceAt = (component: TaskComponent, places: readonly SiteKey[]): VisitTask => ({
  action: 'replace',
  component,
  places,
  partNumber: null,
  torqueNm: null,
});

interface Visit {
  readonly layout: Layout;
  readonly tasks: readonly VisitTask[];
}

const servedAt = ({ layout }: Visit, { component, places }: VisitTask): readonly SiteKey[] =>
  places.flatMap((place) => servedBy(layout, component, place));

/** The plug sites that the visit gets at: cap and rotor stand outside the engine. */
export function sitesReached(visit: Visit): readonly Site[] {
  const reached = new Set(
    visit.tasks
      .filter(({ component }) => !isOfEngine(component) || component === 'lead_set')
      .flatMap((task) => servedAt(visit, task))
      .map(siteId),
  );
  return visit.layout.sites.filter((site) => reached.has(siteId(site)));
}

interface Way extends Visit {
  readonly access: readonly BankAccess[];
  readonly fasteners: readonly Fastener[];
  readonly items: readonly AccessItem[] | null;
  readonly options: readonly string[];
  readonly ways: Ways;
}

/** What comes off on the way, in its order. */
export function itemsOff(visit: Way): readonly AccessItem[] {
  const { layout, access, fasteners, options, ways } = visit;
  const items = visit.items ?? usualItems(layout.model, access, fasteners);
  return itemsOnTheWay(items, new Set(sitesReached(visit).map(({ cylinder }) => cylinder)), options, ways);
}

/** The hardest access of the banks that a visit opens; open where it opens none. */
export function hardestAccess(visit: Visit & Pick<Way, 'access'>): AccessClass {
  const opened = banksOpened(visit);
  const classes = visit.access.flatMap(({ access }, i) => (opened.has(i + 1) ? [access] : []));
  return ACCESS_CLASSES.findLast((access) => classes.includes(access)) ?? 'open';
}

/** Banks that are opened, from 1. */
export const banksOpened = (visit: Visit): ReadonlySet<number> => new Set(sitesReached(visit).map(({ bank }) => bank));

/** The places at which something is done to a component. */
export const placesWith = ({ tasks }: Visit, component: TaskComponent): readonly SiteKey[] =>
  tasks.filter((task) => task.component === component).flatMap(({ places }) => places);

/** Coils or leads that come off to get at what is done. */
export function coilsLifted({ layout, tasks }: Visit): number {
  const reached = new Set(sitesReached({ layout, tasks }).map(siteId));
  return layout.model.coils.filter(({ fires }) => fires.some((site) => reached.has(siteId(site)))).length;
}

/** What the chosen way does with the connectors of the coils; undefined: nothing, they are met one by one. */
export const connectorsByWay = (visit: Way): CoilConnectors | undefined =>
  itemsOff(visit).findLast(({ coilConnectors }) => coilConnectors !== undefined)?.coilConnectors;

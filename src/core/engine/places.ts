import { err, ok, type Result } from '../shared/result';
import type { Layout } from './layout';
import type { BankPlace } from './model';
import { type Coil, type SiteKey, siteId } from './model';
import type { Component } from './quantities';

/*
 * Where the parts of a component sit: a plug, boot and lead under their plug site, a coil and a rail under the first site that
 * they fire, a tube seal under its cylinder, what an engine has one of under the engine itself.
 */

/** The place of what an engine has one of: it belongs to no cylinder. */
export const WHOLE_ENGINE: SiteKey = { cylinder: 0, position: 'A' };
const ENGINE_ID = 'engine';

/** A place by one word, as in records and on the HTTP interface: 3A, or engine. */
export const placeId = (place: SiteKey): string => (place.cylinder === 0 ? ENGINE_ID : siteId(place));

/** Whether a component is one for the whole engine. */
export const isOfEngine = (component: Component): boolean =>
  component === 'cap' || component === 'rotor' || component === 'lead_set' || component === 'consumable';

/** Whether the parts of a component fire plugs themselves. */
export const isCoil = (component: Component): component is 'coil' | 'rail' =>
  component === 'coil' || component === 'rail';

const sameSite = (a: SiteKey, b: SiteKey): boolean => siteId(a) === siteId(b);

const coilsOf = ({ model }: Layout, component: Component): readonly Coil[] =>
  (component === 'rail') === (model.ignition === 'coil_rail') ? model.coils : [];

/** Whether plug and coil are joined by high-tension leads. */
const hasLeads = ({ model: { ignition } }: Layout): boolean =>
  ignition === 'distributor' || ignition === 'waste_spark' || ignition === 'coil_per_cylinder';

/**
 * The places under which the parts of a component are on record, of those that serve some plug sites.
 *
 * @returns empty where this engine has no such part
 */
export function placesOf(layout: Layout, component: Component, sites: readonly SiteKey[]): readonly SiteKey[] {
  const serves = (site: SiteKey): boolean => sites.some((chosen) => sameSite(chosen, site));
  switch (component) {
    case 'plug':
    case 'boot':
      return sites;
    case 'lead':
      return hasLeads(layout) ? sites : [];
    case 'coil':
    case 'rail':
      return coilsOf(layout, component).flatMap((coil) => (coil.fires.some(serves) ? coil.fires.slice(0, 1) : []));
    case 'seal':
      return [...new Set(sites.map(({ cylinder }) => cylinder))].map((cylinder) => ({ cylinder, position: 'A' }));
    case 'lead_set':
      return hasLeads(layout) ? [WHOLE_ENGINE] : [];
    case 'cap':
    case 'rotor':
      return layout.model.ignition === 'distributor' ? [WHOLE_ENGINE] : [];
    case 'consumable':
      return [WHOLE_ENGINE];
  }
}

/** Every place that a component has in this engine. */
export const allPlaces = (layout: Layout, component: Component): readonly SiteKey[] =>
  placesOf(layout, component, layout.sites);

/** The plug sites that the part at a place serves: those that a coil fires, both plugs of a cylinder, all of the engine. */
export function servedBy(layout: Layout, component: Component, place: SiteKey): readonly SiteKey[] {
  switch (component) {
    case 'coil':
    case 'rail':
      return coilsOf(layout, component).find(({ fires }) => fires.some((site) => sameSite(site, place)))?.fires ?? [];
    case 'seal':
      return layout.sites.filter(({ cylinder }) => cylinder === place.cylinder);
    case 'lead_set':
    case 'cap':
    case 'rotor':
    case 'consumable':
      return layout.sites;
    default:
      return layout.sites.filter((site) => sameSite(site, place));
  }
}

/** Whether the part at a place stands at a plug site; what an engine has one of stands at none. */
export const standsAt = (layout: Layout, component: Component, place: SiteKey, site: SiteKey): boolean =>
  !isOfEngine(component) && servedBy(layout, component, place).some((served) => sameSite(served, site));

/** What a person chooses places by: all of them, those of one bank, or by their names. */
export type PlaceChoice = 'all' | { readonly bank: BankPlace } | readonly string[];

/**
 * The places of a component that a person means. A coil may be named by any plug that it fires; a cylinder without a position
 * means all its places.
 *
 * @returns an error in words where the engine has no such part, bank or place
 */
export function choosePlaces(
  layout: Layout,
  component: Component,
  chosen: PlaceChoice,
): Result<readonly SiteKey[], string> {
  const what = component.replace('_', ' ');
  if (allPlaces(layout, component).length === 0) return err(`This engine has no ${what}.`);
  if (chosen === 'all') return ok(allPlaces(layout, component));
  if ('bank' in chosen) {
    const bank = layout.model.banks.find(({ place }) => place === chosen.bank);
    if (!bank) return err(`This engine has no ${chosen.bank} bank.`);
    const sites = layout.sites.filter(({ cylinder }) => bank.cylinders.includes(cylinder));
    return ok(placesOf(layout, component, sites));
  }
  const placed = new Map<string, SiteKey>();
  for (const name of chosen) {
    const places = namedPlaces(layout, component, name.trim().toUpperCase());
    if (places.length === 0) return err(`This engine has no ${what} at ${name.slice(0, 12)}.`);
    for (const place of places) placed.set(placeId(place), place);
  }
  return ok([...placed.values()]);
}

function namedPlaces(layout: Layout, component: Component, name: string): readonly SiteKey[] {
  if (name === ENGINE_ID.toUpperCase()) return isOfEngine(component) ? [WHOLE_ENGINE] : [];
  const sites = layout.sites.filter((site) => siteId(site) === name || String(site.cylinder) === name);
  return sites.length === 0 || isOfEngine(component) ? [] : placesOf(layout, component, sites);
}

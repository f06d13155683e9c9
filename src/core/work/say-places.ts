import { coilOf } from '../engine/coils';
import { cylindersText, type Layout, siteName } from '../engine/layout';
import type { SiteKey } from '../engine/model';
import { isCoil, isOfEngine } from '../engine/places';
import { capital } from '../shared/capital';
import type { TaskComponent } from './task';

/** A part as a sentence names it. */
export const PART_WORDS: Readonly<Record<TaskComponent, string>> = {
  plug: 'plug',
  coil: 'coil',
  rail: 'coil rail',
  boot: 'boot',
  lead: 'lead',
  lead_set: 'lead set',
  cap: 'distributor cap',
  rotor: 'rotor',
  seal: 'tube seal',
};

/** A place as a person calls it: 3 or 3A for a plug, coil 3, coil 1+4, distributor cap. */
export function placeName(layout: Layout, component: TaskComponent, place: SiteKey): string {
  const words = PART_WORDS[component];
  if (component === 'plug') return siteName(layout, place);
  if (isOfEngine(component)) return words;
  if (component === 'seal') return `${words} ${place.cylinder}`;
  if (!isCoil(component)) return `${words} ${siteName(layout, place)}`;
  const { model } = layout;
  return model.coils.length === 1 ? words : `${component} ${coilOf(model, place)?.name ?? place.cylinder}`;
}

/** A place as it is named: 3 of a plug, coil 3, cap. */
export interface NamedPlace {
  readonly component: TaskComponent;
  readonly name: string;
}

/** "Cylinders 1, 2, coil 3, cap": plugs by their cylinder, other parts by their own name. */
export function sayPlaces(places: readonly NamedPlace[]): string {
  const plugs = places.filter(({ component }) => component === 'plug').map(({ name }) => name);
  const others = places.filter(({ component }) => component !== 'plug').map(({ name }) => name);
  const named = [...(plugs.length === 0 ? [] : [cylindersText(plugs)]), ...others].join(', ');
  return capital(named);
}

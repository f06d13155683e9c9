import { type Layout, neighbours } from '../engine/layout';
import type { SiteKey } from '../engine/model';
import { siteId } from '../engine/model';

/**
 * Where in the engine a condition stands. `partners`: exactly one of each pair that a waste-spark coil fires. `some`: no
 * place that means anything by itself.
 */
export const SHAPES = [
  'all',
  'deactivated',
  'position',
  'bank',
  'neighbours',
  'ends',
  'partners',
  'one',
  'some',
] as const;
export type Shape = (typeof SHAPES)[number];

export interface Place {
  readonly layout: Layout;
  /** Cylinders that this engine rests at part load. */
  readonly deactivated: readonly number[];
  /** False: nobody declared the direction of the tray, so that no site has a sure name. */
  readonly directionKnown: boolean;
}

const least = 2;

/**
 * The places that a set of sites fills, the most telling first: each rule asks for those it knows. Only sites that were
 * looked at count, so that a bank half of which nobody saw is still a bank, with less confidence.
 *
 * @param affected those that show it @param seen those that were looked at, the affected ones among them
 */
export function shapesOf(
  { layout, deactivated, directionKnown }: Place,
  affected: readonly SiteKey[],
  seen: readonly SiteKey[],
) {
  const shows = new Set(affected.map(siteId));
  const looked = new Set(seen.map(siteId));
  const { model, sites } = layout;
  /** Whether the affected sites are exactly those of a group that were looked at. */
  const isGroup = (belongs: (site: SiteKey) => boolean): boolean => {
    const group = sites.filter((site) => looked.has(siteId(site)) && belongs(site));
    const rest = sites.some((site) => looked.has(siteId(site)) && !belongs(site));
    return (
      rest && group.length >= least && group.length === shows.size && group.every((site) => shows.has(siteId(site)))
    );
  };
  const cylinders = [...new Set(affected.map(({ cylinder }) => cylinder))];
  const shapes = new Set<Shape>();
  if (shows.size >= least && shows.size === looked.size) shapes.add('all');
  if (shows.size === 1 || cylinders.length === 1) shapes.add('one');
  if (directionKnown) {
    if (deactivated.length > 0 && isGroup(({ cylinder }) => deactivated.includes(cylinder))) shapes.add('deactivated');
    if (
      model.plugsPerCylinder === 2 &&
      cylinders.length > 1 &&
      (['A', 'B'] as const).some((p) => isGroup((site) => site.position === p))
    )
      shapes.add('position');
    if (
      model.banks.length > 1 &&
      model.banks.some((bank) => isGroup(({ cylinder }) => bank.cylinders.includes(cylinder)))
    )
      shapes.add('bank');
    const [a = 0, b = 0] = cylinders;
    if (cylinders.length === 2 && neighbours(layout, a).includes(b)) shapes.add('neighbours');
    const ends = new Set(model.banks.flatMap(({ cylinders: row }) => (row.length > 2 ? [row[0], row.at(-1)] : [])));
    if (isGroup(({ cylinder }) => ends.has(cylinder))) shapes.add('ends');
    const pairs = model.ignition === 'waste_spark' ? model.coils.filter((coil) => coil.fires.length === 2) : [];
    const oneOfEach = pairs.every((coil) => coil.fires.filter((site) => shows.has(siteId(site))).length === 1);
    const pairsSeen = pairs.every((coil) => coil.fires.every((site) => looked.has(siteId(site))));
    if (pairs.length >= least && pairsSeen && oneOfEach && shows.size === pairs.length) shapes.add('partners');
  }
  if (shapes.size === 0) shapes.add('some');
  return shapes as ReadonlySet<Shape>;
}

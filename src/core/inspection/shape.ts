import { companions } from '../engine/coils';
import { type Layout, neighbours } from '../engine/layout';
import type { SiteKey } from '../engine/model';
import { siteId } from '../engine/model';

/**
 * Where in the engine a condition stands. `partners`: one of each pair that a waste-spark coil fires. `engine`: on what the
 * engine has one of. `some`: no place that
 * means anything by itself.
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
  'engine',
  'some',
] as const;
export type Shape = (typeof SHAPES)[number];

export interface Place {
  readonly layout: Layout;
  /** Cylinders that this engine rests at part load. */
  readonly deactivated: readonly number[];
  /**
   * False: nobody declared which end of the tray is the front. A row read from its other end keeps its neighbours, its ends
   * and its bank, but not which cylinder is which.
   */
  readonly directionKnown: boolean;
}

/** A place of the engine: those of its sites that were looked at. */
export interface PlaceSites<S extends SiteKey> {
  readonly shape: Shape;
  readonly sites: readonly S[];
}

/**
 * The places that this engine has, as far as they were looked at: two sites at least, and one beside them, so that they can
 * be told from all.
 *
 * @param looked the sites that were looked at
 * @param shows which of them show what is asked about: it chooses the site of each waste-spark pair
 */
export function placesOf<S extends SiteKey>(
  { layout: { model }, deactivated }: Place,
  looked: readonly S[],
  shows: (site: S) => boolean,
): readonly PlaceSites<S>[] {
  const part = (shape: Shape, belongs: (site: S) => boolean): readonly PlaceSites<S>[] => {
    const sites = looked.filter(belongs);
    return sites.length >= 2 && sites.length < looked.length ? [{ shape, sites }] : [];
  };
  const rowEnds = new Set(model.banks.flatMap(({ cylinders: row }) => (row.length > 2 ? [row[0], row.at(-1)] : [])));
  return [
    ...(looked.length >= 2 ? [{ shape: 'all' as const, sites: looked }] : []),
    ...part('deactivated', ({ cylinder }) => deactivated.includes(cylinder)),
    ...(['A', 'B'] as const).flatMap((row) => part('position', ({ position }) => position === row)),
    ...model.banks.flatMap((bank) => part('bank', ({ cylinder }) => bank.cylinders.includes(cylinder))),
    ...part('ends', ({ cylinder }) => rowEnds.has(cylinder)),
    ...partnersOf(model, looked, shows),
  ];
}

/** One site of each waste-spark pair, the one that shows it: in a V those may be a whole bank. */
function partnersOf<S extends SiteKey>(
  { ignition, firingOrder, plugsPerCylinder }: Layout['model'],
  looked: readonly S[],
  shows: (site: S) => boolean,
): readonly PlaceSites<S>[] {
  if (ignition !== 'waste_spark' || plugsPerCylinder === 2) return [];
  const seen = companions(firingOrder).map((pair) => looked.filter(({ cylinder }) => pair.includes(cylinder)));
  const chosen = seen.flatMap((pair) => (pair.length === 2 ? pair.filter(shows).slice(0, 1) : []));
  const bothSeen = seen.every(({ length }) => length === 2);
  return bothSeen && seen.length >= 2 && chosen.length === seen.length
    ? [{ shape: 'partners', sites: looked.filter((site) => chosen.includes(site)) }]
    : [];
}

/** In this order a set of sites is named by the place that it fills. */
const NAMED_BY: readonly Shape[] = ['all', 'position', 'bank', 'deactivated', 'ends', 'partners'];

/** The place that exactly these of the sites looked at fill. */
export function shapeOf<S extends SiteKey>(place: Place, affected: readonly S[], looked: readonly S[]): Shape {
  const cylinders = [...new Set(affected.map(({ cylinder }) => cylinder))];
  if (cylinders.length === 1) return 'one';
  const shows = new Set(affected.map(siteId));
  const filled = placesOf(place, looked, (site) => shows.has(siteId(site))).filter(
    ({ sites }) => sites.length === shows.size && sites.every((site) => shows.has(siteId(site))),
  );
  const named = NAMED_BY.find((shape) => filled.some((entry) => entry.shape === shape));
  if (named && named !== 'ends') return named;
  return cylinders.length === 2 && areNeighbours(place.layout, cylinders) ? 'neighbours' : (named ?? 'some');
}

/** Whether two cylinders stand beside each other in one bank. */
export const areNeighbours = (layout: Layout, [a = 0, b = 0]: readonly number[]): boolean =>
  neighbours(layout, a).includes(b);

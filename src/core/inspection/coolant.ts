import type { Layout } from '../engine/layout';
import type { Cause } from './finding';
import { areNeighbours } from './shape';
import type { Looked } from './signs';

/* Coolant in a cylinder. Whether the work stops is decided by what it costs to be wrong: a head gasket that leaks between two
   cylinders and is run on costs the engine, to look costs an hour. One chance in ten is enough. So two neighbours that both
   show it always stop, whatever else is seen, and more of it never takes a stop back. The one exception is other evidence: a
   colour, or a wash, that every plug of the engine shares speaks of the fuel. */

interface CoolantCause {
  readonly cause: Extract<Cause, `coolant_${string}` | 'coloured_by_fuel' | 'washed_alike'>;
  readonly sites: readonly Looked[];
}

/** Fewer cylinders than this cannot be told to be alike. */
const ALIKE = 3;

const has = (word: 'nose coloured trace' | 'nose washed clean') => (site: Looked) =>
  site.seen.some(({ condition }) => condition === word);

/** @param shows the sites with a coloured trace or washed clean */
export function coolantCauses(layout: Layout, shows: readonly Looked[]): readonly CoolantCause[] {
  if (shows.length === 0) return [];
  const traced = shows.some(has('nose coloured trace'));
  const washed = shows.some(has('nose washed clean'));
  const alike = layout.cylinders >= ALIKE && shows.length === layout.sites.length && traced !== washed;
  if (alike) return [{ cause: traced ? 'coloured_by_fuel' : 'washed_alike', sites: shows }];
  const besideAnother = ({ cylinder }: Looked): boolean =>
    shows.some((other) => areNeighbours(layout, [cylinder, other.cylinder]));
  const between = shows.filter(besideAnother);
  const apart = shows.filter((site) => !besideAnother(site));
  return [
    ...(between.length > 0 ? [{ cause: 'coolant_between' as const, sites: between }] : []),
    ...(apart.length > 0 ? [{ cause: 'coolant_in_one' as const, sites: apart }] : []),
  ];
}

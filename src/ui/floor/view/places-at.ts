import type { JobRecord } from '@/core/work/entry';
import type { FloorJob, FloorPlace } from '@/core/work/job-record';
import { nextSite } from '@/core/work/next-site';
import { placeStateIn } from '@/core/work/order-model';
import type { PlaceState, TaskComponent } from '@/core/work/task';

/** What an engine has one of stands under the engine itself. */
export const ENGINE = 'engine';

/** In which order the parts of one cylinder come apart, from above. */
const FROM_ABOVE: readonly TaskComponent[] = [
  'cap',
  'rotor',
  'lead_set',
  'rail',
  'coil',
  'lead',
  'boot',
  'seal',
  'plug',
];

/** The parts that are worked on at one site, from above down. */
export const placesAt = (job: FloorJob, site: string): readonly FloorPlace[] =>
  job.places
    .filter(({ id, moved }) => id === site && !moved)
    .sort((a, b) => FROM_ABOVE.indexOf(a.component) - FROM_ABOVE.indexOf(b.component));

export const stateAt = (record: JobRecord, place: FloorPlace): PlaceState => placeStateIn(record, place);

/**
 * The next part to do after this one: what is left at the same site, then the next site along the bank, then what the engine
 * has one of. Null: nothing is left.
 */
export function nextPlace(job: FloorJob, record: JobRecord, now: FloorPlace): FloorPlace | null {
  const isOpen = (place: FloorPlace): boolean => place.target !== now.target && stateAt(record, place) === 'open';
  const openAt = (site: string): FloorPlace | undefined => placesAt(job, site).find(isOpen);
  const here = openAt(now.id);
  if (here) return here;
  const site = nextSite(job.sites, now.id, (id) => openAt(id) === undefined);
  return (site && openAt(site.id)) ?? openAt(ENGINE) ?? null;
}

import { and, eq } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier } from '../client';
import { people } from '../schema';

/** A person of a fleet who works there now; undefined: there is none with this id. */
export async function findActivePerson(q: Querier, fleetId: FleetId, id: string) {
  const [person] = await q
    .select()
    .from(people)
    .where(and(eq(people.fleetId, fleetId), eq(people.id, id), eq(people.active, true)));
  return person;
}

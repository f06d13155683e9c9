import { count } from 'drizzle-orm';
import type { z } from 'zod';
import { firstRunForm } from '@/contracts/forms/people';
import { ok } from '@/core/shared/result';
import { lock } from '@/db/locks';
import { writeAudit } from '@/db/queries/audit';
import { fleets, people } from '@/db/schema';
import type { Actor } from '../access';
import { refuseWeak } from '../auth/passwords';
import type { Deps } from '../deps';
import { fail, type Outcome } from '../failure';
import { addSignIn } from './people';

/** Whether this workspace has nobody yet: only then may the first supervisor be made without signing in. */
export async function isFirstRun({ db }: Deps): Promise<boolean> {
  const [fleetCount] = await db.select({ n: count() }).from(fleets);
  return (fleetCount?.n ?? 0) === 0;
}

/** Makes the fleet and its first supervisor. Refused once there is a fleet. */
export async function createFirstSupervisor(
  deps: Deps,
  raw: z.input<typeof firstRunForm.schema>,
  isDemo = false,
): Promise<Outcome<Actor>> {
  const input = firstRunForm.schema.parse(raw);
  const weak = refuseWeak(input.password, [input.name, input.email, input.fleetName]);
  if (weak) return weak;
  return deps.db.transaction(async (tx) => {
    // Two people at once on the first-run page must not make two fleets.
    await lock(tx, 'firstRun');
    const [existing] = await tx.select({ n: count() }).from(fleets);
    if ((existing?.n ?? 0) > 0)
      return fail('forbidden', 'This workspace already has a supervisor. Sign in, or ask to be added under People.');
    const [fleet] = await tx.insert(fleets).values({ name: input.fleetName, isDemo }).returning();
    if (!fleet) throw new Error('the fleet was not written');
    const userId = await addSignIn(tx, input);
    const [person] = await tx
      .insert(people)
      .values({ fleetId: fleet.id, userId, name: input.name, role: 'supervisor' })
      .returning();
    if (!person) throw new Error('the person was not written');
    await writeAudit(
      tx,
      { fleetId: fleet.id, personId: person.id },
      {
        action: 'create',
        entity: 'fleet',
        entityId: fleet.id,
        changes: { name: input.fleetName, firstSupervisor: input.name },
      },
    );
    return ok({ personId: person.id, fleetId: fleet.id, name: person.name, role: 'supervisor', unitSystem: 'metric' });
  });
}

import { randomUUID } from 'node:crypto';
import { hashPassword } from 'better-auth/crypto';
import { and, asc, count, eq } from 'drizzle-orm';
import { z } from 'zod';
import { addPersonForm } from '@/contracts/forms/people';
import type { FleetId, PersonId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { ROLES } from '@/core/shared/role';
import type { Tx } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { lock } from '@/db/locks';
import { writeAudit } from '@/db/queries/audit';
import { account, depots, people, session, user } from '@/db/schema';
import { refuseWeak } from '../auth/passwords';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { hoursText, wordsText } from './bays';

/** The account behind a person: address and hashed password. */
export async function addSignIn(tx: Tx, person: { name: string; email: string; password: string }): Promise<string> {
  const userId = randomUUID();
  await tx.insert(user).values({ id: userId, name: person.name, email: person.email });
  await tx.insert(account).values({
    id: randomUUID(),
    accountId: userId,
    providerId: 'credential',
    userId,
    password: await hashPassword(person.password),
  });
  return userId;
}

export const addPerson = useCase({
  permission: 'manage people',
  input: addPersonForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ personId: PersonId }>> {
    const weak = refuseWeak(input.password, [input.name, input.email]);
    if (weak) return weak;
    try {
      return await deps.db.transaction(async (tx) => {
        const userId = await addSignIn(tx, input);
        const { role, hybridQualified, unitSystem } = input;
        const [person] = await tx
          .insert(people)
          .values({ fleetId: actor.fleetId, userId, name: input.name, role, hybridQualified, unitSystem })
          .returning();
        if (!person) throw new Error('the person was not written');
        await writeAudit(tx, actor, {
          action: 'create',
          entity: 'person',
          entityId: person.id,
          changes: { name: input.name, role, hybridQualified },
        });
        return ok({ personId: person.id });
      });
    } catch (error) {
      if (violation(error)?.code === 'unique')
        return fail('invalid', 'Someone already signs in with this address.', {
          email: 'Already in use. Choose another address.',
        });
      throw error;
    }
  },
});

const personChange = z.object({
  personId: z.uuid(),
  version: z.coerce.number().int(),
  role: z.enum(ROLES),
  hybridQualified: z.boolean(),
  active: z.boolean(),
});

/** Changes role, qualification or sign-in. Leaving signs the person out everywhere; the last supervisor stays. */
export const changePerson = useCase({
  permission: 'manage people',
  input: personChange,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      await lock(tx, 'people');
      const [before] = await tx
        .select()
        .from(people)
        .where(and(eq(people.fleetId, actor.fleetId), eq(people.id, input.personId)));
      if (!before) return notFound('person');
      if (before.version !== input.version) return editedMeanwhile();
      const stays = input.active && input.role === 'supervisor';
      if (before.role === 'supervisor' && before.active && !stays && (await supervisors(tx, actor.fleetId)) === 1) {
        return fail('conflict', `${before.name} is the only supervisor. Make another one first.`);
      }
      const { role, hybridQualified, active } = input;
      await tx
        .update(people)
        .set({ role, hybridQualified, active, version: before.version + 1 })
        .where(eq(people.id, before.id));
      if (!active && before.userId) await tx.delete(session).where(eq(session.userId, before.userId));
      await writeAudit(tx, actor, {
        action: 'change',
        entity: 'person',
        entityId: before.id,
        changes: {
          from: { role: before.role, hybridQualified: before.hybridQualified, active: before.active },
          to: { role, hybridQualified, active },
        },
      });
      return ok(null);
    });
  },
});

/** Where a person works, what they are trained on, and their own shifts. */
export const changePresence = useCase({
  permission: 'manage people',
  input: z.object({
    personId: z.uuid(),
    version: z.coerce.number().int(),
    depotIds: z.array(z.uuid()).max(100),
    skills: wordsText,
    hours: hoursText,
  }),
  async run(deps, actor, { personId, version, depotIds, skills, hours }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx): Promise<Outcome<null>> => {
      const known = await tx.select({ id: depots.id }).from(depots).where(eq(depots.fleetId, actor.fleetId));
      const chosen = depotIds.filter((id) => known.some((depot) => depot.id === id));
      if (chosen.length < depotIds.length) return notFound('depot');
      const [before] = await tx
        .select()
        .from(people)
        .where(and(eq(people.fleetId, actor.fleetId), eq(people.id, personId)));
      if (!before) return notFound('person');
      const values = { depotIds: chosen, skills, hours };
      const done = await tx
        .update(people)
        .set({ ...values, version: version + 1 })
        .where(and(eq(people.id, before.id), eq(people.version, version)))
        .returning({ id: people.id });
      if (done.length === 0) return editedMeanwhile();
      await writeAudit(tx, actor, {
        action: 'change',
        entity: 'person',
        entityId: personId,
        changes: { from: { depotIds: before.depotIds, skills: before.skills, hours: before.hours }, to: values },
      });
      return ok(null);
    });
  },
});

async function supervisors(tx: Tx, fleetId: FleetId): Promise<number> {
  const [row] = await tx
    .select({ n: count() })
    .from(people)
    .where(and(eq(people.fleetId, fleetId), eq(people.role, 'supervisor'), eq(people.active, true)));
  return row?.n ?? 0;
}

export const listPeople = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await deps.db
      .select({
        id: people.id,
        name: people.name,
        role: people.role,
        email: user.email,
        hybridQualified: people.hybridQualified,
        active: people.active,
        version: people.version,
        shiftMinutes: people.shiftMinutes,
        depotIds: people.depotIds,
        skills: people.skills,
        hours: people.hours,
      })
      .from(people)
      .leftJoin(user, eq(user.id, people.userId))
      .where(eq(people.fleetId, actor.fleetId))
      .orderBy(asc(people.name));
    return ok(rows);
  },
});

const settingsInput = z.object({ unitSystem: z.enum(['metric', 'us']) });

export const changeOwnSettings = useCase({
  permission: 'change own settings',
  input: settingsInput,
  async run(deps, actor, input): Promise<Outcome<null>> {
    await deps.db.transaction(async (tx) => {
      await tx
        .update(people)
        .set({ unitSystem: input.unitSystem })
        .where(and(eq(people.fleetId, actor.fleetId), eq(people.id, actor.personId)));
      await writeAudit(tx, actor, {
        action: 'change',
        entity: 'person',
        entityId: actor.personId,
        changes: { unitSystem: input.unitSystem },
      });
    });
    return ok(null);
  },
});

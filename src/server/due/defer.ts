import { and, asc, desc, eq, inArray, isNotNull, isNull, ne, or } from 'drizzle-orm';
import { z } from 'zod';
import { blockForm, deferForm } from '@/contracts/forms/due';
import { addMonths } from '@/core/calendar/plain-date';
import type { Component } from '@/core/engine/quantities';
import { groupBy } from '@/core/shared/group-by';
import type { VehicleId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { deferrals, dueStatus, people, vehicles } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';
import type { Undoable } from '../undo/undoable';
import { useCase } from '../use-case';
import { updateDueStatus } from './due-status';

/** Further than this nobody can defer: by then it is another decision. */
const MAX_MONTHS = 12;

/** Moves the due date of some vehicles, with who and why. Life used and pressure go on as they are. */
export const deferDue = useCase({
  permission: 'defer work',
  input: deferForm.schema,
  async run(
    deps,
    actor,
    { component, vehicleIds, until, reason },
  ): Promise<Outcome<{ readonly deferred: number } & Undoable>> {
    const today = deps.today();
    if (until <= today) return fail('invalid', 'The day must lie ahead.', { until: 'Give a day to come.' });
    if (until > addMonths(today, MAX_MONTHS))
      return fail('invalid', `Nothing is deferred by more than ${MAX_MONTHS} months.`, {
        until: 'Give an earlier day.',
      });
    return postpone(deps, actor, { vehicleIds, component }, { until, fault: null, reason }, 'defer');
  },
});

/**
 * Another fault is to be mended before this work: an exhaust leak or a lean code would be read off the new plugs as well.
 * The due date moves with that job; the work is blocked until somebody says that the fault is mended.
 */
export const blockByFault = useCase({
  permission: 'defer work',
  input: blockForm.schema,
  async run(
    deps,
    actor,
    { vehicleId, fault, until, reason },
  ): Promise<Outcome<{ readonly deferred: number } & Undoable>> {
    if (until !== '' && until <= deps.today())
      return fail('invalid', 'The day must lie ahead.', { until: 'Give a day to come, or leave it empty.' });
    return postpone(deps, actor, { vehicleIds: [vehicleId] }, { until: until || null, fault, reason }, 'block');
  },
});

/** Defers or blocks some vehicles, in the place of an earlier deferral. */
async function postpone(
  deps: Deps,
  actor: Actor,
  { vehicleIds, component }: { readonly vehicleIds: readonly string[]; readonly component?: Component | undefined },
  deferral: Pick<typeof deferrals.$inferInsert, 'until' | 'fault' | 'reason'>,
  action: 'defer' | 'block',
): Promise<Outcome<{ readonly deferred: number } & Undoable>> {
  const now = deps.now();
  return deps.db.transaction(async (tx) => {
    const ids = [...new Set(vehicleIds)];
    const ended = await tx
      .select({ id: vehicles.id })
      .from(vehicles)
      .where(and(eq(vehicles.fleetId, actor.fleetId), inArray(vehicles.id, ids)));
    if (ended.length !== ids.length) return notFound('vehicle');
    await tx
      .update(deferrals)
      .set({ endedAt: now })
      .where(
        and(
          inArray(deferrals.vehicleId, ids),
          component ? eq(deferrals.component, component) : undefined,
          isNull(deferrals.endedAt),
        ),
      );
    const due = await tx
      .select({ vehicleId: dueStatus.vehicleId, component: dueStatus.component })
      .from(dueStatus)
      .where(
        and(
          inArray(dueStatus.vehicleId, ids),
          component
            ? eq(dueStatus.component, component)
            : or(eq(dueStatus.component, 'plug'), isNotNull(dueStatus.dueP50)),
        ),
      );
    if (due.length === 0) return fail('conflict', 'Nothing of these vehicles has such a date to move.');
    await tx.insert(deferrals).values(
      due.map((row) => ({
        ...deferral,
        ...row,
        fleetId: actor.fleetId,
        deferredBy: actor.personId,
        deferredAt: now,
      })),
    );
    await updateDueStatus(tx, actor.fleetId, deps.today(), ids);
    const undo = await writeAudit(tx, actor, {
      action,
      entity: 'vehicle',
      entityId: ids[0] ?? '',
      changes: { vehicles: ids, ...(component ? { component } : {}), ...deferral, at: now.toISOString() },
    });
    return ok({ deferred: new Set(due.map((row) => row.vehicleId)).size, undo });
  });
}

/**
 * Undoes a deferral: what it ended holds again.
 *
 * @param at when it was made: the deferrals of that moment end, and those that ended then go on
 */
export async function undoDeferral(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  { vehicleIds, at }: { readonly vehicleIds: readonly string[]; readonly at: string },
): Promise<Outcome<null>> {
  const moment = new Date(at);
  const made = and(eq(deferrals.fleetId, actor.fleetId), inArray(deferrals.vehicleId, [...vehicleIds]));
  const ended = await tx
    .update(deferrals)
    .set({ endedAt: deps.now() })
    .where(and(made, eq(deferrals.deferredAt, moment), isNull(deferrals.endedAt)))
    .returning();
  if (ended.length === 0) return notFound('deferral');
  const undone = ended.map(({ vehicleId }) => vehicleId);
  await tx
    .update(deferrals)
    .set({ endedAt: null })
    .where(
      and(made, inArray(deferrals.vehicleId, undone), ne(deferrals.deferredAt, moment), eq(deferrals.endedAt, moment)),
    );
  await updateDueStatus(tx, actor.fleetId, deps.today(), [...vehicleIds]);
  // One line a vehicle, however many of its components the deferral was of.
  for (const deferral of new Map(ended.map((row) => [row.vehicleId, row])).values())
    await auditTakenBack(tx, actor, deferral);
  return ok(null);
}

/** Takes a deferral back, or says that the other fault is mended: the due date stands where it stood. */
export const takeBackDeferral = useCase({
  permission: 'defer work',
  input: z.object({ vehicleId: z.uuid() }),
  async run(deps, actor, { vehicleId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [deferral] = await tx
        .select()
        .from(deferrals)
        .where(
          and(eq(deferrals.fleetId, actor.fleetId), eq(deferrals.vehicleId, vehicleId), isNull(deferrals.endedAt)),
        );
      if (!deferral) return notFound('deferral');
      await endDeferral(tx, vehicleId, deps.now());
      await updateDueStatus(tx, actor.fleetId, deps.today(), [vehicleId]);
      await auditTakenBack(tx, actor, deferral);
      return ok(null);
    });
  },
});

const auditTakenBack = (
  tx: Tx,
  actor: Actor,
  { vehicleId, until, fault, reason }: typeof deferrals.$inferSelect,
): Promise<number> =>
  writeAudit(tx, actor, {
    action: 'take back deferral',
    entity: 'vehicle',
    entityId: vehicleId,
    changes: { until, fault, reason },
  });

/** The other fault that a vehicle waits for; null: none. */
export async function blockingFault(tx: Tx, vehicleId: VehicleId): Promise<string | null> {
  const [deferral] = await tx
    .select({ fault: deferrals.fault })
    .from(deferrals)
    .where(and(eq(deferrals.vehicleId, vehicleId), isNotNull(deferrals.fault), isNull(deferrals.endedAt)));
  return deferral?.fault ?? null;
}

/** Ends what moves the dates of some components of a vehicle; of all of them where none is named. */
export async function endDeferral(
  tx: Tx,
  vehicleId: VehicleId,
  now: Date,
  components?: readonly Component[],
): Promise<void> {
  await tx
    .update(deferrals)
    .set({ endedAt: now })
    .where(
      and(
        eq(deferrals.vehicleId, vehicleId),
        components ? inArray(deferrals.component, [...components]) : undefined,
        isNull(deferrals.endedAt),
      ),
    );
}

/** Deferrals of a vehicle, the latest first. */
export const listDeferrals = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, vehicleId) {
    const rows = await deps.db
      .select({ deferral: deferrals, who: people.name })
      .from(deferrals)
      .leftJoin(people, eq(people.id, deferrals.deferredBy))
      .where(and(eq(deferrals.fleetId, actor.fleetId), eq(deferrals.vehicleId, vehicleId)))
      .orderBy(desc(deferrals.deferredAt), asc(deferrals.component))
      .limit(60);
    return ok(asSaid(rows));
  },
});

/** What was said once of several components is told once. */
function asSaid<R extends { readonly deferral: typeof deferrals.$inferSelect }>(rows: readonly R[]) {
  const spans = groupBy(rows, ({ deferral: { deferredAt, until, fault, endedAt } }) =>
    [deferredAt.toISOString(), until, fault, endedAt?.toISOString()].join(' '),
  );
  return [...spans.values()].flatMap(([first, ...rest]) =>
    first ? [{ ...first, components: [first, ...rest].map(({ deferral }) => deferral.component) }] : [],
  );
}

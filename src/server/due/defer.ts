import { and, desc, eq, inArray, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { addMonths, isPlainDate } from '@/core/calendar/plain-date';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { deferrals, people, vehicles } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';
import { weigh } from './due-status';

/** Further than this nobody can defer: by then it is another decision. */
const MOST_MONTHS = 12;

export const deferInput = z.object({
  vehicleIds: z.array(z.uuid()).min(1, 'Choose at least one vehicle.').max(500),
  until: z.string().trim().refine(isPlainDate, 'Give a day as 2026-12-31.'),
  reason: z.string().trim().min(3, 'Say why, so that the next person can tell.').max(300),
});

/** Moves the due date of some vehicles, with who and why. Life used and pressure go on as they are. */
export async function deferDue(
  deps: Deps,
  actor: Actor,
  { vehicleIds, until, reason }: z.output<typeof deferInput>,
): Promise<Outcome<{ readonly deferred: number }>> {
  const refused = refusal(actor, 'defer work');
  if (refused) return refused;
  const today = deps.today();
  if (until <= today) return fail('invalid', 'The day must lie ahead.', { until: 'Give a day to come.' });
  if (until > addMonths(today, MOST_MONTHS))
    return fail('invalid', `Nothing is deferred by more than ${MOST_MONTHS} months.`, {
      until: 'Give an earlier day.',
    });
  return hold(deps, actor, vehicleIds, { until, fault: null, reason }, 'defer');
}

export const blockInput = z.object({
  vehicleId: z.uuid(),
  fault: z.string().trim().min(3, 'Say which fault, in a few words.').max(200),
  /** When it is expected to be mended; empty: nobody can say. */
  until: z
    .string()
    .trim()
    .refine((day) => day === '' || isPlainDate(day), 'Give a day as 2026-12-31, or leave it empty.')
    .default(''),
  reason: z.string().trim().max(300).default(''),
});

/**
 * Another fault is to be mended before this work: an exhaust leak or a lean code would be read off the new plugs as well.
 * The due date moves with that job; it holds until somebody says that the fault is mended.
 */
export async function blockByFault(
  deps: Deps,
  actor: Actor,
  { vehicleId, fault, until, reason }: z.output<typeof blockInput>,
): Promise<Outcome<{ readonly deferred: number }>> {
  const refused = refusal(actor, 'defer work');
  if (refused) return refused;
  if (until !== '' && until <= deps.today())
    return fail('invalid', 'The day must lie ahead.', { until: 'Give a day to come, or leave it empty.' });
  return hold(deps, actor, [vehicleId], { until: until || null, fault, reason }, 'block');
}

/** Puts a hold on some vehicles in the place of the one they had. */
async function hold(
  deps: Deps,
  actor: Actor,
  vehicleIds: readonly string[],
  held: Pick<typeof deferrals.$inferInsert, 'until' | 'fault' | 'reason'>,
  action: 'defer' | 'block',
): Promise<Outcome<{ readonly deferred: number }>> {
  return deps.db.transaction(async (tx) => {
    const ids = [...new Set(vehicleIds)];
    const own = await tx
      .select({ id: vehicles.id })
      .from(vehicles)
      .where(and(eq(vehicles.fleetId, actor.fleetId), inArray(vehicles.id, ids)));
    if (own.length !== ids.length) return notFound('vehicle');
    await tx
      .update(deferrals)
      .set({ endedAt: deps.now() })
      .where(and(inArray(deferrals.vehicleId, ids), isNull(deferrals.endedAt)));
    await tx.insert(deferrals).values(
      ids.map((vehicleId) => ({
        ...held,
        fleetId: actor.fleetId,
        vehicleId,
        component: 'plug' as const,
        deferredBy: actor.personId,
        deferredAt: deps.now(),
      })),
    );
    await weigh(tx, actor.fleetId, deps.today(), ids);
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action,
      entity: 'vehicle',
      entityId: ids[0] ?? '',
      changes: { vehicles: ids, ...held },
    });
    return ok({ deferred: ids.length });
  });
}

/** Takes a deferral back, or says that the other fault is mended: the due date stands where it stood. */
export async function takeBackDeferral(
  deps: Deps,
  actor: Actor,
  { vehicleId }: { readonly vehicleId: string },
): Promise<Outcome<null>> {
  const refused = refusal(actor, 'defer work');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const [held] = await tx
      .select()
      .from(deferrals)
      .where(and(eq(deferrals.fleetId, actor.fleetId), eq(deferrals.vehicleId, vehicleId), isNull(deferrals.endedAt)));
    if (!held) return notFound('deferral');
    await endDeferral(tx, vehicleId, deps.now());
    await weigh(tx, actor.fleetId, deps.today(), [vehicleId]);
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'take back deferral',
      entity: 'vehicle',
      entityId: vehicleId,
      changes: { until: held.until, fault: held.fault, reason: held.reason },
    });
    return ok(null);
  });
}

/** The other fault that a vehicle waits for; null: none. */
export async function blockingFault(tx: Tx, vehicleId: string): Promise<string | null> {
  const [held] = await tx
    .select({ fault: deferrals.fault })
    .from(deferrals)
    .where(and(eq(deferrals.vehicleId, vehicleId), isNull(deferrals.endedAt)));
  return held?.fault ?? null;
}

export async function endDeferral(tx: Tx, vehicleId: string, now: Date): Promise<void> {
  await tx
    .update(deferrals)
    .set({ endedAt: now })
    .where(and(eq(deferrals.vehicleId, vehicleId), isNull(deferrals.endedAt)));
}

/** Deferrals of a vehicle, the latest first. */
export async function listDeferrals(deps: Deps, actor: Actor, vehicleId: string) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const rows = await deps.db
    .select({ deferral: deferrals, who: people.name })
    .from(deferrals)
    .leftJoin(people, eq(people.id, deferrals.deferredBy))
    .where(and(eq(deferrals.fleetId, actor.fleetId), eq(deferrals.vehicleId, vehicleId)))
    .orderBy(desc(deferrals.deferredAt))
    .limit(20);
  return ok(rows);
}

import { randomUUID } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { WATCH_KM } from '@/core/misfire/case-state';
import type { Km } from '@/core/shared/kinds';
import type { Tx } from '@/db/client';
import type { Author } from '@/db/queries/audit';
import { type CaseRow, lockCasesOfOrder } from '@/db/queries/misfire';
import { followUps, misfireCases } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { appendEntries } from './keep-entries';

/** From now on a case is watched, with a follow-up for when it is believed. @param km where the vehicle stands; null: nobody knows */
export async function watch(
  deps: Deps,
  tx: Tx,
  author: Actor,
  misfire: CaseRow,
  km: Km | null,
  words: string,
): Promise<void> {
  const untilKm = km === null ? null : km + WATCH_KM;
  await appendEntries(tx, misfire, [
    {
      id: randomUUID(),
      at: deps.now(),
      said: { kind: 'decided', decision: 'watch', words, cause: null },
      saidBy: author.personId,
    },
  ]);
  await tx
    .update(misfireCases)
    .set({ state: 'watching', watchUntilKm: untilKm })
    .where(eq(misfireCases.id, misfire.id));
  await tx.insert(followUps).values({
    fleetId: misfire.fleetId,
    vehicleId: misfire.vehicleId,
    workOrderId: misfire.workOrderId,
    misfireCaseId: misfire.id,
    what: `Misfire ${misfire.number}: none for ${WATCH_KM} km? Then close it.`,
    ownerId: author.personId,
    dueKm: untilKm,
    createdBy: author.personId,
  });
}

/** The follow-up of a watch is done. */
export async function finishWatch(deps: Deps, tx: Tx, author: Author, { id }: CaseRow, outcome: string): Promise<void> {
  await tx
    .update(followUps)
    .set({ doneAt: deps.now(), doneBy: author.personId, outcome })
    .where(and(eq(followUps.misfireCaseId, id), isNull(followUps.doneAt)));
}

/** A visit was closed: what it was to cure is watched. */
export async function watchAfterVisit(
  deps: Deps,
  tx: Tx,
  author: Actor,
  order: { readonly id: string; readonly number: number },
  km: Km,
): Promise<void> {
  for (const misfire of await lockCasesOfOrder(tx, author.fleetId, order.id))
    if (misfire.state === 'mending')
      await watch(deps, tx, author, misfire, km, `Work order ${order.number} is closed.`);
}

/** A visit was cancelled: what it was to cure is open again. */
export async function openAfterCancel(tx: Tx, author: Author, orderId: string): Promise<void> {
  for (const { id, state } of await lockCasesOfOrder(tx, author.fleetId, orderId))
    if (state === 'mending')
      await tx.update(misfireCases).set({ state: 'open', workOrderId: null }).where(eq(misfireCases.id, id));
}

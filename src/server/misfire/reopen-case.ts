import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Said } from '@/core/misfire/case-entry';
import { swappedPart } from '@/core/misfire/remedy-task';
import type { Tx } from '@/db/client';
import { type Author, writeAudit } from '@/db/queries/audit';
import type { CaseRow } from '@/db/queries/misfire';
import { loadPlaces, loadTasks, loadWorkOrder } from '@/db/queries/work-orders';
import { misfireCases } from '@/db/schema';
import type { Deps } from '../deps';
import { appendEntries } from './keep-entries';
import { finishWatch } from './watch';

/** A case that goes on: with all it knew, and with what was replaced for it and cured nothing. */
export async function reopen(deps: Deps, tx: Tx, author: Author, misfire: CaseRow, words: string): Promise<CaseRow> {
  const said: readonly Said[] = [
    ...(await replacedInVain(tx, misfire)),
    { kind: 'decided', decision: 'reopen', words, cause: null },
  ];
  await appendEntries(
    tx,
    misfire,
    said.map((one) => ({ id: randomUUID(), at: deps.now(), said: one, saidBy: author.personId })),
  );
  await finishWatch(deps, tx, author, misfire, 'It came back.');
  const [open] = await tx
    .update(misfireCases)
    .set({ state: 'open', endedOn: null, endedKm: null, watchUntilKm: null, workOrderId: null })
    .where(eq(misfireCases.id, misfire.id))
    .returning();
  if (!open) throw new Error('the case was not written');
  await writeAudit(tx, author, {
    action: 'decide',
    entity: 'misfire-case',
    entityId: misfire.id,
    changes: { decision: 'reopen', words },
  });
  return open;
}

/** What its visit replaced, as tests that failed. */
async function replacedInVain(tx: Tx, { fleetId, workOrderId }: CaseRow): Promise<readonly Said[]> {
  const order = workOrderId === null ? null : await loadWorkOrder(tx, fleetId, workOrderId);
  if (order?.state !== 'closed') return [];
  const tasks = (await loadTasks(tx, order.id)).filter(({ why, action }) => why === 'misfire' && action === 'replace');
  const places = await loadPlaces(tx, order.id);
  const failed = places.flatMap(({ taskId, cylinder, doneAt }) => {
    const task = doneAt && tasks.find(({ id }) => id === taskId);
    const component = task ? swappedPart(task.component) : null;
    return component ? [{ component, cylinder: cylinder === 0 ? null : cylinder }] : [];
  });
  return failed.map((one) => ({ kind: 'test', test: { test: 'replace', ...one, outcome: 'not_cured' } }));
}

import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { Said } from '@/core/misfire/case-entry';
import type { OtherTest } from '@/core/misfire/misfire-case';
import { suspectOf } from '@/core/misfire/remedy-task';
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
  const statements: readonly Said[] = [
    ...(await replacedInVain(tx, misfire)),
    { kind: 'decided', decision: 'reopen', words, cause: null },
  ];
  await appendEntries(
    tx,
    misfire,
    statements.map((statement) => ({ id: randomUUID(), at: deps.now(), said: statement, saidBy: author.personId })),
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

/** What its visit replaced or pressed on, as tests that failed. */
async function replacedInVain(tx: Tx, { fleetId, workOrderId }: CaseRow): Promise<readonly Said[]> {
  const order = workOrderId === null ? null : await loadWorkOrder(tx, fleetId, workOrderId);
  if (order?.state !== 'closed') return [];
  const places = (await loadPlaces(tx, order.id)).filter(({ doneAt }) => doneAt !== null);
  const failed = (await loadTasks(tx, order.id))
    .filter(({ why }) => why === 'misfire')
    .flatMap(({ id, action, component }): readonly OtherTest[] => {
      const cylinders = places.filter(({ taskId }) => taskId === id).map(({ cylinder }) => cylinder);
      // A coil that was looked at has had its connector pressed on.
      const pressedOn = component === 'coil' ? 'connector' : null;
      const part = action === 'replace' ? suspectOf(component) : pressedOn;
      if (part === null) return [];
      const isSet = part === 'plug' && cylinders.length > 1;
      const each = cylinders.map((cylinder) => ({
        test: 'replace' as const,
        component: part,
        cylinder: cylinder || null,
      }));
      return isSet ? [...each, { test: 'replace', component: part, cylinder: null }] : each;
    });
  return failed.map((test) => ({ kind: 'test', test: { ...test, outcome: 'not_cured' } }));
}

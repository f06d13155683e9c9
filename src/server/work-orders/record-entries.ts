import { and, eq, inArray } from 'drizzle-orm';
import { entriesInput, entryInput, entryValueSchema } from '@/contracts/order-entry';
import type { WorkOrderId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { unstorablePath } from '@/core/shared/storable-text';
import { personUnits } from '@/core/units/person-units';
import { applyEntry, changesBetween } from '@/core/work/apply-entry';
import type { Entry } from '@/core/work/entry';
import type { Tx } from '@/db/client';
import { floorEntries } from '@/db/schema';
import type { Actor } from '../access';
import { notFound, OF_ANOTHER, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { lockOpenOrder } from './lock-open-order';
import { jobRecordOf, loadFloorState, mayIsolate, orderModelOf } from './order-state';
import { writeRecord } from './write-record';

export interface EntryResult {
  readonly id: string;
  readonly outcome: 'kept' | 'same' | 'differs' | 'resolved' | 'refused';
  readonly message: string | null;
}

/**
 * Brings what a device sent into the record, entry by entry, in one transaction. What cannot be right is refused with the
 * reason and the others are kept; what somebody else said otherwise meanwhile is kept beside it. An id that is known is
 * answered as the first time.
 */
export const recordEntries = useCase({
  permission: 'record work',
  input: entriesInput,
  judgesTextItself: true,
  async run(deps, actor, input): Promise<Outcome<readonly EntryResult[]>> {
    return deps.db.transaction(async (tx) => {
      const order = await lockOpenOrder(tx, actor, input.workOrderId);
      const state = await loadFloorState(tx, order, deps.today());
      if (!state) return notFound('work order');
      const known = await tx
        .select({ id: floorEntries.id, outcome: floorEntries.outcome, message: floorEntries.message })
        .from(floorEntries)
        .where(
          and(
            eq(floorEntries.fleetId, actor.fleetId),
            inArray(
              floorEntries.id,
              input.entries.map(({ id }) => id),
            ),
          ),
        );
      const results = new Map<string, EntryResult>(known.map((row) => [row.id, row]));
      const model = orderModelOf(state, await mayIsolate(tx, state, actor.personId));
      const before = jobRecordOf(state);
      let record = before;
      const judged: Judged[] = [];
      for (const sent of input.entries) {
        if (results.has(sent.id)) continue;
        const entry = readEntry(sent, actor);
        if (typeof entry === 'string') {
          results.set(sent.id, { id: sent.id, outcome: 'refused', message: entry });
          continue;
        }
        const applied = applyEntry(model, record, entry, personUnits(actor.unitSystem));
        record = applied.record;
        const result = { id: entry.id, outcome: applied.outcome, message: applied.message };
        results.set(entry.id, result);
        judged.push({ entry, result });
      }
      await keepEntries(tx, actor, input.workOrderId, judged);
      await writeRecord(tx, { state, model, actor, now: deps.now() }, record, changesBetween(before, record));
      return ok(input.entries.flatMap(({ id }) => results.get(id) ?? []));
    });
  },
});

/** The entry, or why it cannot be one. */
function readEntry(sent: unknown, actor: Actor): Entry | string {
  if (unstorablePath(sent)) return 'It has a character that cannot be stored. Delete it and type it again.';
  const read = entryInput.safeParse(sent);
  if (!read.success)
    return `It cannot be read: ${read.error.issues[0]?.path.join('.')}: ${read.error.issues[0]?.message}`;
  const { by, ...entry } = read.data;
  if (by && by !== actor.personId) return OF_ANOTHER;
  const shape = entryValueSchema(entry.target, entry.field);
  if (!shape) return entry;
  const value = shape.safeParse(entry.value);
  return value.success
    ? { ...entry, value: value.data }
    : (value.error.issues[0]?.message ?? 'This cannot be kept here.');
}

interface Judged {
  readonly entry: Entry;
  readonly result: EntryResult;
}

async function keepEntries(tx: Tx, actor: Actor, workOrderId: WorkOrderId, judged: readonly Judged[]): Promise<void> {
  if (judged.length === 0) return;
  await tx.insert(floorEntries).values(
    judged.map(({ entry: { id, target, field, value, base, at }, result }) => ({
      id,
      fleetId: actor.fleetId,
      workOrderId,
      target,
      field,
      value,
      base,
      outcome: result.outcome,
      message: result.message,
      enteredBy: actor.personId,
      enteredAt: new Date(at),
    })),
  );
  for (const { entry, result } of judged) await resolveOther(tx, workOrderId, entry, result);
}

/** What this entry decides between is no longer open. */
async function resolveOther(
  tx: Tx,
  workOrderId: WorkOrderId,
  { resolves, target, field }: Entry,
  result: EntryResult,
): Promise<void> {
  if (resolves && (result.outcome === 'kept' || result.outcome === 'same'))
    await tx
      .update(floorEntries)
      .set({ outcome: 'resolved' })
      .where(
        and(
          eq(floorEntries.id, resolves),
          eq(floorEntries.workOrderId, workOrderId),
          eq(floorEntries.target, target),
          eq(floorEntries.field, field),
          eq(floorEntries.outcome, 'differs'),
        ),
      );
}

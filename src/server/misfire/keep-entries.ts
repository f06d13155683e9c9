import { eq, inArray, sql } from 'drizzle-orm';
import { codesIn } from '@/core/engine/fault-code';
import { type CaseEntry, type Said, storyOf } from '@/core/misfire/case-entry';
import { drivingOf } from '@/core/misfire/driving';
import { withNamedParts } from '@/core/misfire/named-parts';
import { beliefOf, suspicions } from '@/core/misfire/posterior';
import type { PersonId } from '@/core/shared/kinds';
import type { Tx } from '@/db/client';
import { type Author, writeAudit } from '@/db/queries/audit';
import { type CaseRow, loadCaseEntries } from '@/db/queries/misfire';
import { misfireCases, misfireEntries } from '@/db/schema';
import type { Actor } from '../access';
import { fitmentOf } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { refreshWeekCost } from '../due/refresh-due';
import { caseWith, factsOf } from './case-facts';

/** Codes as somebody typed or pasted them. */
export const typedCodes = (text: string): Extract<Said, { kind: 'codes' }> => ({
  kind: 'codes',
  codes: codesIn(text).map((code) => ({ code, freeze: {} })),
  source: 'typed',
});

export interface NewEntry {
  readonly id: string;
  readonly at: Date;
  readonly said: Said;
  readonly saidBy: PersonId | null;
  readonly driver?: string;
}

/**
 * Writes entries at the end of a case that is locked; one that is there already is left as it is.
 *
 * @returns those that were new
 */
export async function appendEntries(
  tx: Tx,
  misfire: Pick<CaseRow, 'id' | 'fleetId'>,
  entries: readonly NewEntry[],
): Promise<readonly NewEntry[]> {
  if (entries.length === 0) return [];
  const ids = entries.map(({ id }) => id);
  const known = await tx.select({ id: misfireEntries.id }).from(misfireEntries).where(inArray(misfireEntries.id, ids));
  const fresh = entries.filter(({ id }, i) => !known.some((row) => row.id === id) && ids.indexOf(id) === i);
  if (fresh.length === 0) return [];
  const [last] = await tx
    .select({ ordinal: sql<number>`coalesce(max(${misfireEntries.ordinal}), 0)` })
    .from(misfireEntries)
    .where(eq(misfireEntries.caseId, misfire.id));
  await tx.insert(misfireEntries).values(
    fresh.map(({ id, at, said, saidBy, driver }, i) => ({
      id,
      fleetId: misfire.fleetId,
      caseId: misfire.id,
      ordinal: Number(last?.ordinal ?? 0) + 1 + i,
      said,
      at,
      saidBy,
      driver: driver ?? null,
    })),
  );
  return fresh;
}

/** What the entries of a case say now, for lists: worked out when the last of them was made. */
export async function updatePointsTo(deps: Deps, tx: Tx, actor: Actor, misfire: CaseRow): Promise<void> {
  const fitment = await fitmentOf(tx, actor.fleetId, deps.today(), misfire.vehicleId);
  if (!fitment) return;
  const story = storyOf(entriesOf(await loadCaseEntries(tx, misfire.id)));
  const facts = await factsOf({ ...deps, db: tx }, actor, fitment, story.away);
  const says = story.codes.length + story.counts.length + story.found.length + story.testsDone.length > 0;
  const told = caseWith(facts, story);
  const [first] = suspicions(beliefOf(withNamedParts(told)));
  await tx
    .update(misfireCases)
    .set({
      pointsTo: says ? (first ?? null) : null,
      driving: drivingOf(told).driving,
      version: sql`${misfireCases.version} + 1`,
    })
    .where(eq(misfireCases.id, misfire.id));
  await refreshWeekCost(tx, actor.fleetId, deps.today(), misfire.vehicleId);
}

export const entriesOf = (rows: Awaited<ReturnType<typeof loadCaseEntries>>): readonly CaseEntry[] =>
  rows.map(({ entry: { id, said } }) => ({ id, said }));

/** Kinds of what was said, for the trail. */
export async function auditSaid(tx: Tx, author: Author, caseId: string, entries: readonly NewEntry[]): Promise<void> {
  if (entries.length === 0) return;
  await writeAudit(tx, author, {
    action: 'say',
    entity: 'misfire-case',
    entityId: caseId,
    changes: { said: entries.map(({ said }) => said.kind) },
  });
}

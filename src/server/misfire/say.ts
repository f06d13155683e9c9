import { randomUUID } from 'node:crypto';
import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { asSaid, codesText, entryInput } from '@/contracts/misfire';
import { layoutOf } from '@/core/engine/layout';
import { type CaseEntry, isAway, type Said, storyOf } from '@/core/misfire/case-entry';
import type { MovablePart } from '@/core/misfire/misfire-case';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies } from '@/db/queries/catalogue';
import { type CaseRow, loadCaseEntries, loadCases, lockCase } from '@/db/queries/misfire';
import { misfireEntries, vehicles } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, OF_ANOTHER, type Outcome } from '../failure';
import { swapPlaces } from '../fleet/swap-places';
import { portsOf } from '../ports/ports';
import { useCase } from '../use-case';
import { appendEntries, auditSaid, entriesOf, type NewEntry, typedCodes, updatePointsTo } from './keep-entries';

const MAX_AT_ONCE = 50;

const sayInput = z.object({
  caseId: z.uuid(),
  entries: z.array(entryInput).min(1).max(MAX_AT_ONCE, `At most ${MAX_AT_ONCE} entries at once.`),
});

/** Keeps what was said, found or tried, each once however often it is sent. Parts that change places do so on record too. */
export const sayOfCase = useCase({
  permission: 'record work',
  input: sayInput,
  async run(deps, actor, { caseId, entries }): Promise<Outcome<{ kept: number }>> {
    if (entries.some(({ by }) => by !== undefined && by !== actor.personId)) return fail('forbidden', OF_ANOTHER);
    return keep(
      deps,
      actor,
      caseId,
      entries.map(({ id, at, said }) => ({ id, at: new Date(at), said: asSaid(said), saidBy: actor.personId })),
    );
  },
});

async function keep(
  deps: Deps,
  actor: Actor,
  caseId: string,
  entries: readonly NewEntry[],
): Promise<Outcome<{ kept: number }>> {
  return deps.db.transaction(async (tx): Promise<Outcome<{ kept: number }>> => {
    const misfire = await lockCase(tx, actor.fleetId, caseId);
    if (!misfire) return notFound('misfire');
    if (misfire.state === 'closed')
      return fail('conflict', `Misfire ${misfire.number} is closed. Reopen it, or report a new one.`);
    const stranger = await strangeCylinder(tx, misfire, entries);
    if (stranger !== null) {
      const message = `This engine has no cylinder ${stranger}.`;
      return fail('invalid', message, { cylinder: message });
    }
    const stray = await strayPutBack(tx, misfire, entries);
    if (stray) return fail('conflict', stray);
    const fresh = await appendEntries(tx, misfire, entries);
    for (const { said } of fresh) await moveOnRecord(deps, tx, actor, misfire, said);
    await auditSaid(tx, actor, misfire.id, fresh);
    await updatePointsTo(deps, tx, actor, misfire);
    return ok({ kept: fresh.length });
  });
}

/** Cylinders that something was done to. What somebody says in words may be wrong, and is shown as that. */
function cylindersIn(statement: Said): readonly number[] {
  switch (statement.kind) {
    case 'found':
      return [statement.cylinder];
    case 'counts':
      return statement.counts.map(({ cylinder }) => cylinder);
    case 'swapped':
    case 'put_back':
      return [statement.from, statement.to];
    case 'test':
      if (statement.test.test === 'swap') return [statement.test.from, statement.test.to];
      return statement.test.cylinder === null ? [] : [statement.test.cylinder];
    default:
      return [];
  }
}

async function strangeCylinder(tx: Tx, misfire: CaseRow, entries: readonly NewEntry[]): Promise<number | null> {
  const [vehicle] = await tx.select().from(vehicles).where(eq(vehicles.id, misfire.vehicleId));
  const [family] = vehicle ? await loadFamilies(tx, misfire.fleetId, [vehicle.engineFamilyId]) : [];
  const known = family ? layoutOf(family.model).sites.map(({ cylinder }) => cylinder) : [];
  return entries.flatMap(({ said }) => cylindersIn(said)).find((cylinder) => !known.includes(cylinder)) ?? null;
}

/** Parts that are put back without having been swapped would be swapped by it. Null: there are none. */
async function strayPutBack(tx: Tx, { id }: CaseRow, entries: readonly NewEntry[]): Promise<string | null> {
  if (!entries.some(({ said }) => said.kind === 'put_back')) return null;
  const known = entriesOf(await loadCaseEntries(tx, id));
  const ids = new Set(known.map((entry) => entry.id));
  const all: CaseEntry[] = [...known];
  for (const entry of entries.filter((earlier) => !ids.has(earlier.id))) {
    const { said } = entry;
    if (said.kind === 'put_back' && !isAway(storyOf(all).away, said))
      return `The parts of ${said.from} and ${said.to} do not stand swapped, so there is nothing to put back.`;
    all.push(entry);
  }
  return null;
}

const ON_RECORD: Readonly<Record<MovablePart, readonly ('coil' | 'boot' | 'lead' | 'plug')[]>> = {
  coil: ['coil'],
  boot: ['boot'],
  lead: ['lead', 'boot'],
  plug: ['plug'],
  injector: [],
};

/** A swap is followed by tags; parts without one are marked with a pen, and stay where the record has them. */
async function moveOnRecord(deps: Deps, tx: Tx, actor: Actor, misfire: CaseRow, statement: Said): Promise<void> {
  if (statement.kind !== 'swapped' && statement.kind !== 'put_back') return;
  const { vehicleId } = misfire;
  for (const component of statement.moved.flatMap((part) => ON_RECORD[part])) {
    const swap = { vehicleId, component, cylinders: [statement.from, statement.to] } as const;
    const tags = await swapPlaces(tx, actor.fleetId, deps.today(), swap);
    if (tags && component === 'coil')
      await writeAudit(tx, actor, {
        action: 'swap coils',
        entity: 'vehicle',
        entityId: vehicleId,
        changes: {
          [tags[0]]: { from: statement.from, to: statement.to },
          [tags[1]]: { from: statement.to, to: statement.from },
          reason: `misfire ${misfire.number}`,
        },
      });
  }
}

/** Codes as typed or pasted, or read by what is connected. */
export const keepCodesOfCase = useCase({
  permission: 'record work',
  input: z.discriminatedUnion('by', [
    z.object({ caseId: z.uuid(), by: z.literal('hand'), typed: codesText }),
    z.object({ caseId: z.uuid(), by: z.literal('reader') }),
  ]),
  async run(deps, actor, input): Promise<Outcome<{ kept: number }>> {
    const read = input.by === 'hand' ? ok([typedCodes(input.typed)]) : await readerRead(deps, actor, input.caseId);
    if (!read.ok) return read;
    const entries = read.value.map((statement) => ({
      id: randomUUID(),
      at: deps.now(),
      said: statement,
      saidBy: actor.personId,
    }));
    return keep(deps, actor, input.caseId, entries);
  },
});

/** Codes, and counts where the reader gives any. */
async function readerRead({ db }: Deps, { fleetId }: Actor, caseId: string): Promise<Outcome<readonly Said[]>> {
  const [row] = await loadCases(db, fleetId, { id: caseId });
  const [vehicle] = row ? await db.select().from(vehicles).where(eq(vehicles.id, row.misfire.vehicleId)) : [];
  const [family] = vehicle ? await loadFamilies(db, fleetId, [vehicle.engineFamilyId]) : [];
  if (!row || !family) return notFound('misfire');
  const { codeReader } = await portsOf(db, fleetId);
  if (!codeReader)
    return fail('conflict', 'No code reader is connected. Read the codes with your own and type or paste them.');
  const cylinders = family.model.firingOrder.length;
  const { unitNumber } = row;
  const codes = codeReader.read({ unitNumber, cylinders, after: false });
  const counts = codes.length > 0 ? codeReader.counts({ unitNumber, cylinders }) : null;
  return ok([
    { kind: 'codes', codes: [...codes], source: codeReader.name },
    ...(counts ? [{ kind: 'counts' as const, counts }] : []),
  ]);
}

/** Takes one entry back: it stays on record as taken back. */
export const takeBackEntry = useCase({
  permission: 'record work',
  input: z.object({ caseId: z.uuid(), entryId: z.uuid() }),
  async run(deps, actor, { caseId, entryId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const misfire = await lockCase(tx, actor.fleetId, caseId);
      const [entry] = misfire
        ? await tx
            .select()
            .from(misfireEntries)
            .where(
              and(
                eq(misfireEntries.caseId, caseId),
                eq(misfireEntries.id, entryId),
                isNull(misfireEntries.takenBackAt),
              ),
            )
        : [];
      if (!misfire || !entry) return notFound('entry');
      const { kind } = entry.said;
      if (kind === 'swapped' || kind === 'put_back')
        return fail('conflict', 'Parts have moved with this. Put them back and say so instead.');
      if (kind === 'decided') return fail('conflict', 'A decision is not taken back: make another one.');
      await tx
        .update(misfireEntries)
        .set({ takenBackAt: deps.now(), takenBackBy: actor.personId })
        .where(eq(misfireEntries.id, entryId));
      await writeAudit(tx, actor, {
        action: 'take back',
        entity: 'misfire-case',
        entityId: caseId,
        changes: { said: kind },
      });
      await updatePointsTo(deps, tx, actor, misfire);
      return ok(null);
    });
  },
});

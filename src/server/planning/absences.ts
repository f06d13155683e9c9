import { and, asc, eq, isNotNull } from 'drizzle-orm';
import { z } from 'zod';
import { FAULTS_MARKED } from '@/contracts/forms/form-input';
import { absenceForm, awayTarget } from '@/contracts/forms/planning';
import { minuteOf } from '@/core/calendar/zone';
import { type Absence, absencesFromCalendar, readRule } from '@/core/planning/absence';
import type { AbsenceOf } from '@/core/planning/absence-of';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Querier, Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { absences, bays, depots, people, vehicles } from '@/db/schema';
import type { Actor } from '../access';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

type AbsenceRow = typeof absences.$inferSelect;

/** As the core knows it. */
export const absenceOf = ({ fromDay, toDay, fromMin, toMin, rule, except }: AbsenceRow): Absence => ({
  from: fromDay,
  to: toDay,
  hours: fromMin === null || toMin === null ? null : { fromMin, toMin },
  rule,
  except,
});

/** Says when a depot, bay, person or vehicle cannot be had. */
export const addAbsence = useCase({
  permission: 'manage bays',
  input: absenceForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ absenceId: string; undo: number }>> {
    return deps.db.transaction(async (tx): Promise<Outcome<{ absenceId: string; undo: number }>> => {
      const name = await nameOf(tx, actor.fleetId, input.of, input.ofId);
      if (name === null) return notFound(input.of);
      const { of, ofId, what, from, to, fromTime, toTime, rule } = input;
      const read = rule === '' ? ok(null) : readRule(rule, from);
      if (!read.ok) return fail('invalid', FAULTS_MARKED, { rule: read.error });
      const [row] = await tx
        .insert(absences)
        .values({
          fleetId: actor.fleetId,
          of,
          ofId,
          what,
          fromDay: from,
          toDay: to || from,
          fromMin: fromTime === '' ? null : minuteOf(fromTime),
          toMin: toTime === '' ? null : minuteOf(toTime),
          rule: read.value,
        })
        .returning({ id: absences.id });
      if (!row) throw new Error('the absence was not written');
      const undo = await writeAudit(tx, actor, {
        action: 'create',
        entity: 'absence',
        entityId: row.id,
        changes: { of: `${of} ${name}`, what, from, to: to || from, rule: rule || null },
      });
      return ok({ absenceId: row.id, undo });
    });
  },
});

export const removeAbsence = useCase({
  permission: 'manage bays',
  input: z.object({ absenceId: z.uuid() }),
  async run(deps, actor, { absenceId }): Promise<Outcome<{ undo: number }>> {
    return deps.db.transaction(async (tx) => {
      const [gone] = await tx
        .delete(absences)
        .where(and(eq(absences.fleetId, actor.fleetId), eq(absences.id, absenceId)))
        .returning();
      if (!gone) return notFound('absence');
      const { fleetId: _, createdAt: __, ...row } = gone;
      const undo = await writeAudit(tx, actor, {
        action: 'remove',
        entity: 'absence',
        entityId: absenceId,
        changes: { what: gone.what, from: gone.fromDay, to: gone.toDay, row },
      });
      return ok({ undo });
    });
  },
});

type RemovedAbsence = Omit<AbsenceRow, 'fleetId' | 'createdAt'>;

/** Puts an absence back that was removed, as it was. */
export async function putAbsenceBack(tx: Tx, actor: Actor, row: RemovedAbsence): Promise<Outcome<null>> {
  if ((await nameOf(tx, actor.fleetId, row.of, row.ofId)) === null) return notFound(row.of);
  await tx.insert(absences).values({ ...row, fleetId: actor.fleetId });
  const { what, fromDay: from, toDay: to } = row;
  await writeAudit(tx, actor, { action: 'create', entity: 'absence', entityId: row.id, changes: { what, from, to } });
  return ok(null);
}

const MAX_CALENDAR = 1024 * 1024;

/** Reads an iCalendar file of one of them. What came from a calendar before is replaced by what it says now. */
export const readCalendar = useCase({
  permission: 'manage bays',
  input: z.object({ ...awayTarget, text: z.string().min(1, 'Choose a file.').max(MAX_CALENDAR, 'At most 1 MiB.') }),
  async run(deps, actor, { of, ofId, text }): Promise<Outcome<{ read: number }>> {
    return deps.db.transaction(async (tx): Promise<Outcome<{ read: number }>> => {
      const name = await nameOf(tx, actor.fleetId, of, ofId);
      if (name === null) return notFound(of);
      const read = absencesFromCalendar(text, await zoneOf(tx, actor.fleetId, of, ofId));
      if (!read.ok) return fail('invalid', read.error, { text: read.error });
      await tx
        .delete(absences)
        .where(
          and(
            eq(absences.fleetId, actor.fleetId),
            eq(absences.of, of),
            eq(absences.ofId, ofId),
            isNotNull(absences.uid),
          ),
        );
      const rows = read.value.map(({ what, uid, from, to, hours, rule, except }) => ({
        fleetId: actor.fleetId,
        of,
        ofId,
        what: what || 'calendar',
        uid,
        fromDay: from,
        toDay: to,
        fromMin: hours?.fromMin ?? null,
        toMin: hours?.toMin ?? null,
        rule,
        except: [...except],
      }));
      for (let at = 0; at < rows.length; at += 1000) await tx.insert(absences).values(rows.slice(at, at + 1000));
      await writeAudit(tx, actor, {
        action: 'read calendar',
        entity: 'absence',
        entityId: ofId,
        changes: { of: `${of} ${name}`, events: rows.length },
      });
      return ok({ read: rows.length });
    });
  },
});

/** What people call it; null: there is none of this fleet. */
async function nameOf(q: Querier, fleetId: FleetId, what: AbsenceOf, id: string): Promise<string | null> {
  const names = await namesOf(q, fleetId);
  return names.get(`${what} ${id}`) ?? null;
}

/** What people call depots, bays, people and vehicles: "bay 0d1f…". */
export async function namesOf(q: Querier, fleetId: FleetId): Promise<ReadonlyMap<string, string>> {
  const ofDepots = await q.select().from(depots).where(eq(depots.fleetId, fleetId));
  const depotNames = new Map(ofDepots.map(({ id, name }) => [id, name]));
  const ofBays = await q.select().from(bays).where(eq(bays.fleetId, fleetId));
  const ofPeople = await q.select().from(people).where(eq(people.fleetId, fleetId));
  const ofVehicles = await q
    .select({ id: vehicles.id, unitNumber: vehicles.unitNumber, name: vehicles.name })
    .from(vehicles)
    .where(eq(vehicles.fleetId, fleetId));
  return new Map([
    ...ofDepots.map(({ id, name }) => [`depot ${id}`, name] as const),
    ...ofBays.map(({ id, depotId, name }) => [`bay ${id}`, `${depotNames.get(depotId) ?? ''} ${name}`] as const),
    ...ofPeople.map(({ id, name }) => [`person ${id}`, name] as const),
    ...ofVehicles.map(({ id, unitNumber, name }) => [`vehicle ${id}`, `unit ${unitNumber} ${name}`] as const),
  ]);
}

/** By whose clock its calendar is read. */
async function zoneOf(tx: Tx, fleetId: FleetId, what: AbsenceOf, id: string): Promise<string> {
  const all = await tx.select().from(depots).where(eq(depots.fleetId, fleetId)).orderBy(asc(depots.name));
  const zoneAt = (depotId: string | undefined): string | undefined =>
    all.find((depot) => depot.id === depotId)?.timeZone;
  const usual = all[0]?.timeZone ?? 'Etc/UTC';
  if (what === 'depot') return zoneAt(id) ?? usual;
  if (what === 'person') return usual;
  const table = what === 'bay' ? bays : vehicles;
  const [row] = await tx.select({ depotId: table.depotId }).from(table).where(eq(table.id, id));
  return zoneAt(row?.depotId) ?? usual;
}

/** Absences of the fleet with whose they are, those that are not over yet. */
export const listAbsences = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const names = await namesOf(deps.db, actor.fleetId);
    const today = deps.today();
    const rows = await deps.db
      .select()
      .from(absences)
      .where(eq(absences.fleetId, actor.fleetId))
      .orderBy(asc(absences.fromDay), asc(absences.id));
    return ok(
      rows
        .filter(({ rule, toDay }) => rule !== null || toDay >= today)
        .map((row) => ({ ...row, name: names.get(`${row.of} ${row.ofId}`) ?? 'gone' })),
    );
  },
});
export type AbsenceView = Extract<Awaited<ReturnType<typeof listAbsences>>, { ok: true }>['value'][number];

import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { z } from 'zod';
import { reportForm } from '@/contracts/forms/misfire';
import { asSaid } from '@/contracts/misfire';
import { type Said, storyOf } from '@/core/misfire/case-entry';
import { isSameCase } from '@/core/misfire/case-state';
import { type DrivingAdvice, drivingOf } from '@/core/misfire/driving';
import type { PersonId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Tx } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { type Author, writeAudit } from '@/db/queries/audit';
import { type CaseRow, lastCaseOf, loadCaseEntries, lockCase, nextCaseNumber } from '@/db/queries/misfire';
import { dueInputs, misfireCases, vehicles } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { fail, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { appendEntries, auditSaid, entriesOf, typedCodes, updatePointsTo } from './keep-entries';
import { reopen } from './reopen-case';

export type Report = z.output<typeof reportForm.schema>;

export interface Reported {
  readonly caseId: string;
  readonly number: number;
  /** The vehicle had a case that was not over, or only just: this one goes on with it. */
  readonly goesOn: boolean;
  /** Whether it may be driven on, by all that the case says. */
  readonly driving: DrivingAdvice;
}

/** Opens a case for a vehicle that misfires, with what its driver says, or goes on with the one that it has. */
export const reportMisfire = useCase({
  permission: 'report misfires',
  input: reportForm.schema,
  run: (deps, actor, input) => report(deps, actor, actor.personId, input),
});

/** @param saidBy null: somebody without an account, by the address for drivers */
export async function report(
  deps: Deps,
  actor: Actor,
  saidBy: PersonId | null,
  input: Report,
): Promise<Outcome<Reported>> {
  const entries = saidOf(input).map((statement) => ({
    id: randomUUID(),
    at: deps.now(),
    said: statement,
    saidBy,
    ...(input.driver ? { driver: input.driver } : {}),
  }));
  const author = { fleetId: actor.fleetId, personId: saidBy };
  return deps.db
    .transaction(async (tx): Promise<Outcome<Reported>> => {
      const [vehicle] = await tx
        .select()
        .from(vehicles)
        .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.unitNumber, input.unitNumber)));
      if (!vehicle) {
        const message = `There is no unit ${input.unitNumber} in this fleet. Look at the number on the vehicle.`;
        return fail('invalid', message, { unitNumber: message });
      }
      const { misfire, goesOn } = await caseFor(deps, tx, author, vehicle);
      await auditSaid(tx, author, misfire.id, await appendEntries(tx, misfire, entries));
      await updatePointsTo(deps, tx, actor, misfire);
      const driving = drivingOf(storyOf(entriesOf(await loadCaseEntries(tx, misfire.id))));
      return ok({ caseId: misfire.id, number: misfire.number, goesOn, driving });
    })
    .catch((error: unknown) => {
      // Somebody else opened one for the same vehicle a moment before.
      if (violation(error)?.constraint === 'misfire_cases_one_a_vehicle') return report(deps, actor, saidBy, input);
      throw error;
    });
}

function saidOf({ complaint: told, codes }: Report): readonly Said[] {
  return [asSaid({ kind: 'complaint', ...told }), ...(codes === '' ? [] : [typedCodes(codes)])];
}

type Vehicle = typeof vehicles.$inferSelect;

/** The case to go on with, locked, or a new one. */
async function caseFor(
  deps: Deps,
  tx: Tx,
  author: Author,
  { id: vehicleId }: Vehicle,
): Promise<{ readonly misfire: CaseRow; readonly goesOn: boolean }> {
  const [status] = await tx.select().from(dueInputs).where(eq(dueInputs.vehicleId, vehicleId));
  const km = status?.odometerKm ?? null;
  const { fleetId } = author;
  const last = await lastCaseOf(tx, fleetId, vehicleId);
  const locked = last && (await lockCase(tx, fleetId, last.id));
  if (locked && (locked.state !== 'closed' || isSameCase(locked.endedKm, km))) {
    const comesBack = locked.state === 'watching' || locked.state === 'closed';
    return {
      misfire: comesBack ? await reopen(deps, tx, author, locked, 'It misfires again.') : locked,
      goesOn: true,
    };
  }
  const [misfire] = await tx
    .insert(misfireCases)
    .values({
      fleetId,
      number: await nextCaseNumber(tx, fleetId),
      vehicleId,
      openedOn: deps.today(),
      openedKm: km,
    })
    .returning();
  if (!misfire) throw new Error('the case was not written');
  await writeAudit(tx, author, {
    action: 'open',
    entity: 'misfire-case',
    entityId: misfire.id,
    changes: { number: misfire.number },
  });
  return { misfire, goesOn: false };
}

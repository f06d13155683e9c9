import { and, eq } from 'drizzle-orm';
import type { z } from 'zod';
import { resolveReadingsForm } from '@/contracts/forms/vehicles';
import { givenOf, historyOf, lifeKm, NOTHING_KNOWN, takeIn } from '@/core/odometer/intake';
import type { Km } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { readQuantity } from '@/core/units/read-quantity';
import { keptKm } from '@/core/units/round';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadMeters, loadReadings, type ReadingRow } from '@/db/queries/odometer';
import { odometerReadings, vehicles } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { refreshOdometers } from '../due/refresh-due';
import { type Outcome, Refused } from '../failure';
import { useCase } from '../use-case';

type ResolveInput = z.output<typeof resolveReadingsForm.schema>;
type Vehicle = typeof vehicles.$inferSelect;

/**
 * Resolves suspect readings, and withdraws or corrects accepted ones: the original stays with who resolved it and how; a
 * correction stands beside it. Others of the vehicle that were doubted only because of it are cleared in the same step.
 */
export const resolveReadings = useCase({
  permission: 'resolve odometer readings',
  input: resolveReadingsForm.schema,
  async run(deps, actor, input): Promise<Outcome<{ readonly resolved: number; readonly cleared: number }>> {
    return deps.db.transaction(async (tx) => {
      const touched = [...new Set(input.items.map((item) => item.vehicleId))].sort();
      let cleared = 0;
      for (const vehicleId of touched) {
        const [vehicle] = await tx
          .select()
          .from(vehicles)
          .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.id, vehicleId)))
          .for('update');
        const rows = await loadReadings(tx, actor.fleetId, vehicleId);
        for (const item of input.items.filter((i) => i.vehicleId === vehicleId)) {
          const row = rows.find((r) => r.readOn === item.readOn && r.odometerKm === item.odometerKm);
          if (!vehicle || !row)
            throw new Refused({ kind: 'not-found', message: 'There is no such reading in this fleet.' });
          mustBeOpen(input, vehicle, row);
          await resolveOne(deps, tx, actor, input, vehicle, row, rows);
        }
        if (vehicle) cleared += await clearOthers(deps, tx, actor, vehicle);
      }
      await refreshOdometers(tx, actor.fleetId, deps.today(), touched);
      return ok({ resolved: input.items.length, cleared });
    });
  },
});

/** A suspect reading is resolved; one that was accepted is withdrawn or corrected, and then somebody says why. */
function mustBeOpen({ how, reason }: ResolveInput, { unitNumber }: Vehicle, { state, readOn }: ReadingRow): void {
  if (state === 'suspect') return;
  const undo = state === 'accepted' && (how === 'reject' || how === 'correct');
  if (!undo)
    throw new Refused({
      kind: 'conflict',
      message: `The reading of unit ${unitNumber} on ${readOn} is resolved already.`,
    });
  const message = 'Say why: a reading that was accepted is withdrawn or corrected with a reason.';
  if (reason === '') throw new Refused({ kind: 'invalid', message, fields: { reason: message } });
}

/** The one reading of that vehicle, day and figure. */
const thisReading = ({ vehicleId, readOn, odometerKm }: ReadingRow) =>
  and(
    eq(odometerReadings.vehicleId, vehicleId),
    eq(odometerReadings.readOn, readOn),
    eq(odometerReadings.odometerKm, odometerKm),
  );

async function resolveOne(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  input: ResolveInput,
  vehicle: Vehicle,
  row: ReadingRow,
  rows: readonly ReadingRow[],
): Promise<void> {
  const stamp = { resolvedBy: actor.personId, resolvedAt: deps.now(), resolvedReason: input.reason || null };
  const replace = async (odometerKm: Km, resolved: 'corrected' | 'meter_replaced'): Promise<void> => {
    await tx
      .update(odometerReadings)
      .set({ state: 'rejected', resolved, ...stamp })
      .where(thisReading(row));
    const { resolved: _, resolvedBy: __, resolvedAt: ___, resolvedReason: ____, ...rest } = row;
    await tx
      .insert(odometerReadings)
      .values({
        ...rest,
        odometerKm,
        state: 'accepted',
        doubt: null,
        suggestedKm: null,
        correctsKm: row.odometerKm,
        createdAt: deps.now(),
      })
      .onConflictDoNothing();
  };
  let outcome: number | null = null;
  if (input.how === 'accept')
    await tx
      .update(odometerReadings)
      .set({ state: 'accepted', resolved: 'accepted', ...stamp })
      .where(thisReading(row));
  else if (input.how === 'reject')
    await tx
      .update(odometerReadings)
      .set({ state: 'rejected', resolved: 'rejected', ...stamp })
      .where(thisReading(row));
  else if (input.how === 'correct') {
    outcome = correctedKm(input, vehicle, row);
    await replace(outcome, 'corrected');
  } else {
    const last = historyOf(rows.filter((r) => r.state === 'accepted' && r.readOn <= row.readOn)).at(-1)?.km ?? 0;
    outcome = Math.max(last, row.odometerKm);
    await tx
      .update(vehicles)
      .set({
        meterOffsetKm: keptKm(vehicle.meterOffsetKm + outcome - row.odometerKm),
        meterReplacedOn: row.readOn,
        version: vehicle.version + 1,
      })
      .where(eq(vehicles.id, vehicle.id));
    await replace(outcome, 'meter_replaced');
  }
  await writeAudit(tx, actor, {
    action: input.how,
    entity: 'odometer',
    entityId: vehicle.id,
    changes: { on: row.readOn, asTyped: row.asTyped, doubt: row.doubt, to: outcome, reason: input.reason },
  });
}

function correctedKm(input: ResolveInput, vehicle: Vehicle, row: ReadingRow): number {
  if (input.corrected === '') {
    if (row.suggestedKm !== null) return row.suggestedKm;
    const message = 'There is no suggestion for this reading: give the figure.';
    throw new Refused({ kind: 'invalid', message, fields: { corrected: message } });
  }
  const read = readQuantity({ kind: 'distance', text: input.corrected, personUnit: vehicle.odometerUnit });
  if (read.verdict === 'ok') return lifeKm(read.valueSi, row.readOn, vehicle);
  throw new Refused({ kind: 'invalid', message: read.message, fields: { corrected: read.message } });
}

/** Readings that follow now that another has been resolved count as accepted. */
async function clearOthers(deps: Deps, tx: Tx, actor: Actor, vehicle: Vehicle): Promise<number> {
  const rows = await loadReadings(tx, actor.fleetId, vehicle.id);
  const about = (await loadMeters(tx, actor.fleetId, [vehicle.id])).get(vehicle.id);
  const suspects = rows.filter((row) => row.state === 'suspect');
  const accepted = historyOf(rows.filter((row) => row.state === 'accepted'));
  const again = takeIn({ ...NOTHING_KNOWN, ...about, accepted }, suspects.map(givenOf));
  const clear = suspects.filter((_, i) => again[i]?.kind !== 'suspect');
  for (const row of clear)
    await tx
      .update(odometerReadings)
      .set({ state: 'accepted', resolved: 'cleared', resolvedBy: actor.personId, resolvedAt: deps.now() })
      .where(thisReading(row));
  return clear.length;
}

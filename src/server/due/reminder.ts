import { and, eq } from 'drizzle-orm';
import { reminderForm, takeBackReminderForm } from '@/contracts/forms/due';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { vehicles } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { recordReadings } from '../odometer/record-readings';
import { useCase } from '../use-case';
import { refreshDue } from './refresh-due';

/** The vehicle's own service reminder came on: a reading, and from that day on the plugs are asked for. */
export const recordReminder = useCase({
  permission: 'record odometer readings',
  input: reminderForm.schema,
  async run(deps, actor, { vehicleId, on, odometer }): Promise<Outcome<{ readonly message: string }>> {
    return deps.db.transaction(async (tx): Promise<Outcome<{ readonly message: string }>> => {
      const isVehicle = and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.id, vehicleId));
      const [vehicle] = await tx.select({ unitNumber: vehicles.unitNumber }).from(vehicles).where(isVehicle);
      if (!vehicle) return notFound('vehicle');
      if (on > deps.today()) return fail('invalid', 'That day is still to come.', { on: 'That day is still to come.' });
      const reading = { unitNumber: vehicle.unitNumber, on, text: odometer, source: 'own reminder' };
      const read = await recordReadings({ ...deps, db: tx }, actor, { readings: [reading] });
      if (!read.ok) return read;
      const [kept] = read.value;
      if (!kept || kept.state === 'refused') {
        const message = kept?.message ?? 'Give what the dash shows.';
        return fail('invalid', message, { odometer: message });
      }
      await tx.update(vehicles).set({ reminderOn: on }).where(isVehicle);
      await refreshDue(tx, actor.fleetId, deps.today(), [vehicleId]);
      await writeAudit(tx, actor, {
        action: 'reminder',
        entity: 'vehicle',
        entityId: vehicleId,
        changes: { on, odometer },
      });
      return ok({ message: kept.message });
    });
  },
});

/** It went out, or was never meant: the dates stand as they were. */
export const takeBackReminder = useCase({
  permission: 'record odometer readings',
  input: takeBackReminderForm.schema,
  async run(deps, actor, { vehicleId, reason }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx): Promise<Outcome<null>> => {
      const changed = await tx
        .update(vehicles)
        .set({ reminderOn: null })
        .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.id, vehicleId)))
        .returning({ id: vehicles.id });
      if (changed.length === 0) return notFound('vehicle');
      await refreshDue(tx, actor.fleetId, deps.today(), [vehicleId]);
      await writeAudit(tx, actor, {
        action: 'reminder',
        entity: 'vehicle',
        entityId: vehicleId,
        changes: { on: null, reason },
      });
      return ok(null);
    });
  },
});

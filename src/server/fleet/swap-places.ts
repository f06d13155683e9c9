import { eq } from 'drizzle-orm';
import type { PlainDate } from '@/core/calendar/plain-date';
import { insertStays, swapped } from '@/core/components/history';
import type { Component } from '@/core/engine/quantities';
import type { FleetId, VehicleId } from '@/core/shared/kinds';
import type { Tx } from '@/db/client';
import { lockFitted, type NewStay, newStay, saveHistory } from '@/db/commands/component-history';
import { dueInputs } from '@/db/schema';
import { refreshDue } from '../due/refresh-due';

interface Swap {
  readonly vehicleId: VehicleId;
  readonly component: Component;
  readonly cylinders: readonly [number, number];
}

/**
 * Two parts of one kind change places on record, today: each keeps its tag, its number and its age.
 *
 * @returns the tags, in the order of the cylinders; null: one of them has none on record, so nothing is changed
 */
export async function swapPlaces(
  tx: Tx,
  fleetId: FleetId,
  today: PlainDate,
  { vehicleId, component, cylinders }: Swap,
): Promise<readonly [string, string] | null> {
  const parts = await lockFitted(tx, fleetId, vehicleId, component);
  const [a, b] = cylinders.map((cylinder) => parts.find((row) => row.cylinder === cylinder));
  const [status] = await tx.select().from(dueInputs).where(eq(dueInputs.vehicleId, vehicleId));
  const km = status?.odometerKm ?? Math.max(a?.installedKm ?? 0, b?.installedKm ?? 0);
  const moved = a && b ? swapped(a, b, today, km) : null;
  if (!a?.tag || !b?.tag || !moved) return null;
  const fresh = moved.map(({ id: _, createdAt: __, ...row }) =>
    newStay({ ...row, installedOnCertainty: 'exact', installedKmCertainty: 'estimated' }),
  );
  await saveHistory(tx, insertStays<NewStay>([a, b], fresh, 'swap'));
  await refreshDue(tx, fleetId, today, [vehicleId]);
  return [a.tag, b.tag];
}

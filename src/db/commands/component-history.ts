import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { type HistoryChange, placeKey } from '@/core/components/history';
import type { Component } from '@/core/engine/quantities';
import type { FleetId, VehicleId, WorkOrderId } from '@/core/shared/kinds';
import type { Tx } from '../client';
import { fittedComponents } from '../schema';

type FittedRow = typeof fittedComponents.$inferSelect;
type Insert = typeof fittedComponents.$inferInsert;

/** A part in its place as it is written: a row of the table, without what the database gives it. */
export type NewStay = Omit<FittedRow, 'id' | 'createdAt'>;

/** A stay with nothing known of it but where, when and how sure. */
export const newStay = (
  known: Pick<
    NewStay,
    'fleetId' | 'vehicleId' | 'component' | 'cylinder' | 'position' | 'installedOn' | 'installedKm'
  > &
    Partial<NewStay>,
): NewStay => ({
  tag: null,
  partId: null,
  observedNumber: null,
  believedNumber: null,
  history: 'proven',
  installedOnCertainty: 'exact',
  installedOnAsTyped: null,
  installedKmCertainty: 'exact',
  installedKmAsTyped: null,
  gapMm: null,
  gapAsTyped: null,
  lot: null,
  compound: null,
  compoundBatch: null,
  specSheetId: null,
  workOrderId: null,
  removedOn: null,
  removedKm: null,
  removedKmCertainty: null,
  removalReason: null,
  removedByWorkOrderId: null,
  checkedOn: null,
  checkedKm: null,
  goodForKm: null,
  checkedFrom: null,
  checkedByWorkOrderId: null,
  ...known,
});

/** What sits in a vehicle now, of one component, for nobody else to change until the end. */
export const lockFitted = (
  tx: Tx,
  fleetId: FleetId,
  vehicleId: VehicleId,
  component: Component,
): Promise<readonly FittedRow[]> =>
  tx
    .select()
    .from(fittedComponents)
    .where(
      and(
        eq(fittedComponents.fleetId, fleetId),
        eq(fittedComponents.vehicleId, vehicleId),
        eq(fittedComponents.component, component),
        isNull(fittedComponents.removedOn),
      ),
    )
    .orderBy(fittedComponents.id)
    .for('update');

/** Every stay on record of some vehicles, and of some tags wherever they are: a coil may come from another vehicle. */
export const loadStays = (
  tx: Tx,
  fleetId: FleetId,
  vehicleIds: readonly string[],
  tags: readonly string[],
): Promise<readonly FittedRow[]> =>
  tx
    .select()
    .from(fittedComponents)
    .where(
      and(
        eq(fittedComponents.fleetId, fleetId),
        or(
          sql`${fittedComponents.vehicleId} = any(${sql.param(vehicleIds)}::uuid[])`,
          sql`${fittedComponents.tag} = any(${sql.param(tags)}::text[])`,
        ),
      ),
    );

const CHUNK = 1000;

/** What was read off a part as it came out. */
interface ReadOff {
  readonly observedNumber: string | null;
  readonly tag: string | null;
}

/**
 * Writes what a history became: the ends first, so that no place holds two parts at any moment.
 *
 * @param order the work order that took the parts out
 * @param seen what was read off each part as it came out, by its place
 */
export async function saveHistory(
  tx: Tx,
  { ends, starts }: HistoryChange<NewStay & { readonly id?: string }>,
  { order = null, seen }: { readonly order?: string | null; readonly seen?: ReadonlyMap<string, ReadOff> } = {},
): Promise<void> {
  for (const { stay, removedOn, removedKm, removedKmCertainty, removalReason } of ends) {
    if (stay.id === undefined) continue;
    const read = seen?.get(placeKey(stay));
    await tx
      .update(fittedComponents)
      .set({
        removedOn,
        removedKm,
        removedKmCertainty,
        removalReason,
        removedByWorkOrderId: order,
        ...(read ? { observedNumber: read.observedNumber } : {}),
        ...(read?.tag && stay.tag === null ? { tag: read.tag } : {}),
      })
      .where(eq(fittedComponents.id, stay.id));
  }
  const rows: readonly Insert[] = starts;
  for (let at = 0; at < rows.length; at += CHUNK) await tx.insert(fittedComponents).values(rows.slice(at, at + CHUNK));
}

/**
 * Takes back what a work order did to the history: its parts were never in, and what it took out still sits there.
 *
 * @returns false, and nothing is written, where a part that it fitted has been taken out since
 */
export async function undoOrder(tx: Tx, fleetId: FleetId, workOrderId: WorkOrderId): Promise<boolean> {
  const ofOrder = and(eq(fittedComponents.fleetId, fleetId), eq(fittedComponents.workOrderId, workOrderId));
  const fitted = await tx.select().from(fittedComponents).where(ofOrder).for('update');
  if (fitted.some(({ removedOn }) => removedOn !== null)) return false;
  await tx.delete(fittedComponents).where(
    inArray(
      fittedComponents.id,
      fitted.map(({ id }) => id),
    ),
  );
  await tx
    .update(fittedComponents)
    .set({
      removedOn: null,
      removedKm: null,
      removedKmCertainty: null,
      removalReason: null,
      removedByWorkOrderId: null,
      observedNumber: null,
    })
    .where(and(eq(fittedComponents.fleetId, fleetId), eq(fittedComponents.removedByWorkOrderId, workOrderId)));
  await tx
    .update(fittedComponents)
    .set({ checkedOn: null, checkedKm: null, goodForKm: null, checkedFrom: null, checkedByWorkOrderId: null })
    .where(and(eq(fittedComponents.fleetId, fleetId), eq(fittedComponents.checkedByWorkOrderId, workOrderId)));
  return true;
}

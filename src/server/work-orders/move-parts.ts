import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { partKey } from '@/core/catalogue/match';
import { insertStays, placeKey, type RemovalReason } from '@/core/components/history';
import type { Certainty } from '@/core/due/due';
import { allPlaces, placeId } from '@/core/engine/places';
import type { Day, Km } from '@/core/shared/kinds';
import { sayGap } from '@/core/units/say';
import { removalReasonOf } from '@/core/work/task';
import type { Tx } from '@/db/client';
import { loadStays, type NewStay, newStay, saveHistory } from '@/db/commands/component-history';
import type { PlaceRow } from '@/db/queries/work-orders';
import { fittedComponents, parts } from '@/db/schema';
import { type FloorState, isNewAt, type TaskState, taskOf } from './order-state';
import { targetOf } from './place-record';

/** When an order closes: the reading, the day, and why the parts came out where nobody said it at their place. */
interface Closing {
  readonly odometerKm: Km;
  /** Of that reading. */
  readonly certainty: Certainty;
  readonly today: Day;
  /** Of the plugs, as it was said at the close; null: as their task says. */
  readonly plugReason: RemovalReason | null;
}

/**
 * What closing an order does to the history of its vehicle, place by place: the old part out for its reason and the new one in
 * where one was fitted, and a mark on what was looked at and found good. What was left or went to another visit stays as it is.
 */
export async function moveParts(tx: Tx, state: FloorState, closing: Closing): Promise<void> {
  const done = state.places.filter(({ doneAt, movedToId }) => doneAt !== null && movedToId === null);
  const isNew = (place: PlaceRow): boolean => isNewAt(state, place);
  await fitNew(tx, state, done.filter(isNew), closing);
  await markGood(
    tx,
    state,
    done.filter((place) => !isNew(place) && place.result === 'good'),
    closing,
  );
}

/** Takes out what the record had in each place, with what was read off it, and puts the new part in. */
async function fitNew(tx: Tx, state: FloorState, places: readonly PlaceRow[], closing: Closing): Promise<void> {
  if (places.length === 0) return;
  const { order } = state;
  const { fleetId, vehicleId } = order;
  const partIds = await partIdsOf(tx, state, places);
  const reasons = new Map(
    places.map((place) => [placeKey({ ...place, vehicleId }), reasonOf(taskOf(state, place), place, closing)]),
  );
  const fresh = places.map((place) =>
    newStay({
      fleetId,
      vehicleId,
      component: place.component,
      cylinder: place.cylinder,
      position: place.position,
      tag: place.tagIn,
      partId: partIds(place),
      observedNumber: place.newNumber,
      installedOn: closing.today,
      installedKm: closing.odometerKm,
      installedKmCertainty: closing.certainty,
      gapMm: place.newGapMm,
      gapAsTyped: place.newGapAsTyped,
      lot: place.newLot,
      compound: place.compound,
      compoundBatch: place.compoundBatch,
      specSheetId: place.specSheetId,
      workOrderId: order.id,
    }),
  );
  const components = new Set(places.map(({ component }) => component as string));
  const before: readonly NewStay[] = (
    await loadStays(
      tx,
      fleetId,
      [vehicleId],
      fresh.flatMap(({ tag }) => tag ?? []),
    )
  ).filter(({ component }) => components.has(component));
  const seen = new Map(
    places.map((place) => [
      placeKey({ ...place, vehicleId }),
      { observedNumber: place.observedNumber, tag: place.tagOut },
    ]),
  );
  const change = insertStays(before, fresh, (taker) => reasons.get(placeKey(taker)) ?? 'unknown');
  await saveHistory(tx, change, { order: order.id, seen });
}

function reasonOf(task: TaskState | undefined, place: PlaceRow, { plugReason }: Closing): RemovalReason {
  if (place.removalReason) return place.removalReason;
  if (place.component === 'plug' && plugReason) return plugReason;
  return task ? removalReasonOf(task.row.action, task.row.why) : 'unknown';
}

/** The part that went in, by the number that was read off it; the sheet's, where the catalogue does not know that. */
async function partIdsOf(tx: Tx, state: FloorState, places: readonly PlaceRow[]) {
  const keys = [...new Set(places.flatMap(({ newNumber }) => (newNumber ? partKey(newNumber) : [])))];
  const rows =
    keys.length === 0
      ? []
      : await tx
          .select({ id: parts.id, key: parts.numberKey })
          .from(parts)
          .where(and(eq(parts.fleetId, state.order.fleetId), inArray(parts.numberKey, keys)));
  const known = new Map(rows.map(({ id, key }) => [key, id]));
  return (place: PlaceRow) => known.get(partKey(place.newNumber ?? '')) ?? taskOf(state, place)?.sheet?.partId ?? null;
}

/** What a look or a test found good is counted from that day on, as far as a distance was said. */
async function markGood(tx: Tx, state: FloorState, places: readonly PlaceRow[], closing: Closing): Promise<void> {
  for (const component of new Set(places.map((place) => place.component))) {
    const [first, ...others] = places.filter((place) => place.component === component);
    if (!first) continue;
    const looked = [first, ...others] as const;
    const goodFor = looked.flatMap(({ goodForKm }) => goodForKm ?? []);
    if (goodFor.length === 0) continue;
    const check = {
      checkedOn: closing.today,
      checkedKm: closing.odometerKm,
      goodForKm: Math.min(...goodFor),
      checkedFrom: checkedFrom(looked),
      checkedByWorkOrderId: state.order.id,
    };
    await tx
      .update(fittedComponents)
      .set({ ...check, history: 'probable' })
      .where(
        and(
          eq(fittedComponents.vehicleId, state.order.vehicleId),
          eq(fittedComponents.component, component),
          isNull(fittedComponents.removedOn),
          // What went in on this very visit is new, and what was fitted on a known day is known better than by its neighbour.
          sql`${fittedComponents.workOrderId} is distinct from ${state.order.id}`,
          or(
            eq(fittedComponents.installedKmCertainty, 'assumed'),
            inArray(
              fittedComponents.id,
              looked.flatMap((place) => state.outgoing.get(targetOf(place))?.fitted.id ?? []),
            ),
          ),
        ),
      );
    await markUnrecorded(tx, state, looked, check);
  }
}

/**
 * Where nothing was on record, what is there is put on record: in since the vehicle was new, as far as anyone knows. The sample
 * that was looked at speaks for the others of its kind, which are as old as it, except what went in today.
 */
async function markUnrecorded(
  tx: Tx,
  state: FloorState,
  looked: readonly [PlaceRow, ...PlaceRow[]],
  check: Partial<NewStay>,
): Promise<void> {
  const { order, vehicle, outgoing, layout, places } = state;
  const [{ component }] = looked;
  const known = new Set([...outgoing.values()].map(({ fitted }) => placeKey(fitted)));
  const row = new Map(places.filter((place) => place.component === component).map((place) => [placeId(place), place]));
  const isNew = (place: PlaceRow | undefined): boolean => place?.doneAt != null && isNewAt(state, place);
  const fresh = allPlaces(layout, component)
    .map((place) => ({ place, at: row.get(placeId(place)) }))
    .filter(({ place, at }) => !known.has(placeKey({ ...place, component, vehicleId: order.vehicleId })) && !isNew(at))
    .map(({ place, at }) =>
      newStay({
        fleetId: order.fleetId,
        vehicleId: order.vehicleId,
        component,
        cylinder: place.cylinder,
        position: place.position,
        tag: at?.tagOut ?? null,
        observedNumber: at?.observedNumber ?? null,
        believedNumber: at?.believedNumber ?? null,
        history: 'probable',
        installedOn: vehicle.inServiceOn,
        installedOnCertainty: 'assumed',
        installedKm: 0,
        installedKmCertainty: 'assumed',
        ...check,
      }),
    );
  if (fresh.length > 0) await tx.insert(fittedComponents).values(fresh);
}

/** From what it was told: "gap 1.12 mm (0.044 in), 1 of 4 looked at". */
function checkedFrom(looked: readonly PlaceRow[]): string {
  const gaps = looked.flatMap(({ removedGapMm }) => removedGapMm ?? []);
  const widest = gaps.length > 0 ? `widest gap ${sayGap(Math.max(...gaps))}` : 'looked at';
  return `${widest}, ${looked.length} looked at`;
}

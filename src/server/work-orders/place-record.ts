import type { Layout } from '@/core/engine/layout';
import { placeId } from '@/core/engine/places';
import type { Fields, Json } from '@/core/work/entry';
import type { PlaceModel } from '@/core/work/order-model';
import { hasField, type PlaceField, type PlaceQuantity } from '@/core/work/place-fields';
import { placeName } from '@/core/work/say-places';
import { placeTarget } from '@/core/work/targets';
import { placeState } from '@/core/work/task';
import type { PlaceRow } from '@/db/queries/work-orders';

/* One place of a task between its row and what devices and rules speak of. */

/** How entries name a place. */
export const targetOf = (place: Pick<PlaceRow, 'component' | 'cylinder' | 'position'>): string =>
  placeTarget(place.component, placeId(place));

/** What became of a place so far. */
export const stateOfPlace = ({ movedToId, doneAt, leftWhy }: Pick<PlaceRow, 'movedToId' | 'doneAt' | 'leftWhy'>) =>
  placeState({ moved: movedToId !== null, done: doneAt !== null, left: leftWhy !== null });

const orEmpty = (text: string | null): string => text ?? '';

/** What was seen at a place, word by word, with how clear it was. */
export const seenAt = ({ conditions, severities }: Pick<PlaceRow, 'conditions' | 'severities'>) =>
  Object.fromEntries((conditions ?? []).map((word) => [word, severities[word] ?? 2]));

/** One place's row as the fields that devices speak of: those that its component has. */
export function placeFields(place: PlaceRow): Fields {
  const all = {
    observedNumber: orEmpty(place.observedNumber),
    believedNumber: orEmpty(place.believedNumber),
    tagOut: orEmpty(place.tagOut),
    removedGap: orEmpty(place.removedGapAsTyped),
    seen: seenAt(place),
    grade: place.grade,
    wrench: orEmpty(place.wrench),
    adapter: orEmpty(place.adapter),
    hole: place.hole,
    dropped: place.dropped,
    pieces: place.pieces,
    start: place.start,
    breakawayFeel: place.breakawayFeel,
    breakawayTorque: orEmpty(place.breakawayTorqueAsTyped),
    primaryOhm: orEmpty(place.primaryOhmAsTyped),
    secondaryOhm: orEmpty(place.secondaryOhmAsTyped),
    ohm: orEmpty(place.ohmAsTyped),
    result: place.result,
    goodFor: orEmpty(place.goodForAsTyped),
    removalReason: place.removalReason,
    newNumber: orEmpty(place.newNumber),
    tagIn: orEmpty(place.tagIn),
    newGap: orEmpty(place.newGapAsTyped),
    bentFrom: orEmpty(place.bentFrom),
    newLot: orEmpty(place.newLot),
    leadsOn: orEmpty(place.leadsOn),
    compound: place.compound,
    compoundBatch: orEmpty(place.compoundBatch),
    torqueMethod: place.torqueMethod,
    wrenchSetting: orEmpty(place.wrenchSettingAsTyped),
    installedTorque: orEmpty(place.installedTorqueAsTyped),
    curve: place.curve,
    soakedAt: place.soakedAt?.toISOString() ?? null,
    leftWhy: orEmpty(place.leftWhy),
    remark: orEmpty(place.remark),
    done: place.doneAt !== null,
  } satisfies Readonly<Record<PlaceField, Json>>;
  return Object.fromEntries(Object.entries(all).filter(([name]) => hasField(place.component, name)));
}

/** The quantities of a place as they were read when they were typed. */
function measuredAt(place: PlaceRow): PlaceModel['measured'] {
  const figure = (text: string | null, si: number | null) => (text === null || si === null ? undefined : { text, si });
  return {
    removedGap: figure(place.removedGapAsTyped, place.removedGapMm),
    breakawayTorque: figure(place.breakawayTorqueAsTyped, place.breakawayTorqueNm),
    primaryOhm: figure(place.primaryOhmAsTyped, place.primaryOhm),
    secondaryOhm: figure(place.secondaryOhmAsTyped, place.secondaryOhm),
    ohm: figure(place.ohmAsTyped, place.ohm),
    goodFor: figure(place.goodForAsTyped, place.goodForKm),
    newGap: figure(place.newGapAsTyped, place.newGapMm),
    wrenchSetting: figure(place.wrenchSettingAsTyped, place.wrenchSettingNm),
    installedTorque: figure(place.installedTorqueAsTyped, place.installedTorqueNm),
  } satisfies Record<PlaceQuantity, unknown>;
}

/** One place as the rules see it. */
export const placeModelOf = (layout: Layout, place: PlaceRow): PlaceModel => ({
  target: targetOf(place),
  id: placeId(place),
  component: place.component,
  task: place.taskId,
  name: placeName(layout, place.component, place),
  moved: place.movedToId !== null,
  measured: measuredAt(place),
});

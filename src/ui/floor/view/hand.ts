import type { ReactNode } from 'react';
import type { Nm } from '@/core/shared/kinds';
import { readAdapterMm, wrenchesFor } from '@/core/torque/at-vehicle';
import type { CurveJob } from '@/core/torque/curve';
import { personUnits } from '@/core/units/person-units';
import { roundTo } from '@/core/units/round';
import { fromSi } from '@/core/units/unit';
import { type Fields, type Json, sameJson } from '@/core/work/entry';
import type { FloorJob, FloorPlace, FloorPlug, FloorTask } from '@/core/work/job-record';
import type { PlugRules } from '@/core/work/place-done';
import { type PlaceField, type PlaceQuantity, placeRecord, type Seen } from '@/core/work/place-fields';

/* What the parts of the panel of one place share: its fields by name, and when a part looks as before. */

export const text = (fields: Fields, name: string): string => String(fields[name] ?? '');
export const seenOf = (fields: Fields): Seen => placeRecord(fields).seen;

/** The place in hand, as a part of its panel is given it. */
export interface Hand {
  readonly job: FloorJob;
  readonly place: FloorPlace;
  readonly task: FloorTask;
  /** What the part shows of the place, and nothing else: by these it is known whether it looks as before. */
  readonly fields: Fields;
  readonly put: (field: PlaceField, value: Json) => void;
  /** The field that the number pad types into; null: none yet. */
  readonly active: PlaceQuantity | null;
  readonly activate: (field: PlaceQuantity) => void;
  /** A quantity in SI units; null: not there, or it cannot be read. */
  readonly quantity: (name: PlaceQuantity) => number | null;
  /** The number pad, where there is no room for it beside the fields. */
  readonly pad: ReactNode;
}

/** The fields that each part of the panel shows. */
export const SHOWN = {
  out: [
    ...['observedNumber', 'tagOut', 'removedGap', 'seen', 'grade', 'breakawayFeel', 'hole', 'pieces'],
    ...['primaryOhm', 'secondaryOhm', 'ohm'],
  ],
  in: ['newNumber', 'tagIn', 'newLot', 'newGap', 'bentFrom', 'compound', 'dropped', 'leadsOn'],
  tight: ['torqueMethod', 'installedTorque', 'curve', 'wrench', 'adapter'],
  more: [...['newLot', 'compound', 'compoundBatch', 'believedNumber', 'breakawayTorque', 'wrenchSetting'], 'adapter'],
} as const;

/** The plug of the job where the place is one of its plugs; null: another part. */
export const plugAt = ({ plug }: FloorJob, { component }: FloorPlace): FloorPlug | null =>
  component === 'plug' ? plug : null;

/** What the part is tightened to, N·m: a plug as its sheet says, else the screw of the part. */
export const targetNmOf = (plug: FloorPlug | null, { targetNm }: FloorTask, range: { readonly min: Nm }): Nm =>
  plug?.targetNm ?? targetNm ?? range.min;

/** The shop's wrenches for a torque, and the name of the chosen or else proposed one; empty where none suits. */
export function wrenchInHand({ wrenches, today }: FloorJob, fields: Fields, range: PlugRules['torqueNm']) {
  const checked = wrenchesFor(wrenches, range, readAdapterMm(text(fields, 'adapter')), today);
  const [best] = checked;
  return { checked, name: text(fields, 'wrench') || (best?.ok ? best.wrench.name : '') };
}

export const only = (fields: Fields, names: readonly string[]): Fields =>
  Object.fromEntries(names.map((name) => [name, fields[name] ?? null]));

type Drawn = Hand & { readonly last?: Seen | null; readonly bare?: number; readonly more?: boolean };

/**
 * Whether a part of the panel looks as before. Its functions are made anew each time and mean the same as long as
 * the place is the same; what they read of other parts they read from the record.
 */
export const looksAlike = (before: Drawn, after: Drawn): boolean =>
  before.place.target === after.place.target &&
  before.active === after.active &&
  before.more === after.more &&
  before.bare === after.bare &&
  (before.pad === null) === (after.pad === null) &&
  sameJson(before.fields, after.fields) &&
  sameJson(before.last ?? null, after.last ?? null) &&
  before.task.rules === after.task.rules;

/** A torque as the wrench for it is set: a small screw in pound-inches where the person works in pounds. */
export function settingText(nm: Nm, { component }: Pick<FloorPlace, 'component'>, { units }: Pick<FloorJob, 'units'>) {
  const unit = component !== 'plug' && units === 'us' ? 'lbf·in' : personUnits(units).torque;
  return `${roundTo(fromSi(nm, unit), unit === 'lbf·in' ? 0 : 1)} ${unit}`;
}

export const curveJob = ({ seat, rules }: FloorPlug): CurveJob => ({
  direction: 'in',
  seating: seat === 'gasket' ? 'new_gasket' : 'conical',
  targetNm: rules.torqueNm,
  runInDeg: null,
});

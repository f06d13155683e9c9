import type { ReactNode } from 'react';
import type { Nm } from '@/core/shared/kinds';
import type { CurveJob } from '@/core/torque/curve';
import { personUnits } from '@/core/units/person-units';
import { roundTo } from '@/core/units/round';
import { fromSi } from '@/core/units/unit';
import { type Fields, type Json, sameJson } from '@/core/work/entry';
import type { FloorJob, FloorPlace, FloorPlug } from '@/core/work/job-record';
import { type PlaceQuantity, placeRecord, type Seen } from '@/core/work/place-fields';

/* What the parts of one site share: its fields by name, and when a part looks as before. */

export const text = (fields: Fields, name: string): string => String(fields[name] ?? '');
export const seenOf = (fields: Fields): Seen => placeRecord(fields).seen;

/** The plug of one site with where it sits, in words. */
export type PlugSite = FloorPlace & { readonly where: string };

export interface Part {
  readonly site: PlugSite;
  readonly fields: Fields;
  readonly job: FloorJob;
  readonly plug: FloorPlug;
  readonly put: (field: string, value: Json) => void;
  readonly active: PlaceQuantity;
  readonly activate: (field: PlaceQuantity) => void;
  readonly quantity: (name: PlaceQuantity) => number | null;
  readonly pad: ReactNode;
}

export const OLD = ['observedNumber', 'removedGap', 'seen', 'breakawayFeel', 'hole', 'pieces'] as const;
export const NEW = ['newNumber', 'newGap', 'bentFrom', 'compound', 'dropped'] as const;
export const TIGHT = ['torqueMethod', 'installedTorque', 'curve', 'wrench', 'adapter'] as const;
export const MORE = [
  'newLot',
  'compound',
  'compoundBatch',
  'believedNumber',
  'breakawayTorque',
  'wrenchSetting',
  'adapter',
] as const;
export const only = (fields: Fields, names: readonly string[]): Fields =>
  Object.fromEntries(names.map((name) => [name, fields[name] ?? null]));

/**
 * Whether a part of the site looks as before. Its functions are made anew each time and mean the same as long as the site
 * is the same; what they read of other parts they read from the record.
 */
type Drawn = Part & { readonly last?: Seen | null; readonly bare?: number; readonly more?: boolean };
export const looksAlike = (before: Drawn, after: Drawn): boolean =>
  before.site.id === after.site.id &&
  before.active === after.active &&
  before.more === after.more &&
  before.bare === after.bare &&
  (before.pad === null) === (after.pad === null) &&
  sameJson(before.fields, after.fields) &&
  sameJson(before.last ?? null, after.last ?? null) &&
  before.plug.rules === after.plug.rules;

/** A torque in the person's unit, as a wrench is set. */
export const inUnit = (nm: Nm, job: Pick<FloorJob, 'units'>): string => {
  const unit = personUnits(job.units).torque;
  return `${roundTo(fromSi(nm, unit), 1)} ${unit}`;
};

export const curveJob = ({ seat, rules }: FloorPlug): CurveJob => ({
  direction: 'in',
  seating: seat === 'gasket' ? 'new_gasket' : 'conical',
  targetNm: rules.torqueNm,
  runInDeg: null,
});

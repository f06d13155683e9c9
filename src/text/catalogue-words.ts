import type { ReleaseBlocker } from '@/core/catalogue/match';
import type { OtherInForce } from '@/core/catalogue/others-in-force';
import type { Mixing } from '@/core/catalogue/supersession';
import type { AccessClass } from '@/core/engine/access';
import type { Ignition } from '@/core/engine/model';
import type { OtherWork } from '@/core/engine/other-work';
import type { Component } from '@/core/engine/quantities';
import type { PolicyScope } from '@/core/policy/policies';
import { groupBy } from '@/core/shared/group-by';
import type { UnitSystem } from '@/core/units/person-units';
import { dateText, distanceText } from './format';

export const COMPONENT_WORDS: Readonly<Record<Component, string>> = {
  plug: 'Spark plugs',
  coil: 'Coils',
  rail: 'Coil rail',
  boot: 'Boots',
  lead: 'Leads',
  lead_set: 'Lead set',
  cap: 'Distributor cap',
  rotor: 'Rotor',
  seal: 'Tube seals',
  consumable: 'Consumables',
};

export const IGNITION_WORDS: Readonly<Record<Ignition, string>> = {
  coil_on_plug: 'coil on plug',
  coil_per_cylinder: 'one coil a cylinder, with leads',
  coil_rail: 'coil rail',
  waste_spark: 'waste-spark pack, with leads',
  distributor: 'distributor, with leads',
};

export const ACCESS_WORDS: Readonly<Record<AccessClass, string>> = {
  open: 'open',
  cover: 'under a cover',
  side: 'from the side',
  by_feel: 'by feel',
  under_intake: 'under the intake manifold',
};

export const BLOCKER_WORDS: Readonly<Record<ReleaseBlocker, string>> = {
  unchecked: 'Checked by nobody but the one who entered it',
  expired: 'Expired',
  'makers-disagree': 'Another source of its rank says otherwise, and the two do not overlap: stop and ask',
  'boost-between':
    'The intake pressure of this vehicle lies between two known ones: the tighter gap is taken, and wants approval',
  'boost-unknown': 'Nobody states a gap for the intake pressure of this vehicle: ask the maker or whoever tuned it',
};

const OTHER_WORDS: Readonly<Record<OtherInForce['for'], string>> = {
  gap: 'gap',
  torque: 'torque',
  resistance: 'resistance',
  engineTemperature: 'engine temperature',
  lubricant: 'compound',
  regap: 'bending',
  method: 'how the old ones come out',
};
const RANGES: ReadonlySet<OtherInForce['for']> = new Set(['gap', 'torque', 'resistance']);

/** What other documents add to a sheet, a line a document: "Saxholm bulletin 24-1, newer, holds for compound". */
export function othersInForce(others: readonly OtherInForce[]): readonly string[] {
  const lines = groupBy(others, (other) => `${other.document}|${RANGES.has(other.for)}`);
  return [...lines.values()].map((list) => {
    const what = list.map((other) => OTHER_WORDS[other.for]).join(' and ');
    const { document, dated } = list[0] as OtherInForce;
    return list.some((other) => RANGES.has(other.for))
      ? `${document} holds too: worked where both agree on ${what}`
      : `${document}${dated ? ` of ${dateText(dated)}` : ''} is newer and holds for ${what}`;
  });
}

export const MIXING_WORDS: Readonly<Record<Mixing, string>> = {
  'same-part': 'same part: boxes may be mixed',
  'never-mix': 'redesigned: never mix within one engine',
  unrelated: 'joined in the history only',
};

export const SCOPE_WORDS: Readonly<Record<PolicyScope, string>> = {
  default: 'default',
  shop: 'the shop’s choice',
  sheet: 'the spec sheet says so',
  group: 'for this duty group',
  vehicle: 'for this vehicle',
};

export const ELECTRODE_WORDS = {
  nickel: 'nickel',
  fine_wire: 'fine wire',
  multi_ground: 'several ground electrodes',
} as const;

/** Null: nobody knows. */
export const resistorWords = (resistor: boolean | null): string | null => {
  if (resistor === null) return null;
  return resistor ? 'with' : 'without';
};

/** Other work of an engine: "air filter every 40,000 km or 24 months, 10 min; behind the front bank". */
export function otherWorkWords({ what, everyKm, everyMonths, minutes, behind }: OtherWork, system: UnitSystem): string {
  const every = [everyKm !== null && distanceText(everyKm, system), everyMonths !== null && `${everyMonths} months`];
  return `${what} every ${every.filter(Boolean).join(' or ')}, ${minutes} min${behind === null || behind === 'only' ? '' : `; behind the ${behind} bank`}`;
}

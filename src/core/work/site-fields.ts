import {
  ALL_NORMAL,
  BREAKAWAY_FEELS,
  type BreakawayFeel,
  type Condition,
  isCondition,
  TORQUE_METHODS,
  type TorqueMethod,
} from '../inspection/vocabulary';
import { isKeptCurve, type KeptCurve } from '../torque/kept-curve';
import { PLAUSIBLE_BREAKAWAY, type Window } from '../units/read-quantity';
import type { Fields, Json } from './entry';

/* The fields of one site of an order: what each holds and what it is called. Device, server and database read this table. */

interface FieldOf<K extends string> {
  readonly kind: K;
  /** As a person calls it. */
  readonly says: string;
}
interface TextField extends FieldOf<'text'> {
  /** Characters at most. */
  readonly max: number;
}
interface QuantityField<Q extends 'gap' | 'torque'> extends FieldOf<'quantity'> {
  readonly quantity: Q;
  /** What is plausible, where it is another range than that of the quantity. */
  readonly window?: Window;
}
interface ChoiceField<C extends string> extends FieldOf<'choice'> {
  readonly choices: readonly C[];
}

const text = (says: string, max = 60): TextField => ({ kind: 'text', says, max });
const gap = (says: string): QuantityField<'gap'> => ({ kind: 'quantity', quantity: 'gap', says });
const torque = (says: string, window?: Window): QuantityField<'torque'> => ({
  kind: 'quantity',
  quantity: 'torque',
  says,
  window,
});

export const SITE_FIELDS = {
  observedNumber: text('number read off the old plug'),
  believedNumber: text('what someone says the old plug is'),
  removedGap: gap('old gap'),
  seen: { kind: 'seen', says: 'what was seen' } as FieldOf<'seen'>,
  breakawayFeel: {
    kind: 'choice',
    says: 'how it came loose',
    choices: BREAKAWAY_FEELS,
  } as ChoiceField<BreakawayFeel>,
  breakawayTorque: torque('breakaway torque', PLAUSIBLE_BREAKAWAY),
  newNumber: text('number on the new plug'),
  newGap: gap('new gap'),
  newLot: text('lot on the box'),
  compound: text('compound on the threads'),
  compoundBatch: text('batch of the compound'),
  torqueMethod: { kind: 'choice', says: 'tightened with', choices: TORQUE_METHODS } as ChoiceField<TorqueMethod>,
  wrenchSetting: torque('wrench setting'),
  installedTorque: torque('installed torque'),
  curve: { kind: 'curve', says: 'torque curve' } as FieldOf<'curve'>,
  soakedAt: { kind: 'instant', says: 'penetrant went in' } as FieldOf<'instant'>,
  remark: text('remark', 500),
  done: { kind: 'flag', says: 'site done' } as FieldOf<'flag'>,
} as const;
export type SiteField = keyof typeof SITE_FIELDS;
const SITE_FIELD_NAMES = Object.keys(SITE_FIELDS) as readonly SiteField[];

export const isSiteField = (name: string): name is SiteField => Object.hasOwn(SITE_FIELDS, name);

/** Fields in which a person types a quantity. */
export type SiteQuantity = {
  [F in SiteField]: (typeof SITE_FIELDS)[F] extends { readonly kind: 'quantity' } ? F : never;
}[SiteField];
export const isSiteQuantity = (name: string): name is SiteQuantity =>
  isSiteField(name) && SITE_FIELDS[name].kind === 'quantity';

/** How clear a word is: 1 just visible, 2 clear, 3 beyond doubt. */
type Severity = 1 | 2 | 3;
/** What was seen at one site, by word. Empty: nobody has looked. */
export type Seen = Readonly<Partial<Record<Condition, Severity>>>;

type ValueOf<F> = F extends { readonly kind: 'text' | 'quantity' }
  ? string
  : F extends ChoiceField<infer C>
    ? C | null
    : F extends { readonly kind: 'seen' }
      ? Seen
      : F extends { readonly kind: 'curve' }
        ? KeptCurve | null
        : F extends { readonly kind: 'instant' }
          ? string | null
          : boolean;

/** One site as the rules read it: texts as typed, empty where nothing is typed; an instant in ISO 8601. */
export type SiteRecord = { readonly [F in SiteField]: ValueOf<(typeof SITE_FIELDS)[F]> };

/** The fields of a site as a record sends them. What is not there, or is of no kind the field holds, counts as nothing. */
export function siteRecord(fields: Fields): SiteRecord {
  const read = SITE_FIELD_NAMES.map((name) => [name, fieldValue(name, fields[name] ?? null)]);
  return Object.fromEntries(read) as SiteRecord;
}

function fieldValue(name: SiteField, json: Json): SiteRecord[SiteField] {
  const field = SITE_FIELDS[name];
  switch (field.kind) {
    case 'text':
    case 'quantity':
      return typeof json === 'object' ? '' : String(json);
    case 'choice':
      return field.choices.find((choice) => choice === json) ?? null;
    case 'seen':
      return seenOf(json);
    case 'curve':
      return isKeptCurve(json) ? json : null;
    case 'instant':
      return typeof json === 'string' ? json : null;
    case 'flag':
      return json === true;
  }
}

const isSeverity = (json: Json): json is Severity => json === 1 || json === 2 || json === 3;

function seenOf(json: Json): Seen {
  if (typeof json !== 'object' || json === null) return {};
  return Object.fromEntries(
    Object.entries(json).filter(([word, severity]) => isCondition(word) && isSeverity(severity)),
  ) as Seen;
}

/** Everything as it should be, region by region: for the press that says so. No gasket on a conical seat. */
export const allNormal = (seat: 'gasket' | 'conical'): Readonly<Record<string, 2>> =>
  Object.fromEntries(
    ALL_NORMAL.filter((word) => seat === 'gasket' || word !== 'gasket present').map((word) => [word, 2]),
  );

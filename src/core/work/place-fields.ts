import { REMOVAL_REASONS, type RemovalReason } from '../components/history';
import type { Ignition } from '../engine/model';
import type { Component } from '../engine/quantities';
import {
  ALL_NORMAL,
  aboveThePlug,
  BREAKAWAY_FEELS,
  type BreakawayFeel,
  CONDITIONS,
  type Condition,
  type ConditionRegion,
  isCondition,
  NORMAL,
  REGIONS_OF,
  TORQUE_METHODS,
  type TorqueMethod,
} from '../inspection/vocabulary';
import { isKeptCurve, type KeptCurve } from '../torque/kept-curve';
import { PLAUSIBLE_BREAKAWAY, PLAUSIBLE_SCREW, type Window } from '../units/read-quantity';
import type { UnitName } from '../units/unit';
import type { Fields, Json } from './entry';
import type { TaskComponent } from './task';

/*
 * The fields of one place of a task: what each holds, what it is called, and which components have it. Device, server and
 * database read this table.
 */

type MeasuredKind = 'gap' | 'torque' | 'resistance' | 'distance';

interface FieldOf<K extends string> {
  readonly kind: K;
  /** As a person calls it. */
  readonly says: string;
  /** The components that have it; all where absent. */
  readonly components?: readonly Component[];
}
interface TextField extends FieldOf<'text'> {
  /** Characters at most. */
  readonly max: number;
}
interface QuantityField extends FieldOf<'quantity'> {
  readonly quantity: MeasuredKind;
  /** What is plausible, where it is another range than that of the quantity. */
  readonly window?: Window;
  /** In which a bare figure is read, where that does not depend on the person. */
  readonly unit?: UnitName;
}
interface ChoiceField<C extends string> extends FieldOf<'choice'> {
  readonly choices: readonly C[];
}

const text = (says: string, of?: readonly Component[], max = 60): TextField => ({
  kind: 'text',
  says,
  max,
  components: of,
});
const quantity = (
  kind: MeasuredKind,
  says: string,
  more: Pick<QuantityField, 'components' | 'window' | 'unit'> = {},
): QuantityField => ({ kind: 'quantity', quantity: kind, says, ...more });
const choice = <C extends string>(says: string, choices: readonly C[], of?: readonly Component[]): ChoiceField<C> => ({
  kind: 'choice',
  says,
  choices,
  components: of,
});

const PLUG: readonly Component[] = ['plug'];
const COILS: readonly Component[] = ['coil', 'rail'];
/** Held by a screw or a thread of their own. */
const FASTENED: readonly Component[] = ['plug', 'coil', 'rail', 'cap', 'rotor'];

/** good: goes back, or stays; replaced: a new one went in at once; bad: to be replaced, and still in. */
export const RESULTS = ['good', 'replaced', 'bad'] as const;
export type PlaceResult = (typeof RESULTS)[number];

/** From 1, as new, to 5, failed. */
export const GRADES = ['1', '2', '3', '4', '5'] as const;
type Grade = (typeof GRADES)[number];

export const HOLE_THREADS = ['sound', 'stiff', 'torn', 'pulled'] as const;
type HoleThread = (typeof HOLE_THREADS)[number];
export const DROPPED = ['dropped', 'insulator sound'] as const;
type Dropped = (typeof DROPPED)[number];
/** Of a cracked insulator: a piece that is missing lies in the cylinder. */
export const PIECES = ['all there', 'one is missing'] as const;
type Pieces = (typeof PIECES)[number];
export const HAND_STARTS = ['by hand', 'bound early'] as const;
type HandStart = (typeof HAND_STARTS)[number];

/** What may be on the threads of a plug. */
export const COMPOUNDS = ['nickel compound', 'copper compound', 'ceramic compound', 'other compound'] as const;
type Compound = (typeof COMPOUNDS)[number];

export const PLACE_FIELDS = {
  observedNumber: text('number read off the old part'),
  believedNumber: text('what someone says the old part is'),
  tagOut: text('serial of the old part', COILS),
  removedGap: quantity('gap', 'old gap', { components: PLUG }),
  seen: { kind: 'seen', says: 'what was seen' } as FieldOf<'seen'>,
  pieces: choice<Pieces>('pieces of the cracked insulator', PIECES, PLUG),
  grade: choice<Grade>('grade', GRADES),
  /** The thread in the head, once the plug is out. */
  hole: choice<HoleThread>('thread in the head', HOLE_THREADS, PLUG),
  breakawayFeel: choice<BreakawayFeel>('how it came loose', BREAKAWAY_FEELS, PLUG),
  breakawayTorque: quantity('torque', 'breakaway torque', { components: PLUG, window: PLAUSIBLE_BREAKAWAY }),
  primaryOhm: quantity('resistance', 'primary resistance', {
    components: COILS,
    unit: 'Ω',
    window: { min: 0, max: 20 },
  }),
  secondaryOhm: quantity('resistance', 'secondary resistance', { components: COILS, unit: 'kΩ' }),
  ohm: quantity('resistance', 'resistance', { components: ['lead', 'rotor'], unit: 'kΩ' }),
  result: choice<PlaceResult>('result', RESULTS),
  goodFor: quantity('distance', 'good for', { window: { min: 500, max: 300_000 } }),
  removalReason: choice<RemovalReason>('why it came out', REMOVAL_REASONS),
  newNumber: text('number on the new part'),
  tagIn: text('serial of the new part', COILS),
  newGap: quantity('gap', 'new gap', { components: PLUG }),
  /** Gaps at which a new plug was bent, in order, mm: with the last one they give each bend and its direction. */
  bentFrom: text('gaps it was bent from', PLUG, 80),
  newLot: text('lot on the box'),
  /** A new plug that fell: until its gap is measured again and its insulator looked at. */
  dropped: choice<Dropped>('dropped', DROPPED, PLUG),
  /** Plugs whose lead is on, by site: "1A 3A". */
  leadsOn: text('leads that are on', ['lead_set', 'cap'], 200),
  compound: choice<Compound>('compound on the threads', COMPOUNDS, PLUG),
  compoundBatch: text('batch of the compound', PLUG),
  /** How it went in by hand, before any wrench. */
  start: choice<HandStart>('start by hand', HAND_STARTS, PLUG),
  torqueMethod: choice<TorqueMethod>('tightened with', TORQUE_METHODS, FASTENED),
  wrench: text('wrench', FASTENED),
  /** Crowfoot in line with the wrench, mm. */
  adapter: text('adapter', FASTENED),
  wrenchSetting: quantity('torque', 'wrench setting', { components: FASTENED }),
  installedTorque: quantity('torque', 'installed torque', { components: FASTENED }),
  curve: { kind: 'curve', says: 'torque curve', components: PLUG } as FieldOf<'curve'>,
  soakedAt: { kind: 'instant', says: 'penetrant went in', components: PLUG } as FieldOf<'instant'>,
  leftWhy: text('why it was left as it was', undefined, 200),
  remark: text('remark', undefined, 500),
  done: { kind: 'flag', says: 'done' } as FieldOf<'flag'>,
} as const;
export type PlaceField = keyof typeof PLACE_FIELDS;
const PLACE_FIELD_NAMES = Object.keys(PLACE_FIELDS) as readonly PlaceField[];

export const isPlaceField = (name: string): name is PlaceField => Object.hasOwn(PLACE_FIELDS, name);

/** Whether a component has a field: a cap has no gap. */
export function hasField(component: TaskComponent, name: string): name is PlaceField {
  if (!isPlaceField(name)) return false;
  const { components }: FieldOf<string> = PLACE_FIELDS[name];
  return !components || components.includes(component);
}

/** Fields in which a person types a quantity. */
export type PlaceQuantity = {
  [F in PlaceField]: (typeof PLACE_FIELDS)[F] extends { readonly kind: 'quantity' } ? F : never;
}[PlaceField];
export const isPlaceQuantity = (name: string): name is PlaceQuantity =>
  isPlaceField(name) && PLACE_FIELDS[name].kind === 'quantity';

/** How a quantity is read at a component: a screw of a coil takes another torque than a plug. */
export function quantityField(component: TaskComponent, name: PlaceQuantity): QuantityField {
  const field: QuantityField = PLACE_FIELDS[name];
  return field.quantity === 'torque' && component !== 'plug' ? { ...field, window: PLAUSIBLE_SCREW } : field;
}

/** How clear a word is: 1 just visible, 2 clear, 3 beyond doubt. */
type Severity = 1 | 2 | 3;
/** What was seen at one place, by word. Empty: nobody has looked. */
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

/** One place as the rules read it: texts as typed, empty where nothing is typed; an instant in ISO 8601. */
export type PlaceRecord = { readonly [F in PlaceField]: ValueOf<(typeof PLACE_FIELDS)[F]> };

/** The fields of a place as a record sends them. What is not there, or is of no kind the field holds, counts as nothing. */
export function placeRecord(fields: Fields): PlaceRecord {
  const read = PLACE_FIELD_NAMES.map((name) => [name, fieldValue(name, fields[name] ?? null)]);
  return Object.fromEntries(read) as PlaceRecord;
}

function fieldValue(name: PlaceField, json: Json): PlaceRecord[PlaceField] {
  const field = PLACE_FIELDS[name];
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

/** A piece of an insulator that cracked may lie in the cylinder. */
const CRACKS = ['nose cracked', 'insulator cracked'] as const satisfies readonly Condition[];

/** The region of a plug in which a crack was seen; undefined: none was. */
export const crackedRegion = (seen: Seen): ConditionRegion | undefined =>
  REGIONS_OF.plug.find((region) =>
    CONDITIONS[region].some((word) => seen[word] && CRACKS.some((crack) => crack === word)),
  );

/** Why the engine is not turned after what came out of a place, in words; null: nothing of it speaks against it. */
export function piecesSays({ seen, pieces }: Pick<PlaceRecord, 'seen' | 'pieces'>): string | null {
  if (pieces === 'all there' || !crackedRegion(seen)) return null;
  return pieces === 'one is missing'
    ? 'A piece of the insulator lies in the cylinder: do not crank. Look with a borescope and take it out; a supervisor decides before anything turns.'
    : 'The insulator is cracked: is every piece there? One that is missing lies in the cylinder: do not crank.';
}

/**
 * A plug, its place and what stands above it as they should be, region by region: for the press that says so. No gasket on a
 * conical seat; a coil or a lead, whichever this engine has.
 */
export const allNormal = (seat: 'gasket' | 'conical', ignition: Ignition): Readonly<Record<string, 2>> =>
  Object.fromEntries(
    [...ALL_NORMAL, aboveThePlug(ignition) === 'coil' ? 'coil sound' : 'lead sound']
      .filter((word) => seat === 'gasket' || word !== 'gasket present')
      .map((word) => [word, 2]),
  );

/** The words by which a component other than a plug is as it should be. */
export const normalFor = (component: TaskComponent): Readonly<Record<string, 2>> =>
  Object.fromEntries(
    REGIONS_OF[component].flatMap((region) => {
      const word = CONDITIONS[region].find((condition) => NORMAL.has(condition));
      return word ? [[word, 2]] : [];
    }),
  );

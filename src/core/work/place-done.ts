import { partKey } from '../catalogue/match';
import { bendFault, gapsFromText } from '../gap/bends';
import { checkGaps, type Electrode, type GapSpec, type RegapPolicy } from '../gap/check';
import type { Mm, Nm, Ohm } from '../shared/kinds';
import { isTorqueInRange } from '../torque/at-vehicle';
import type { PersonUnits } from '../units/person-units';
import { readQuantity, type Suggestion, type Window } from '../units/read-quantity';
import { keptKm, keptMm, keptNm, keptOhm } from '../units/round';
import { OPEN_CIRCUIT, sayGap, sayGaps, saySmallTorque, saySmallTorques, sayTorque, sayTorques } from '../units/say';
import type { LeadWay } from '../wiring/lead-ways';
import { type PlaceQuantity, type PlaceRecord, quantityField } from './place-fields';
import type { TaskAction, TaskComponent } from './task';

/** A range in SI. */
type Range<T extends number> = { readonly min: T; readonly max: T };

/** Which numbers may go in. Plain data, as all rules, so that a device can check by itself. */
interface NumberRules {
  readonly partNumber: string;
  /** Keys of the numbers that may go in; one inner list is one part under several numbers, and lists are never mixed. */
  readonly accepted: readonly (readonly string[])[];
  /** Keys of every number that is joined to the sheet's by a renumbering or a redesign. */
  readonly family: readonly string[];
  /** How look-alikes and older designs differ from the sheet's part, in words, by key. */
  readonly differs: Readonly<Record<string, string>>;
}

/** How the ground electrode of a new plug may be bent. */
export interface BendRules {
  readonly electrode: Electrode;
  readonly regap: RegapPolicy;
  /** Changes of direction that its bends may have. */
  readonly reversals: number;
}

/** What a plug is measured by before its place counts as done. */
export interface PlugRules extends NumberRules, BendRules {
  readonly component: 'plug';
  readonly gap: GapSpec;
  /** Of approved parts whose electrode is another than that of the sheet's part, by key. */
  readonly bendsOf: Readonly<Record<string, BendRules>>;
  /** As lubricated, N·m. */
  readonly torqueNm: Range<Nm>;
  readonly reduction: number;
  readonly lubricant: 'dry' | 'anti_seize';
  readonly head: 'aluminium' | 'iron';
  readonly threadsSay: string;
}

/** What another part is measured by. */
export interface PartRules extends Omit<NumberRules, 'partNumber'> {
  readonly component: Exclude<TaskComponent, 'plug'>;
  /** Null: no sheet names one, so that it is looked at and measured, never replaced. */
  readonly partNumber: string | null;
  /** Of the screw that holds it; null: it has none, or no sheet says. */
  readonly torqueNm: Range<Nm> | null;
  /** Between the terminals of the primary winding, Ω. */
  readonly primaryOhm: Range<Ohm> | null;
  /** Of the secondary winding, Ω. */
  readonly secondaryOhm: Range<Ohm> | null;
  /** Of a lead or rotor from end to end, Ω. */
  readonly ohm: Range<Ohm> | null;
  /** The most that a lead may have by its length. */
  readonly maxOhmPerMetre: Ohm | null;
  /** Of a lead set or a cap: every lead that goes on, one by one; none for another part. */
  readonly leads: readonly LeadWay[];
}

/** What a lead or rotor may measure from end to end, by its sheet or its length; null: nobody says. */
export const ohmRange = ({ ohm, maxOhmPerMetre }: PartRules, lengthMm: Mm | null): Range<Ohm> | null =>
  ohm ?? (maxOhmPerMetre === null || lengthMm === null ? null : { min: 0, max: (maxOhmPerMetre * lengthMm) / 1000 });

export type TaskRules = PlugRules | PartRules;

export type Faults = Readonly<Record<string, string>>;

type QuantityRead =
  | { readonly ok: true; readonly value: number | null }
  | { readonly ok: false; readonly message: string; readonly suggestions: readonly Suggestion[] };

const kept = { gap: keptMm, torque: keptNm, resistance: keptOhm, distance: keptKm };

/** What a meter shows that measures nothing: a broken winding or lead. */
const OPEN = /^(o\.?l\.?|open( circuit)?|infinite|∞)$/i;

/**
 * A typed quantity in SI, null where nothing is typed, or why it cannot be right and what it may be instead.
 *
 * @param component the part that it is measured at
 * @param sheet what the sheet allows for this field, where it speaks of it
 */
export function readPlaceQuantity(
  component: TaskComponent,
  field: PlaceQuantity,
  text: string,
  units: PersonUnits,
  sheet?: Window,
): QuantityRead {
  if (text.trim() === '') return { ok: true, value: null };
  const { quantity: kind, window, unit } = quantityField(component, field);
  if (kind === 'resistance' && OPEN.test(text.trim())) return { ok: true, value: OPEN_CIRCUIT };
  const reading = readQuantity({ kind, text, personUnit: unit ?? units[kind], window, sheet });
  if (reading.verdict !== 'ok') return { ok: false, message: reading.message, suggestions: reading.suggestions };
  return { ok: true, value: kept[kind](reading.valueSi) };
}

/** Whether a new part goes in at a place: planned, or on the spot after a look or a test. */
export const isFitted = (action: TaskAction, { result }: Pick<PlaceRecord, 'result'>): boolean =>
  action === 'replace' || result === 'replaced';

/** What was typed, as read: null where nothing is, or nothing that can be read. */
interface PlaceFigures {
  readonly newGapMm: Mm | null;
  readonly installedTorqueNm: Nm | null;
  readonly primaryOhm: Ohm | null;
  readonly secondaryOhm: Ohm | null;
  readonly ohm: Ohm | null;
}

/**
 * Why a place cannot be called done yet, by field: only with the right part and its tightening recorded where one goes in,
 * and with what was seen or measured and what came of it where one is looked at.
 *
 * @param fitted keys of the numbers at the other places of this component that are done
 */
export function placeFaults(
  record: PlaceRecord,
  figures: PlaceFigures,
  action: TaskAction,
  rules: TaskRules,
  fitted: readonly string[],
): Faults {
  const isNew = isFitted(action, record);
  return {
    ...(action === 'replace' ? {} : lookFaults(record, figures, action, rules.component)),
    ...(isNew ? newPartFaults(record, figures, rules, fitted) : {}),
    ...(isNew || (rules.component === 'plug' && record.result !== 'bad')
      ? tighteningFaults(record, figures, rules)
      : {}),
  };
}

/** What an inspection or a test has to say. */
function lookFaults(
  { seen, result, removedGap, goodFor }: PlaceRecord,
  { primaryOhm, secondaryOhm, ohm }: PlaceFigures,
  action: TaskAction,
  component: TaskComponent,
): Faults {
  const faults: Record<string, string> = {};
  const measured = [primaryOhm, secondaryOhm, ohm].some((ohms) => ohms !== null) || removedGap !== '';
  if (action === 'inspect' && Object.keys(seen).length === 0)
    faults.seen = 'Say what you see: normal is an answer too.';
  if (action === 'test' && !measured && Object.keys(seen).length === 0)
    faults.seen = 'Record what the test showed: a resistance, or what you see.';
  if (result === null) faults.result = 'Say what came of it: good, replaced, or bad and still in.';
  if (result === 'good' && component === 'plug' && goodFor === '')
    faults.goodFor = 'Say for how much longer it is good: the next look is dated by it.';
  return faults;
}

/** The part that goes in: the right one, and of a plug its gap and threads. */
function newPartFaults(
  record: PlaceRecord,
  { newGapMm }: PlaceFigures,
  rules: TaskRules,
  fitted: readonly string[],
): Faults {
  const bench = benchFaults(record, newGapMm, rules, fitted);
  if (rules.component !== 'plug') return { ...bench, ...leadFaults(record, rules) };
  const compound = compoundFault(record, rules);
  return compound ? { ...bench, compound } : bench;
}

/**
 * What keeps a new part from going in as it lies on the bench, by field: its number, and the gap of a plug.
 *
 * @param newGapMm as read, mm; null: not measured, or it cannot be read
 * @param fitted keys of the numbers at the other places of this component
 */
export function benchFaults(
  { newNumber, newGap, bentFrom }: PlaceRecord,
  newGapMm: Mm | null,
  rules: TaskRules,
  fitted: readonly string[],
): Faults {
  const isPlug = rules.component === 'plug';
  const number =
    newNumber === ''
      ? `Read the number off the new ${isPlug ? 'plug' : 'part'}.`
      : numberFault(newNumber, rules, fitted);
  const faults: Faults = number === null ? {} : { newNumber: number };
  if (!isPlug) return faults;
  if (newGap === '') return { ...faults, newGap: 'Measure the gap of the new plug.' };
  const gap = newGapMm === null ? null : gapFault(newGapMm, rules, newNumber, gapsFromText(bentFrom));
  return gap === null ? faults : { ...faults, newGap: gap };
}

/** Two leads that change places backfire: a set is done when each of its leads has been ticked off. */
function leadFaults({ leadsOn }: PlaceRecord, { component, leads }: PartRules): Faults {
  const on = new Set(leadsOn.split(' '));
  const left = leads.filter(({ site }) => !on.has(site));
  if (component !== 'lead_set' || left.length === 0) return {};
  return {
    leadsOn: `Tick off each lead as it goes on, one at a time: ${left.map(({ name }) => name).join(', ')} left.`,
  };
}

/** How it was tightened, where a plug or a screw is tightened by a sheet. */
function tighteningFaults(
  { torqueMethod, installedTorque, curve, remark }: PlaceRecord,
  { installedTorqueNm }: PlaceFigures,
  rules: TaskRules,
): Faults {
  const faults: Record<string, string> = {};
  if (rules.torqueNm === null) return faults;
  if (torqueMethod === null) faults.torqueMethod = 'Say how it was tightened.';
  if (torqueMethod === 'wrench') {
    if (installedTorque === '') faults.installedTorque = 'Record the torque it was tightened to.';
    else {
      const torque = installedTorqueNm === null ? null : torqueFault(installedTorqueNm, rules.torqueNm, rules);
      if (torque) faults.installedTorque = torque;
    }
  }
  if (curve?.verdict === 'stop' && remark === '')
    faults.curve =
      'The wrench said stop here. Look at the thread and tighten it anew, or write in the remark what was found and decided.';
  return faults;
}

/** A renumbered box is the same part; a redesigned one may replace the set, never one of it. */
function numberFault(
  number: string,
  { accepted, family, differs, partNumber, component }: TaskRules,
  fitted: readonly string[],
): string | null {
  const what = component.replace('_', ' ');
  if (partNumber === null)
    return `No sheet says which ${what} this engine takes. Enter one and have it checked, then fit it.`;
  const key = partKey(number);
  const same = accepted.find((numbers) => numbers.includes(key));
  if (!same) {
    const design = family.includes(key) ? `; ${number} is another design of it, never mixed within one engine` : '';
    const difference = differs[key] ? `; ${number} has ${differs[key]}` : '.';
    return `This engine takes ${partNumber}${design}${difference} Do not fit another: set the ${what} aside and compare the box.`;
  }
  const mixed = fitted.find((other) => !same.includes(other) && family.includes(other));
  return mixed
    ? `${number} is another design than the ${what}s beside it (${mixed}): the two are never mixed within one engine. Fit one kind throughout.`
    : null;
}

/** How a new plug may be bent, by the number read off it: an approved part may have another electrode than the sheet's. */
export const bendRulesFor = (rules: PlugRules, number: string): BendRules => rules.bendsOf[partKey(number)] ?? rules;

/**
 * Why a new plug's gap will not do, and what to do with it; null when it will.
 *
 * @param gapMm as it is now, mm
 * @param number read off the plug; empty: taken for the sheet's
 * @param bentFrom gaps at which it was bent before, in order, mm
 */
export function gapFault(gapMm: Mm, rules: PlugRules, number: string, bentFrom: readonly Mm[]): string | null {
  const { gap } = rules;
  const { electrode, regap, reversals } = bendRulesFor(rules, number);
  const tired = bendFault([...bentFrom, gapMm], electrode, reversals);
  if (tired) return tired;
  const [plug] = checkGaps(gap, electrode, regap, [gapMm]).plugs;
  if (!plug || plug.action === 'accept') return null;
  const range = sayGaps({ min: gap.minMm, max: gap.maxMm });
  if (plug.action === 'reject')
    return `${sayGap(gapMm)} is outside ${range} and neither this electrode nor the shop’s rule lets it be bent. Set the plug aside and return it.`;
  const target = plug.action === 'open' ? gapMm + plug.byMm : gapMm - plug.byMm;
  if (bendFault([...bentFrom, gapMm, target], electrode, reversals))
    return `${sayGap(gapMm)} is outside ${range}, and bending it by ${sayGap(plug.byMm)}${bentFrom.length > 0 ? ' once more' : ''} is more than a new plug takes. Compare the number on its box, and take another plug.`;
  return `${sayGap(gapMm)} is outside ${range}: ${plug.action} it by ${sayGap(plug.byMm)} with a wire or feeler gauge, bending only the ground electrode, then measure again.`;
}

/** Compound makes a dry torque too much, and its absence makes the lowered one too little. */
function compoundFault(
  { compound, remark }: Pick<PlaceRecord, 'compound' | 'remark'>,
  { lubricant, threadsSay, head }: PlugRules,
): string | null {
  if (lubricant === 'anti_seize' && compound === null)
    return `The torque here is lowered for compound, so name the one that is on the threads. ${threadsSay}`;
  if (lubricant === 'dry' && compound !== null)
    return `The torque here is for dry threads. ${threadsSay} Clean it off, or let the supervisor choose another option.`;
  if (remark.trim() !== '') return null;
  // Copper and aluminium corrode each other where salt water comes in.
  if (head === 'aluminium' && compound === 'copper compound')
    return 'Copper compound corrodes an aluminium head: use one of nickel, or give the reason in the remark.';
  if (compound === 'other compound') return 'Write in the remark which compound it is.';
  return null;
}

function torqueFault(torqueNm: Nm, range: Range<Nm>, rules: TaskRules): string | null {
  if (isTorqueInRange(torqueNm, range)) return null;
  const low = torqueNm < range.min;
  if (rules.component !== 'plug')
    return `${saySmallTorque(torqueNm)} is outside ${saySmallTorques(range)}, the torque of its screw. ${low ? 'Tighten it again' : 'Loosen it, look at insert and housing, then tighten it again'}.`;
  const lowered = rules.reduction > 0 ? ', lowered for the compound on the threads' : '';
  return `${sayTorque(torqueNm)} is outside ${sayTorques(range)}${lowered}. ${low ? 'Tighten it again' : 'Loosen it, check thread and gasket, then tighten it again'}.`;
}

/** What a resistance means against the sheet: null where the sheet gives no range. */
export const isResistanceInRange = (ohm: Ohm, range: Range<Ohm> | null): boolean | null =>
  range === null ? null : ohm >= range.min * (1 - OHM_ROOM) && ohm <= range.max * (1 + OHM_ROOM);

/** What a hand meter is trusted to. Source: general trade guidance. */
const OHM_ROOM = 0.02;

import { partKey } from '../catalogue/match';
import { checkGaps, type Electrode, type GapSpec, type RegapPolicy } from '../gap/check';
import type { Mm, Nm } from '../shared/kinds';
import type { PersonUnits } from '../units/person-units';
import { readQuantity, type Suggestion, type Window } from '../units/read-quantity';
import { keptMm, keptNm } from '../units/round';
import { sayGap, sayGaps, sayTorque, sayTorques } from '../units/say';
import { SITE_FIELDS, type SiteQuantity, type SiteRecord } from './site-fields';

/** What a site is measured by before it counts as done. Plain data, so that a device can check by itself. */
export interface SiteRules {
  readonly partNumber: string;
  /** Keys of the numbers that may go in; one inner list is one part under several numbers, and lists are never mixed. */
  readonly accepted: readonly (readonly string[])[];
  /** Keys of every number that is joined to the sheet's by a renumbering or a redesign. */
  readonly family: readonly string[];
  readonly gap: GapSpec;
  readonly electrode: Electrode;
  readonly regap: RegapPolicy;
  /** As lubricated, N·m. */
  readonly torqueNm: { readonly min: number; readonly max: number };
  readonly reduction: number;
  readonly lubricant: 'dry' | 'anti_seize';
  readonly threadsSay: string;
}

export type Faults = Readonly<Record<string, string>>;

type QuantityRead =
  | { readonly ok: true; readonly value: number | null }
  | { readonly ok: false; readonly message: string; readonly suggestions: readonly Suggestion[] };

/**
 * A typed quantity in SI, null where nothing is typed, or why it cannot be right and what it may be instead.
 *
 * @param sheet what the sheet allows for this field, where it speaks of it
 */
export function readSiteQuantity(
  field: SiteQuantity,
  text: string,
  units: Pick<PersonUnits, 'gap' | 'torque'>,
  sheet?: Window,
): QuantityRead {
  if (text.trim() === '') return { ok: true, value: null };
  const { quantity: kind, window }: { readonly quantity: 'gap' | 'torque'; readonly window?: Window } =
    SITE_FIELDS[field];
  const reading = readQuantity({ kind, text, personUnit: units[kind], window, sheet });
  if (reading.verdict !== 'ok') return { ok: false, message: reading.message, suggestions: reading.suggestions };
  return { ok: true, value: kind === 'gap' ? keptMm(reading.valueSi) : keptNm(reading.valueSi) };
}

/**
 * Why a site cannot be called done yet, by field: only with the right part, a gap in range and its tightening recorded.
 *
 * @param newGapMm mm; null: nothing typed, or nothing that can be read
 * @param installedTorqueNm N·m; null likewise
 * @param fitted keys of the numbers at the other sites that are done
 */
export function siteFaults(
  texts: Pick<
    SiteRecord,
    'newNumber' | 'newGap' | 'compound' | 'torqueMethod' | 'installedTorque' | 'curve' | 'remark'
  >,
  { newGapMm, installedTorqueNm }: { readonly newGapMm: Mm | null; readonly installedTorqueNm: Nm | null },
  rules: SiteRules,
  fitted: readonly string[],
): Faults {
  const faults: Record<string, string> = {};
  const number =
    texts.newNumber === '' ? 'Read the number off the new plug.' : numberFault(texts.newNumber, rules, fitted);
  if (number) faults.newNumber = number;
  if (texts.newGap === '') faults.newGap = 'Measure the gap of the new plug.';
  else {
    const gap = newGapMm === null ? null : gapFault(newGapMm, rules);
    if (gap) faults.newGap = gap;
  }
  const compound = compoundFault(texts.compound, rules);
  if (compound) faults.compound = compound;
  if (texts.torqueMethod === null) faults.torqueMethod = 'Say how it was tightened.';
  if (texts.torqueMethod === 'wrench') {
    if (texts.installedTorque === '') faults.installedTorque = 'Record the torque it was tightened to.';
    else {
      const torque = installedTorqueNm === null ? null : torqueFault(installedTorqueNm, rules);
      if (torque) faults.installedTorque = torque;
    }
  }
  if (texts.curve?.verdict === 'stop' && texts.remark === '')
    faults.curve =
      'The wrench said stop here. Look at the thread and tighten it anew, or write in the remark what was found and decided.';
  return faults;
}

/** A renumbered box is the same part; a redesigned one may replace the set, never one of it. */
function numberFault(
  number: string,
  { accepted, family, partNumber }: SiteRules,
  fitted: readonly string[],
): string | null {
  const key = partKey(number);
  const own = accepted.find((same) => same.includes(key));
  const mixed =
    family.includes(key) && fitted.find((other) => !(own ?? [key]).includes(other) && family.includes(other));
  if (mixed)
    return `${number} is a redesign of the plugs already fitted (${mixed}): the two are never mixed within one engine. Fit one kind throughout.`;
  return own ? null : `This engine takes ${partNumber}. Do not fit another: set the plug aside and compare the box.`;
}

/** Why a new plug's gap will not do, and what to do with it; null when it will. @param gapMm mm */
export function gapFault(gapMm: Mm, { gap, electrode, regap }: SiteRules): string | null {
  const [plug] = checkGaps(gap, electrode, regap, [gapMm]).plugs;
  if (!plug || plug.action === 'accept') return null;
  const range = sayGaps({ min: gap.minMm, max: gap.maxMm });
  if (plug.action === 'reject')
    return `${sayGap(gapMm)} is outside ${range} and neither this electrode nor the shop’s rule lets it be bent. Set the plug aside and return it.`;
  return `${sayGap(gapMm)} is outside ${range}: ${plug.action} it by ${sayGap(plug.byMm)} with a wire or feeler gauge, bending only the ground electrode, then measure again.`;
}

/** Compound makes a dry torque too much, and its absence makes the lowered one too little. */
function compoundFault(compound: string, { lubricant, threadsSay }: SiteRules): string | null {
  if (lubricant === 'anti_seize' && compound === '')
    return `The torque here is lowered for compound, so name the one that is on the threads. ${threadsSay}`;
  if (lubricant === 'dry' && compound !== '')
    return `The torque here is for dry threads. ${threadsSay} Clean it off, or let the supervisor choose another option.`;
  return null;
}

/** Half of the last figure that a wrench shows is no fault. */
const TORQUE_STEP_NM = 0.05;

/** Whether a torque is within the range, as finely as a wrench shows it, N·m. */
export const isTorqueInRange = (nm: Nm, { min, max }: SiteRules['torqueNm']): boolean =>
  nm >= min - TORQUE_STEP_NM && nm <= max + TORQUE_STEP_NM;

function torqueFault(torqueNm: Nm, { torqueNm: { min, max }, reduction }: SiteRules): string | null {
  if (isTorqueInRange(torqueNm, { min, max })) return null;
  const lowered = reduction > 0 ? ', lowered for the compound on the threads' : '';
  return `${sayTorque(torqueNm)} is outside ${sayTorques({ min, max })}${lowered}. ${torqueNm < min ? 'Tighten it again' : 'Loosen it, check thread and gasket, then tighten it again'}.`;
}

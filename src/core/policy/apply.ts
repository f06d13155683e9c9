import type { Electrode, RegapPolicy } from '../gap/check';
import { ANTI_SEIZE_REDUCTION, type Head } from '../torque/plan';
import { EARLY_SHARE, type PolicyOptions } from './policies';

/** What the interval option makes of a limit: the share of it at which a plug counts as due. */
export const dueShare = (intervalOption: PolicyOptions['interval']): number =>
  intervalOption === 'early' ? EARLY_SHARE : 1;

/** The share of its interval at which a plug that may grow fast is due. */
export const seizingShare = (seizingOption: PolicyOptions['seizing_risk']): number =>
  seizingOption === 'forward' ? EARLY_SHARE : 1;

const KM_PER_HOUR: Readonly<Record<PolicyOptions['engine_hours'], number>> = {
  hours_40: 40,
  hours_60: 60,
  hours_not_counted: 0,
};

/** Distance that a metered engine hour counts as, km; 0: hours do not count. */
export const kmPerHour = (hoursOption: PolicyOptions['engine_hours']): number => KM_PER_HOUR[hoursOption];

/** What the options of new gaps and the electrode together allow. The sheet's own word comes before both. */
export function regapPolicy(
  newGapsOption: PolicyOptions['new_gaps'],
  electrode: Electrode,
  sheetSays: RegapPolicy | null,
): RegapPolicy {
  if (electrode === 'multi_ground') return 'never';
  if (sheetSays) return sheetSays;
  if (newGapsOption === 'return') return 'never';
  return electrode === 'nickel' ? 'adjust' : 'ground_only';
}

/** Changes of direction that a bend may have. Infinity: any. */
export function allowedReversals(reverseOption: PolicyOptions['reverse_bend'], electrode: Electrode): number {
  if (reverseOption === 'allowed') return Number.POSITIVE_INFINITY;
  return reverseOption === 'once' && electrode === 'nickel' ? 1 : 0;
}

export const SHELLS = ['plated', 'bare'] as const;
export type Shell = (typeof SHELLS)[number];

export const SHEET_LUBRICANTS = ['dry', 'nickel', 'copper'] as const;
export type SheetLubricant = (typeof SHEET_LUBRICANTS)[number];

/** Threads for which a sheet's torque is given. */
export const TORQUE_CONDITIONS = ['dry', 'greased'] as const;
export type TorqueCondition = (typeof TORQUE_CONDITIONS)[number];

export interface CompoundAdvice {
  readonly lubricant: 'dry' | 'anti_seize';
  /** Which one; null: none. */
  readonly compound: 'nickel' | 'copper' | null;
  /** Share by which the sheet's torque is lowered. 0 where it is given for greased threads already. */
  readonly reduction: number;
  readonly says: string;
  /** Copper in an aluminium head wants an override. */
  readonly doubt: string | null;
}

/** Where compound goes: on the threads alone, or on a long shield below them as well. */
export const COMPOUND_PLACES = ['threads', 'threads_and_shield'] as const;
type CompoundPlace = (typeof COMPOUND_PLACES)[number];

const PLACES: Readonly<Record<CompoundPlace, string>> = {
  threads: 'on the threads only, never on electrode, seat or washer.',
  threads_and_shield: 'on the threads and thinly on the shield below them, never on electrode, seat or washer.',
};
const placed = (compound: 'nickel' | 'copper', place: CompoundPlace): string =>
  `A little ${compound} compound ${PLACES[place]}`;

interface SheetThreads {
  /** What the sheet wants on the threads; null: it does not say. */
  readonly lubricant: SheetLubricant | null;
  /** The threads its torque is given for; null: it does not say. */
  readonly torqueFor: TorqueCondition | null;
}

/** What goes on the threads by option, shell, head and sheet, and what it does to the torque. */
export function compoundAdvice(
  compoundOption: PolicyOptions['thread_compound'],
  shell: Shell | null,
  head: Head,
  sheet: SheetThreads,
  place: CompoundPlace = 'threads',
): CompoundAdvice {
  if (compoundOption === 'by_sheet' && sheet.lubricant) return bySheet(sheet.lubricant, sheet.torqueFor, head, place);
  const bareInAluminium = shell === 'bare' && head === 'aluminium';
  const nickel =
    compoundOption === 'nickel_always' ||
    (compoundOption === 'nickel_bare' && shell === 'bare') ||
    (compoundOption === 'by_sheet' && bareInAluminium);
  const overrides =
    sheet.lubricant && sheet.lubricant !== (nickel ? 'nickel' : 'dry')
      ? `The spec sheet says ${sheet.lubricant}: the shop’s choice overrides it.`
      : null;
  return nickel
    ? {
        ...greased('nickel', sheet.torqueFor, placed('nickel', place)),
        doubt: joined(overrides, platedDoubt(shell), greasedDoubt(sheet)),
      }
    : { ...dry('Dry as supplied: no compound on the threads.'), doubt: joined(overrides, dryDoubt(sheet.torqueFor)) };
}

/** What a person chooses at the bench against what is in force, with what speaks against it. */
export function chosenCompound(
  chosen: 'dry' | 'anti_seize',
  inForce: CompoundAdvice,
  shell: Shell | null,
  sheet: SheetThreads,
): CompoundAdvice {
  if (chosen === inForce.lubricant) return inForce;
  const against = sheet.lubricant ? `The spec sheet says ${sheet.lubricant}: this overrides it.` : null;
  return chosen === 'dry'
    ? { ...dry('Dry, as chosen here.'), doubt: joined(against, dryDoubt(sheet.torqueFor)) }
    : {
        ...greased('nickel', sheet.torqueFor, `As chosen here. ${placed('nickel', 'threads')}`),
        doubt: joined(against, platedDoubt(shell), greasedDoubt(sheet)),
      };
}

const platedDoubt = (shell: Shell | null): string | null =>
  shell === 'plated'
    ? 'This shell is plated and needs no compound: greased, the same torque clamps harder and can strip the thread.'
    : null;

/** One doubt must not hide the other. */
const joined = (...doubts: readonly (string | null)[]): string | null => doubts.filter(Boolean).join(' ') || null;

const dry = (says: string) => ({ lubricant: 'dry', compound: null, reduction: 0, says }) as const;

/** A torque that is given for greased threads is not lowered once more. */
const greased = (compound: 'nickel' | 'copper', torqueFor: TorqueCondition | null, says: string) =>
  ({
    lubricant: 'anti_seize',
    compound,
    reduction: torqueFor === 'greased' ? 0 : ANTI_SEIZE_REDUCTION,
    says: torqueFor === 'greased' ? `${says} The sheet’s torque is for greased threads: it is not lowered.` : says,
  }) as const;

const dryDoubt = (torqueFor: TorqueCondition | null): string | null =>
  torqueFor === 'greased'
    ? 'The sheet’s torque is for greased threads: on dry ones it clamps too little. Grease them, or find the dry torque.'
    : null;

const greasedDoubt = ({ lubricant, torqueFor }: SheetThreads): string | null =>
  lubricant && lubricant !== 'dry' && torqueFor === null
    ? 'The sheet does not say whether its torque is for dry or greased threads: it is taken as dry, and lowered.'
    : null;

function bySheet(
  says: SheetLubricant,
  torqueFor: TorqueCondition | null,
  head: Head,
  place: CompoundPlace,
): CompoundAdvice {
  if (says === 'dry') return { ...dry('The sheet says dry: no compound on the threads.'), doubt: dryDoubt(torqueFor) };
  const copper =
    says === 'copper' && head === 'aluminium' ? 'Copper in an aluminium head corrodes: ask for approval.' : null;
  const where =
    says === 'nickel' ? placed('nickel', place) : `The sheet says so: ${placed('copper', place).toLowerCase()}`;
  return { ...greased(says, torqueFor, where), doubt: copper ?? greasedDoubt({ lubricant: says, torqueFor }) };
}

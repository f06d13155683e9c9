import type { Electrode, RegapPolicy } from '../gap/check';
import { ANTI_SEIZE_REDUCTION, type Head } from '../torque/plan';
import { EARLY_SHARE } from './policies';

/** What the interval option makes of a limit: the share of it at which a plug counts as due. */
export const dueShare = (intervalOption: string): number => (intervalOption === 'early' ? EARLY_SHARE : 1);

const KM_PER_HOUR: Readonly<Record<string, number>> = { hours_40: 40, hours_60: 60, hours_not_counted: 0 };

/** Distance that a metered engine hour counts as, km; 0: hours do not count. */
export const kmPerHour = (hoursOption: string): number => KM_PER_HOUR[hoursOption] ?? 0;

/** What the options of new gaps and the electrode together allow. The sheet's own word comes before both. */
export function regapPolicy(newGapsOption: string, electrode: Electrode, sheetSays: RegapPolicy | null): RegapPolicy {
  if (electrode === 'multi_ground') return 'never';
  if (sheetSays) return sheetSays;
  if (newGapsOption === 'return') return 'never';
  return electrode === 'nickel' ? 'adjust' : 'ground_only';
}

/** Changes of direction that a bend may have. Infinity: any. */
export function allowedReversals(reverseOption: string, electrode: Electrode): number {
  if (reverseOption === 'allowed') return Number.POSITIVE_INFINITY;
  return reverseOption === 'once' && electrode === 'nickel' ? 1 : 0;
}

export const SHELLS = ['plated', 'bare'] as const;
export type Shell = (typeof SHELLS)[number];

export const SHEET_LUBRICANTS = ['dry', 'nickel', 'copper'] as const;
export type SheetLubricant = (typeof SHEET_LUBRICANTS)[number];

export interface CompoundAdvice {
  readonly lubricant: 'dry' | 'anti_seize';
  /** Which one; null: none. */
  readonly compound: 'nickel' | 'copper' | null;
  /** Share by which the dry torque is lowered. */
  readonly reduction: number;
  readonly says: string;
  /** Copper in an aluminium head wants an override. */
  readonly doubt: string | null;
}

const PLACE = 'A little nickel compound on the threads only, never on electrode, seat or washer.';

/** What goes on the threads by option, shell, head and sheet, and what it does to the torque. */
export function compoundAdvice(
  compoundOption: string,
  shell: Shell | null,
  head: Head,
  sheetSays: SheetLubricant | null,
): CompoundAdvice {
  if (compoundOption === 'by_sheet' && sheetSays) return bySheet(sheetSays, head);
  const bareInAluminium = shell === 'bare' && head === 'aluminium';
  const nickel =
    compoundOption === 'nickel_always' ||
    (compoundOption === 'nickel_bare' && shell === 'bare') ||
    (compoundOption === 'by_sheet' && bareInAluminium);
  const doubt =
    sheetSays && sheetSays !== (nickel ? 'nickel' : 'dry')
      ? `The spec sheet says ${sheetSays}: the shop’s choice overrides it.`
      : null;
  return nickel
    ? { lubricant: 'anti_seize', compound: 'nickel', reduction: ANTI_SEIZE_REDUCTION, says: PLACE, doubt }
    : { lubricant: 'dry', compound: null, reduction: 0, says: 'Dry as supplied: no compound on the threads.', doubt };
}

function bySheet(says: SheetLubricant, head: Head): CompoundAdvice {
  if (says === 'dry')
    return {
      lubricant: 'dry',
      compound: null,
      reduction: 0,
      says: 'The sheet says dry: no compound on the threads.',
      doubt: null,
    };
  const doubt =
    says === 'copper' && head === 'aluminium' ? 'Copper in an aluminium head corrodes: ask for approval.' : null;
  return {
    lubricant: 'anti_seize',
    compound: says,
    reduction: ANTI_SEIZE_REDUCTION,
    says: says === 'nickel' ? PLACE : 'The sheet says copper compound, on the threads only.',
    doubt,
  };
}

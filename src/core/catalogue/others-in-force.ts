import { overlap } from '../gap/bands';
import type { RegapPolicy } from '../gap/check';
import type { SheetLubricant } from '../policy/apply';
import { ENDS, type Ranges, rangeOf, rivalsOf, type Sourced } from './dispute';
import { coversAll } from './scope';

/* What other documents add to the sheet in force: makers whose ranges hold at the same time, and newer bulletins. */

export const TEMPERATURES = ['cold', 'warm', 'by_bulletin'] as const;

/** How the work is done, as a sheet says it; null: it does not speak of it. */
interface Method {
  readonly engineTemperature: (typeof TEMPERATURES)[number] | null;
  readonly lubricant: SheetLubricant | null;
  readonly regap: RegapPolicy | null;
  /** How the old ones come out, in words. */
  readonly method: string | null;
}
const METHOD = ['engineTemperature', 'lubricant', 'regap', 'method'] as const satisfies readonly (keyof Method)[];
export type MethodField = (typeof METHOD)[number];

type InForceSheet = Sourced & Ranges & Method & { readonly checkedBy: string | null; readonly partId: string };

/** Another document that holds beside the sheet, and for what. */
export interface OtherInForce {
  readonly document: string;
  readonly dated: string | null;
  readonly for: MethodField | 'gap' | 'torque' | 'resistance';
}

/**
 * The sheet as it is to be worked by. Its ranges are narrowed to what the other makers' valid sheets for the same part allow as
 * well; where one leaves nothing in common the sheet's own range stays, and `disputed` says so. A valid bulletin that is newer
 * than the sheet stands above it for what it speaks of, whatever their ranks. Nothing that nobody checked counts.
 *
 * @param sheets of the same engine family and component
 */
export function withOthersInForce<S extends InForceSheet>(
  sheet: S,
  sheets: readonly S[],
): S & { readonly others: readonly OtherInForce[] } {
  const checked = sheets.filter((other) => other.id !== sheet.id && other.checkedBy !== null && !other.expired);
  const narrowed = narrow(sheet, checked);
  const spoken = bulletinsAbove(sheet, checked);
  return { ...sheet, ...narrowed.ranges, ...spoken.method, others: [...narrowed.others, ...spoken.others] };
}

const rangeWord = (end: keyof Ranges): OtherInForce['for'] => {
  if (end === 'gapMinMm') return 'gap';
  return end === 'torqueMinNm' ? 'torque' : 'resistance';
};

function narrow<S extends InForceSheet>(sheet: S, checked: readonly S[]) {
  const beside = rivalsOf(sheet, checked).filter((other) => other.partId === sheet.partId);
  const ranges: Partial<Record<keyof Ranges, number>> = {};
  const others: OtherInForce[] = [];
  for (const ends of ENDS) {
    const [low, high] = ends;
    const sheetRange = rangeOf(sheet, ends);
    const speaking = beside.filter((other) => rangeOf(other, ends));
    const common = sheetRange && overlap([sheetRange, ...speaking.map((other) => rangeOf(other, ends) ?? sheetRange)]);
    if (!sheetRange || !common || (common.min === sheetRange.min && common.max === sheetRange.max)) continue;
    ranges[low] = common.min;
    ranges[high] = common.max;
    for (const { sourceDocument, sourceDated } of speaking)
      others.push({ document: sourceDocument, dated: sourceDated, for: rangeWord(low) });
  }
  return { ranges, others };
}

function bulletinsAbove<S extends InForceSheet>(sheet: S, checked: readonly S[]) {
  const newer = checked
    .filter(
      (other) =>
        other.sourceKind === 'bulletin' &&
        (other.sourceDated ?? '') > (sheet.sourceDated ?? '') &&
        coversAll(other, sheet),
    )
    .sort((a, b) => (b.sourceDated ?? '').localeCompare(a.sourceDated ?? '') || b.revision - a.revision);
  const method: Partial<Record<MethodField, unknown>> = {};
  const others: OtherInForce[] = [];
  for (const field of METHOD) {
    const bulletin = newer.find((other) => other[field] !== null);
    if (!bulletin || bulletin[field] === sheet[field]) continue;
    method[field] = bulletin[field];
    others.push({ document: bulletin.sourceDocument, dated: bulletin.sourceDated, for: field });
  }
  return { method: method as Partial<Method>, others };
}

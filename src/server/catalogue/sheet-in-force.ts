import { disputed } from '@/core/catalogue/dispute';
import { type Fitment, type ReleaseBlocker, releaseBlockers } from '@/core/catalogue/match';
import { type OtherInForce, withOthersInForce } from '@/core/catalogue/others-in-force';
import { type BoostGap, gapForBoost } from '@/core/gap/bands';
import type { BoostBand } from '@/core/gap/boost';
import type { ComponentSheet, EngineFamily } from '@/db/queries/catalogue';

/** What a sheet is read together with. */
interface SheetContext {
  readonly family: Pick<EngineFamily, 'boostBands' | 'boostSource'>;
  readonly vehicle: { readonly intakeKpa: number | null };
}

/** A sheet as a vehicle is to be worked by: with what other documents say, and with the gap for its own intake pressure. */
export type SheetInForce<S extends ComponentSheet = ComponentSheet> = S & {
  readonly others: readonly OtherInForce[];
  /** The gap at its own intake pressure; null: it has its family's. */
  readonly boost: (BoostGap<BoostBand> & { readonly kpa: number; readonly source: string }) | null;
};

/** @param sheets of the same engine family, for any component */
export function sheetInForce<S extends ComponentSheet>(
  sheet: S,
  sheets: readonly S[],
  { family, vehicle }: SheetContext,
): SheetInForce<S> {
  const ofComponent = sheets.filter(({ component }) => component === sheet.component);
  const together = withOthersInForce(sheet, ofComponent);
  const { intakeKpa } = vehicle;
  if (sheet.component !== 'plug' || intakeKpa === null || family.boostBands.length === 0)
    return { ...together, boost: null };
  const boosted = gapForBoost(family.boostBands, intakeKpa);
  const boost = { ...boosted, kpa: intakeKpa, source: family.boostSource ?? '' };
  if (boosted.kind === 'above-all') return { ...together, boost };
  const { minMm, maxMm, asTyped } = boosted.band;
  return {
    ...together,
    boost,
    gapMinMm: minMm,
    gapMaxMm: maxMm,
    gapTargetMm: null,
    gapAsTyped: asTyped,
    others: together.others.filter((other) => other.for !== 'gap'),
  };
}

/** What goes into a vehicle, its sheets as they are to be worked by. */
export function fitmentInForce<S extends ComponentSheet>(
  fitment: Fitment<S>,
  sheets: readonly S[],
  context: SheetContext,
): Fitment<SheetInForce<S>> {
  if (fitment.kind === 'no-spec') return fitment;
  const inForce = (sheet: S): SheetInForce<S> => sheetInForce(sheet, sheets, context);
  return fitment.kind === 'match'
    ? { ...fitment, spec: inForce(fitment.spec) }
    : { ...fitment, candidates: fitment.candidates.map(inForce) };
}

/** Why the sheet of a match releases no work by itself. */
export const blockersFor = <S extends ComponentSheet>(
  fitment: Fitment<SheetInForce<S>>,
  sheets: readonly S[],
): readonly ReleaseBlocker[] => {
  if (fitment.kind !== 'match') return [];
  const { spec } = fitment;
  const asWritten = sheets.find(({ id }) => id === spec.id) ?? spec;
  return releaseBlockers({ ...spec, makersDisagree: disputed(asWritten, sheets), boost: spec.boost?.kind });
};

import { type BatchVerdict, checkGaps, type Electrode, type GapSpec } from '../gap/check';
import type { Mm } from '../shared/kinds';
import { medianOf } from '../stats/median';
import { sayGap, sayGaps } from '../units/say';

/** What was ordered, as the record and the sample know it. */
export interface Ordered {
  readonly number: string;
  readonly quantity: number;
  readonly approvedSources: readonly string[];
  /** Recent prices of one, any currency but the same. */
  readonly referencePrices: readonly number[];
  /** The gap of each engine that takes it. */
  readonly gaps: readonly (GapSpec & { readonly electrode: Electrode })[];
  /** Why nothing is taken from this seller any more; null: it is not banned. */
  readonly sellerBanned: string | null;
  /** What became of plugs of this lot that were fitted before. */
  readonly lotHistory: LotHistory;
}

/** Share of its interval that a sound plug outlives; one that came out before it came out early. */
export const EARLY_SHARE_OF_INTERVAL = 0.5;

/** Pieces of one lot that were fitted, and those that came out early. */
export interface LotHistory {
  readonly fitted: number;
  readonly early: number;
}

/** What came. Null: not looked at, or not stated. */
export interface Delivered {
  readonly number: string;
  readonly quantity: number;
  readonly source: string;
  readonly price: number | null;
  readonly lot: string | null;
  readonly gapsMm: readonly number[];
  /** The number is the ordered one or one that only renumbers it. */
  readonly samePart: boolean;
  readonly differsFromSample: readonly SampleDifference[];
}

export const SAMPLE_DIFFERENCES = ['boot', 'core', 'length', 'marking', 'texture'] as const;
type SampleDifference = (typeof SAMPLE_DIFFERENCES)[number];

export type ReceivingReason =
  | 'wrong_number'
  | 'short_count'
  | 'over_count'
  | 'unapproved_source'
  | 'price_low'
  | 'no_lot'
  | 'seller_banned'
  | 'lot_failed_early'
  | 'gaps_off'
  | 'gaps_damaged'
  | `differs_${SampleDifference}`;

export interface ReceivingVerdict {
  readonly verdict: 'accepted' | 'quarantined' | 'back_to_supplier';
  readonly reasons: readonly { readonly code: ReceivingReason; readonly message: string }[];
  /** How much speaks for a counterfeit, in points of `SUSPICION_POINTS`. Never a verdict of forgery. */
  readonly suspicion: number;
  readonly batch: BatchVerdict | null;
  /** Pieces that are no stock: set aside one by one. */
  readonly setAside: number;
}

/**
 * What each reason weighs as a sign of a counterfeit; what is a matter of counting or gapping weighs nothing. Two early
 * failures of one lot weigh double. Source: trade guidance on what counterfeits have in common.
 */
export const SUSPICION_POINTS: Readonly<Partial<Record<ReceivingReason, number>>> = {
  differs_core: 3,
  differs_boot: 3,
  lot_failed_early: 2,
  price_low: 2,
  seller_banned: 3,
  unapproved_source: 2,
  differs_texture: 2,
  differs_marking: 1,
  differs_length: 1,
  no_lot: 1,
};

/** From so many points a batch is set aside. */
export const SUSPICIOUS_FROM = 4;

/** A price under this share of the median is a reason to look twice. */
const LOW_PRICE_SHARE = 0.6;
/** So many reasons, and the delivery is set aside. */
const REASONS_FOR_QUARANTINE = 2;

type Reason = ReceivingVerdict['reasons'][number];

/**
 * A delivery against its order and sample. A wrong number goes back; two reasons, or a boot or core that differs from
 * the sample, set it aside; one reason alone is told and accepted. Reasons, never a verdict of forgery.
 */
export function checkDelivery(ordered: Ordered, delivered: Delivered): ReceivingVerdict {
  const batch = batchOf(ordered, delivered);
  const ofGaps = judgeGaps(ordered, delivered, batch);
  const reasons = [
    ...numberReasons(ordered, delivered),
    ...supplierReasons(ordered, delivered),
    ...ofGaps.reasons,
    ...delivered.differsFromSample.map(
      (what): Reason => ({
        code: `differs_${what}`,
        message: `The ${what} differs from the sample.`,
      }),
    ),
    ...lotReasons(ordered.lotHistory),
  ];
  const suspicion = suspicionOf(reasons, ordered.lotHistory);
  const doubts = reasons.filter((reason) => reason.code !== 'short_count' && reason.code !== 'over_count');
  const otherBuild = delivered.differsFromSample.some((what) => what === 'boot' || what === 'core');
  const isDoubtful =
    otherBuild ||
    doubts.length >= REASONS_FOR_QUARANTINE ||
    suspicion >= SUSPICIOUS_FROM ||
    doubts.some((r) => r.code === 'gaps_off' || r.code === 'seller_banned');
  const doubted = isDoubtful ? 'quarantined' : 'accepted';
  const verdict = reasons.some((reason) => reason.code === 'wrong_number') ? 'back_to_supplier' : doubted;
  return { verdict, reasons, suspicion, batch, setAside: Math.min(ofGaps.setAside, delivered.quantity) };
}

function lotReasons({ fitted, early }: LotHistory): readonly Reason[] {
  if (early === 0) return [];
  const message = `${early} of ${fitted} fitted from this lot came out before half of their interval.`;
  return [{ code: 'lot_failed_early', message }];
}

function suspicionOf(reasons: readonly Reason[], { early }: LotHistory): number {
  const points = reasons.map((reason) => SUSPICION_POINTS[reason.code] ?? 0);
  const twice = early > 1 ? (SUSPICION_POINTS.lot_failed_early ?? 0) : 0;
  return points.reduce((sum, p) => sum + p, twice);
}

/** A part of several engines is right when it is right for one of them. */
function batchOf({ gaps }: Ordered, { gapsMm }: Delivered): BatchVerdict | null {
  if (gapsMm.length === 0) return null;
  const batches = gaps.map((gap) => checkGaps(gap, gap.electrode, 'adjust', gapsMm).batch);
  return batches.find(({ verdict }) => verdict === 'good') ?? batches[0] ?? null;
}

function numberReasons(ordered: Ordered, delivered: Delivered): readonly Reason[] {
  const short = ordered.quantity - delivered.quantity;
  return [
    ...(delivered.samePart
      ? []
      : [{ code: 'wrong_number', message: `Ordered ${ordered.number}, the box says ${delivered.number}.` } as const]),
    ...(short > 0 ? [{ code: 'short_count', message: `${short} short of ${ordered.quantity}.` } as const] : []),
    ...(short < 0 ? [{ code: 'over_count', message: `${-short} more than ordered.` } as const] : []),
  ];
}

function supplierReasons(ordered: Ordered, delivered: Delivered): readonly Reason[] {
  const usual = medianOf(ordered.referencePrices);
  const low = delivered.price !== null && usual !== null && delivered.price < usual * LOW_PRICE_SHARE;
  return [
    ...(ordered.sellerBanned === null
      ? []
      : [
          {
            code: 'seller_banned',
            message: `Nothing is taken from ${delivered.source}: ${ordered.sellerBanned}.`,
          } as const,
        ]),
    ...(ordered.approvedSources.length === 0 || ordered.approvedSources.includes(delivered.source)
      ? []
      : [{ code: 'unapproved_source', message: `${delivered.source} is no approved source for this part.` } as const]),
    ...(low
      ? [
          {
            code: 'price_low',
            message: `The price is ${Math.round((100 * (delivered.price ?? 0)) / (usual ?? 1))} % of the usual one.`,
          } as const,
        ]
      : []),
    ...(delivered.lot ? [] : [{ code: 'no_lot', message: 'No lot number: a fault could not be traced.' } as const]),
  ];
}

/** Whether a gap is right for none of the engines that take the part. */
const isOutOfAll = (gaps: Ordered['gaps'], gapMm: Mm): boolean =>
  gaps.length > 0 && gaps.every((gap) => checkGaps(gap, gap.electrode, 'never', [gapMm]).plugs[0]?.action !== 'accept');

/** What the measured gaps say: of the batch as one, or of single plugs that are set aside. */
function judgeGaps(
  { gaps }: Ordered,
  { gapsMm }: Delivered,
  batch: BatchVerdict | null,
): { readonly reasons: readonly Reason[]; readonly setAside: number } {
  if (batch?.verdict === 'wrong_application') {
    const by = `${sayGap(Math.abs(batch.offsetMm))} ${batch.offsetMm > 0 ? 'wide' : 'narrow'}`;
    const message = `All gaps are alike and about ${by}: gapped for another application. Do not bend them; check the number.`;
    return { reasons: [{ code: 'gaps_off', message }], setAside: 0 };
  }
  const out = gapsMm.flatMap((gapMm, i) => (isOutOfAll(gaps, gapMm) ? [i] : []));
  if (out.length * 2 > gapsMm.length) {
    const outGaps = out.flatMap((i) => gapsMm[i] ?? []);
    const range = sayGaps({ min: Math.min(...outGaps), max: Math.max(...outGaps) });
    const message = `${out.length} of ${gapsMm.length} gaps, ${range}, are outside the sheet of every engine that takes this part. Do not bend them; check the number.`;
    return { reasons: [{ code: 'gaps_off', message }], setAside: 0 };
  }
  const dropped = batch?.verdict === 'handling_damage' ? batch.suspects : [];
  const aside = [...new Set([...out, ...dropped])].sort((a, b) => a - b);
  if (aside.length === 0) return { reasons: [], setAside: 0 };
  const which = `Plug ${aside.map((i) => i + 1).join(', ')}`;
  const why =
    out.length === 0 ? 'lies far from the rest: dropped' : 'is outside the sheet of every engine that takes it';
  const message = `${which} ${why}. Set aside: not counted as stock.`;
  return { reasons: [{ code: 'gaps_damaged', message }], setAside: aside.length };
}

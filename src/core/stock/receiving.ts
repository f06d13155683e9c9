import { type BatchVerdict, checkGaps, type Electrode, type GapSpec } from '../gap/check';

/** What was ordered, as the record and the sample know it. */
export interface Ordered {
  readonly number: string;
  readonly quantity: number;
  readonly approvedSources: readonly string[];
  /** Recent prices of one, any currency but the same. */
  readonly referencePrices: readonly number[];
  readonly gap: (GapSpec & { readonly electrode: Electrode }) | null;
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

export const SAMPLE_DIFFERENCES = ['boot', 'core', 'length', 'marking'] as const;
export type SampleDifference = (typeof SAMPLE_DIFFERENCES)[number];

export type ReceivingReason =
  | 'wrong_number'
  | 'short_count'
  | 'over_count'
  | 'unapproved_source'
  | 'price_low'
  | 'no_lot'
  | 'gaps_off'
  | 'gaps_damaged'
  | `differs_${SampleDifference}`;

export interface ReceivingVerdict {
  readonly verdict: 'accepted' | 'quarantined' | 'back_to_supplier';
  readonly reasons: readonly { readonly code: ReceivingReason; readonly message: string }[];
  readonly batch: BatchVerdict | null;
}

/** A price under this share of the median is a reason to look twice. */
export const LOW_PRICE_SHARE = 0.6;
/** So many reasons, and the delivery is set aside. */
const REASONS_FOR_QUARANTINE = 2;

type Reason = ReceivingVerdict['reasons'][number];

/**
 * A delivery against its order and sample. A wrong number goes back; two reasons, or a boot or core that differs from
 * the sample, set it aside; one reason alone is told and accepted. Reasons, never a verdict of forgery.
 */
export function checkDelivery(ordered: Ordered, delivered: Delivered): ReceivingVerdict {
  const batch = batchOf(ordered, delivered);
  const reasons = [
    ...numberReasons(ordered, delivered),
    ...supplierReasons(ordered, delivered),
    ...gapReasons(batch),
    ...delivered.differsFromSample.map(
      (what): Reason => ({
        code: `differs_${what}`,
        message: `The ${what} differs from the sample.`,
      }),
    ),
  ];
  const doubts = reasons.filter((reason) => reason.code !== 'short_count' && reason.code !== 'over_count');
  const otherBuild = delivered.differsFromSample.some((what) => what === 'boot' || what === 'core');
  const verdict = reasons.some((reason) => reason.code === 'wrong_number')
    ? 'back_to_supplier'
    : otherBuild || doubts.length >= REASONS_FOR_QUARANTINE || doubts.some((r) => r.code === 'gaps_off')
      ? 'quarantined'
      : 'accepted';
  return { verdict, reasons, batch };
}

const batchOf = ({ gap }: Ordered, { gapsMm }: Delivered): BatchVerdict | null =>
  gap && gapsMm.length > 0 ? checkGaps(gap, gap.electrode, 'adjust', gapsMm).batch : null;

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

function gapReasons(batch: BatchVerdict | null): readonly Reason[] {
  if (batch?.verdict === 'wrong_application') {
    const by = `${Math.abs(batch.offsetMm).toFixed(2)} mm ${batch.offsetMm > 0 ? 'wide' : 'narrow'}`;
    return [
      {
        code: 'gaps_off',
        message: `All gaps are alike and about ${by}: gapped for another application. Do not bend them; check the number.`,
      },
    ];
  }
  if (batch?.verdict === 'handling_damage')
    return [
      {
        code: 'gaps_damaged',
        message: `Plug ${batch.suspects.map((i) => i + 1).join(', ')} lies far from the rest: dropped. Set it aside.`,
      },
    ];
  return [];
}

function medianOf(values: readonly number[]): number | null {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  if (sorted.length === 0) return null;
  return sorted.length % 2 ? (sorted[middle] ?? null) : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2;
}

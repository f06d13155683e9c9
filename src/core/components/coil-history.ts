import type { PlainDate } from '../calendar/plain-date';

/** Where a coil sat, and for how long; `until` null: it sits there now. */
export interface CoilStay {
  readonly tag: string;
  readonly cylinder: number;
  readonly from: PlainDate;
  readonly until: PlainDate | null;
}

export interface CoilHistory {
  /** Each coil's stays, oldest first, in order of tag. */
  readonly coils: readonly { readonly tag: string; readonly stays: readonly CoilStay[] }[];
  /** Cylinders that have used up more than one coil: the coil may be the victim, not the cause. */
  readonly repeatFailures: readonly { readonly cylinder: number; readonly lost: number }[];
}

/**
 * Sorts the stays of a vehicle's coils by coil and tells which cylinders keep losing them. A coil that moved on to
 * another cylinder was not lost.
 */
export function coilHistory(stays: readonly CoilStay[]): CoilHistory {
  const tags = [...new Set(stays.map((stay) => stay.tag))].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
  const coils = tags.map((tag) => ({
    tag,
    stays: stays
      .filter((stay) => stay.tag === tag)
      .sort((a, b) => a.from.localeCompare(b.from) || (a.until ?? '9999').localeCompare(b.until ?? '9999')),
  }));
  const lost = new Map<number, number>();
  for (const { stays: own } of coils) {
    const last = own.at(-1);
    if (last && last.until !== null) lost.set(last.cylinder, (lost.get(last.cylinder) ?? 0) + 1);
  }
  const repeatFailures = [...lost].filter(([, n]) => n > 1).map(([cylinder, n]) => ({ cylinder, lost: n }));
  return { coils, repeatFailures: repeatFailures.sort((a, b) => b.lost - a.lost || a.cylinder - b.cylinder) };
}

import type { PlainDate } from '../calendar/plain-date';
import type { Certainty } from '../due/due';
import type { Component } from '../engine/quantities';
import { groupBy } from '../shared/group-by';
import type { Km, VehicleId } from '../shared/kinds';

/*
 * What sat where, from when to when, and why it came out. Everything that changes the history of components goes through
 * here: closing an order, recording a change, a swap of coils, an import of old services.
 */

/** Why a part came out. A planned change is no failure: what wears out is counted from these. */
export const REMOVAL_REASONS = [
  'planned',
  'with_other_work',
  'failed',
  'found_damaged',
  'damaged_by_work',
  'wrong_part',
  'recalled_lot',
  'swap',
  'unknown',
] as const;
export type RemovalReason = (typeof REMOVAL_REASONS)[number];

/** Those that a person gives for one part: two that change places are recorded as a swap. */
export const SAID_REASONS: readonly RemovalReason[] = REMOVAL_REASONS.filter((reason) => reason !== 'swap');

/** Reasons that say nothing against the part. */
const NO_FAULT: readonly RemovalReason[] = ['planned', 'with_other_work', 'wrong_part', 'recalled_lot', 'swap'];

/** Where a component sits in one vehicle. */
interface Place {
  readonly vehicleId: VehicleId;
  readonly component: Component;
  readonly cylinder: number;
  readonly position: 'A' | 'B';
}

/** One part in one place: from when, until when (`removedOn` null: it sits there now), under which tag. */
export interface Stay extends Place {
  readonly tag: string | null;
  readonly installedOn: PlainDate;
  /** Life distance of the vehicle, km. */
  readonly installedKm: Km;
  readonly installedKmCertainty: Certainty;
  readonly removedOn: PlainDate | null;
  readonly removedKm: Km | null;
  readonly removedKmCertainty: Certainty | null;
  readonly removalReason: RemovalReason | null;
}

/**
 * How far a part went until it came out.
 *
 * @param stays of one part, oldest first
 * @returns null: it sits there still; `isAbout`: a reading at either end is only about so much
 */
export function ageOf(stays: readonly Stay[]): { readonly km: Km; readonly isAbout: boolean } | null {
  const [first, last] = [stays[0], stays.at(-1)];
  if (!first || !last || last.removedKm === null) return null;
  const isAbout = first.installedKmCertainty !== 'exact' || (last.removedKmCertainty ?? 'exact') !== 'exact';
  return { km: Math.max(0, last.removedKm - first.installedKm), isAbout };
}

/** A stay that ends, with when and why. */
interface End<S> {
  readonly stay: S;
  readonly removedOn: PlainDate;
  readonly removedKm: Km;
  readonly removedKmCertainty: Certainty;
  readonly removalReason: RemovalReason;
}

export interface HistoryChange<S> {
  /** Stays on record whose end is new. */
  readonly ends: readonly End<S>[];
  /** The new stays, each with the end that what came after gives it. */
  readonly starts: readonly S[];
}

/** One key a place: two stays with the same key cannot overlap. */
export const placeKey = ({ vehicleId, component, cylinder, position }: Place): string =>
  `${vehicleId} ${component} ${cylinder}${position}`;

const byInstallation = (a: Stay, b: Stay): number =>
  a.installedOn.localeCompare(b.installedOn) || a.installedKm - b.installedKm;

/** Of two on one day and distance, the one that came out is the earlier: coils may be swapped twice in a day. */
const byTime = (a: Stay, b: Stay): number =>
  byInstallation(a, b) || (a.removedOn ?? '9999').localeCompare(b.removedOn ?? '9999');

/**
 * Puts new stays into what is on record. What goes in takes out what was there before it, and is taken out by what is on
 * record after it; a tagged part that turns up in another place has left the one it was in.
 *
 * @param before every stay on record at these places, and of these tags wherever they are
 * @param fresh new stays; their own ends are worked out here
 * @param reason why a part took out what it replaced: of all, or by the part that took its place
 */
export function insertStays<S extends Stay>(
  before: readonly S[],
  fresh: readonly S[],
  reason: RemovalReason | ((taker: S) => RemovalReason),
): HistoryChange<S> {
  const why = typeof reason === 'string' ? () => reason : reason;
  const all = [...before, ...fresh];
  const isFresh = new Set(fresh);
  const movedOn = nextPlaces(all);
  const ends: End<S>[] = [];
  const starts: S[] = [];
  for (const history of groupBy(all, placeKey).values()) {
    const sorted = [...history].sort(byTime);
    for (const [i, stay] of sorted.entries()) {
      const moved = movedOn.get(stay);
      const end = endOf(stay, sorted[i + 1], moved, why);
      // That it moved may be heard after it was taken for replaced, on the same day.
      const isSwapNow = moved && isFresh.has(moved) && end?.removalReason === 'swap' && stay.removalReason !== 'swap';
      if (isFresh.has(stay)) starts.push({ ...stay, ...(end ?? STILL_THERE) });
      else if (end && (end.removedOn !== stay.removedOn || isSwapNow)) ends.push({ stay, ...end });
    }
  }
  return { ends, starts };
}

const STILL_THERE = { removedOn: null, removedKm: null, removedKmCertainty: null, removalReason: null };

/** How a stay ends: with the next part at its place, or where the part itself went, whichever came first. */
function endOf<S extends Stay>(stay: S, next: S | undefined, moved: S | undefined, why: (taker: S) => RemovalReason) {
  const wentAway = moved && (!next || byInstallation(moved, next) <= 0);
  const taker = wentAway ? moved : next;
  if (!taker) return null;
  return {
    removedOn: taker.installedOn,
    removedKm: taker.installedKm,
    removedKmCertainty: taker.installedKmCertainty,
    removalReason: wentAway && taker.tag === stay.tag ? ('swap' as const) : why(taker),
  };
}

/** For each tagged part, where it went next. */
function nextPlaces<S extends Stay>(stays: readonly S[]): ReadonlyMap<S, S> {
  const next = new Map<S, S>();
  for (const { stays: tagStays } of byTag(stays))
    for (const [i, stay] of tagStays.entries()) {
      const later = tagStays[i + 1];
      if (later) next.set(stay, later);
    }
  return next;
}

/**
 * Two tagged parts of one kind that change places: each keeps its tag, number and age. Null where one of them has no tag, for
 * then nobody could say later which is which.
 *
 * @param km life distance of the vehicle at the swap
 */
export function swapped<S extends Stay>(a: S, b: S, on: PlainDate, km: Km): readonly S[] | null {
  if (a.tag === null || b.tag === null) return null;
  const into = (part: S, { cylinder, position }: Place): S => ({
    ...part,
    ...STILL_THERE,
    cylinder,
    position,
    installedOn: on,
    installedKm: km,
  });
  return [into(a, b), into(b, a)];
}

/** The oldest part that sits there now, by distance; null: nothing is on record. */
export const oldestOf = <S extends Stay>(stays: readonly S[]): S | null =>
  stays
    .filter(({ removedOn }) => removedOn === null)
    .reduce<S | null>((oldest, stay) => (oldest && oldest.installedKm <= stay.installedKm ? oldest : stay), null);

interface TagHistory<S> {
  readonly tag: string;
  /** Oldest first. */
  readonly stays: readonly S[];
}

/** Sorts stays by the tag of the part, oldest first; parts without one are left out. */
export function byTag<S extends Stay>(stays: readonly S[]): readonly TagHistory<S>[] {
  const tagged = stays.flatMap((stay) => (stay.tag === null ? [] : [{ tag: stay.tag, stay }]));
  return [...groupBy(tagged, ({ tag }) => tag)]
    .map(([tag, tagged]) => ({ tag, stays: tagged.map(({ stay }) => stay).sort(byTime) }))
    .sort((a, b) => a.tag.localeCompare(b.tag, 'en', { numeric: true }));
}

/**
 * Cylinders that have used up more than one part: it may be the victim, not the cause. A part that moved on to another
 * cylinder, or came out for no fault of its own, was not lost.
 */
export function repeatFailures(
  stays: readonly Stay[],
): readonly { readonly cylinder: number; readonly lost: number }[] {
  const lost = new Map<number, number>();
  for (const { stays: tagStays } of byTag(stays)) {
    const last = tagStays.at(-1);
    if (!last || last.removedOn === null || NO_FAULT.includes(last.removalReason ?? 'unknown')) continue;
    lost.set(last.cylinder, (lost.get(last.cylinder) ?? 0) + 1);
  }
  return [...lost]
    .filter(([, count]) => count > 1)
    .map(([cylinder, count]) => ({ cylinder, lost: count }))
    .sort((a, b) => b.lost - a.lost || a.cylinder - b.cylinder);
}

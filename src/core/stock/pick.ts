/** What lies on the shelf under one number. */
export interface Box {
  readonly number: string;
  /** Null: nobody counts it. */
  readonly onHand: number | null;
}

interface PickLine {
  readonly number: string;
  readonly count: number;
}

export type BoxPick =
  /** Of the part itself, under one or several of its numbers: boxes of a renumbering may be mixed. */
  | { readonly kind: 'own'; readonly lines: readonly PickLine[]; readonly newest: string }
  /** Not enough of the part itself, and a whole set of its redesign: the two are never mixed. */
  | { readonly kind: 'redesign'; readonly lines: readonly PickLine[] }
  | { readonly kind: 'short'; readonly lines: readonly PickLine[]; readonly missing: number }
  | { readonly kind: 'uncounted' };

/**
 * Which boxes to take for a job. Old numbers go first, so that they do not lie for ever; a redesign is taken for the whole set
 * or not at all.
 *
 * @param wanted parts, above 0
 * @param own the part under all its numbers, oldest first
 * @param redesign what replaces it by a redesign, under all its numbers, oldest first
 */
export function pickBoxes(wanted: number, boxes: readonly Box[], redesign: readonly Box[]): BoxPick {
  const counted = boxes.filter(({ onHand }) => onHand !== null);
  const lines = takeFrom(counted, wanted);
  const newest = boxes.at(-1)?.number ?? '';
  if (total(lines) === wanted) return { kind: 'own', lines, newest };
  const instead = takeFrom(redesign, wanted);
  if (total(instead) === wanted) return { kind: 'redesign', lines: instead };
  return counted.length === 0 ? { kind: 'uncounted' } : { kind: 'short', lines, missing: wanted - total(lines) };
}

const total = (lines: readonly PickLine[]): number => lines.reduce((sum, { count }) => sum + count, 0);

function takeFrom(boxes: readonly Box[], wanted: number): readonly PickLine[] {
  let left = wanted;
  return boxes.flatMap(({ number, onHand }) => {
    const count = Math.min(left, onHand ?? 0);
    left -= count;
    return count > 0 ? [{ number, count }] : [];
  });
}

/** What to take off the shelf, in one sentence. */
export function pickWords(pick: BoxPick): string {
  switch (pick.kind) {
    case 'own':
      return `Take ${listed(pick.lines)}${renumberedWords(pick.lines, pick.newest)}.`;
    case 'redesign':
      return `Take ${listed(pick.lines)}: a redesign, so the whole set of it. Leave the old boxes on the shelf, never mix the two.`;
    case 'short':
      return `Short by ${pick.missing}${pick.lines.length > 0 ? `: only ${listed(pick.lines)} on the shelf` : ': none on the shelf'}. Do not open the engine before they are here.`;
    case 'uncounted':
      return 'Nobody counts this part: see that all are there before the engine is opened.';
  }
}

function renumberedWords(lines: readonly PickLine[], newest: string): string {
  if (lines.length > 1) return ': the same part under its older and its newer number, boxes may be mixed';
  return lines[0]?.number === newest ? '' : `: the older number of ${newest}, the same part`;
}

const listed = (lines: readonly PickLine[]): string =>
  lines.map(({ number, count }) => `${count} × ${number}`).join(' and ');

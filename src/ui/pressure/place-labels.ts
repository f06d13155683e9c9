interface Wanted {
  readonly id: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

interface Label extends Wanted {
  /** Middle of the text. */
  readonly at: Point;
}

interface Point {
  readonly x: number;
  readonly y: number;
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** What a label should stand clear of. */
interface Around {
  /** Places that are not free, such as labels of lines. */
  readonly taken?: readonly Box[];
  /** Middles of the rings. */
  readonly rings?: readonly Point[];
  /** Points along the lines, close enough that no label fits between two. */
  readonly lines?: readonly Point[];
}

const CHARACTER = 7.6;
const LINE = 14;
const RING = 6;
/** How far from its ring a label stands at first, and at most. */
const [CLEAR, FAR] = [12, 22];
/** What it costs to lie on a ring, on a line, and to stand further away than needed. */
const COSTS = { ring: 10, line: 2, far: 1 };

/**
 * Finds a place for each label beside its point, the first wanted first. No two overlap, and none leaves the area: a label
 * without such a place is left out. Of the places that are left it takes one clear of rings and lines, else the one that
 * hides least.
 */
export function placeLabels(
  wanted: readonly Wanted[],
  area: Box,
  { taken = [], rings = [], lines = [] }: Around = {},
): readonly Label[] {
  const used = [...taken];
  return wanted.flatMap((label) => {
    const half = (label.text.length * CHARACTER) / 2;
    const boxOf = (at: Point): Box => ({
      left: at.x - half,
      right: at.x + half,
      top: at.y - LINE / 2,
      bottom: at.y + LINE / 2,
    });
    const near = nearTo(label, half);
    const [nearRings, nearLines] = [rings.filter(near), lines.filter(near)];
    const costOf = (box: Box, far: number): number =>
      COSTS.ring * nearRings.filter((ring) => covers(box, ring, RING)).length +
      COSTS.line * Number(nearLines.some((point) => covers(box, point, 0))) +
      COSTS.far * far;
    const [best] = placesAbout(label, half)
      .map(({ at, far }) => ({ at, box: boxOf(at), far }))
      .filter(({ box }) => inside(box, area) && !used.some((other) => overlap(box, other)))
      .map((place) => ({ ...place, cost: costOf(place.box, place.far) }))
      .sort((a, b) => a.cost - b.cost);
    if (!best) return [];
    used.push(best.box);
    return [{ ...label, at: best.at }];
  });
}

/** Whether a point can lie under any of the places of a label: of the many there are, few can. */
const nearTo =
  ({ x, y }: Point, half: number) =>
  (point: Point): boolean =>
    Math.abs(point.x - x) <= 2 * half + FAR + RING && Math.abs(point.y - y) <= FAR + LINE + RING;

/** Above, below, left, right and between, near first. */
function placesAbout({ x, y }: Point, half: number): readonly { readonly at: Point; readonly far: number }[] {
  return [CLEAR, FAR].flatMap((clear, far) => [
    { at: { x, y: y - clear }, far },
    { at: { x, y: y + clear + 4 }, far },
    { at: { x: x - half - clear, y }, far },
    { at: { x: x + half + clear, y: y - LINE / 2 }, far },
    { at: { x: x - half - clear, y: y - clear }, far },
    { at: { x: x + half + clear, y: y + clear }, far },
    { at: { x: x - half - clear, y: y + clear }, far },
  ]);
}

const covers = (box: Box, { x, y }: Point, reach: number): boolean =>
  x + reach > box.left && x - reach < box.right && y + reach > box.top && y - reach < box.bottom;

const inside = (box: Box, area: Box): boolean =>
  box.left >= area.left && box.right <= area.right && box.top >= area.top && box.bottom <= area.bottom;

const overlap = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

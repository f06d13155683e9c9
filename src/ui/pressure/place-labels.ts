interface Wanted {
  readonly id: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
}

interface Label extends Wanted {
  /** Middle of the text. */
  readonly at: { readonly x: number; readonly y: number };
}

interface Box {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

const CHARACTER = 7.6;
const LINE = 14;
const CLEAR = 12;

/**
 * Finds a place for each label beside its point, the first wanted first: above, below, left or right of it. A label that
 * would lie on another or leave the area is left out; no two overlap.
 *
 * @param taken places that are not free, such as labels of lines
 */
export function placeLabels(wanted: readonly Wanted[], area: Box, taken: readonly Box[] = []): readonly Label[] {
  const used = [...taken];
  return wanted.flatMap((label) => {
    const half = (label.text.length * CHARACTER) / 2;
    const places = [
      { x: label.x, y: label.y - CLEAR },
      { x: label.x, y: label.y + CLEAR + 4 },
      { x: label.x - half - CLEAR, y: label.y },
      { x: label.x + half + CLEAR, y: label.y - LINE / 2 },
    ];
    for (const at of places) {
      const box = { left: at.x - half, right: at.x + half, top: at.y - LINE / 2, bottom: at.y + LINE / 2 };
      if (!inside(box, area) || used.some((other) => overlap(box, other))) continue;
      used.push(box);
      return [{ ...label, at }];
    }
    return [];
  });
}

const inside = (box: Box, area: Box): boolean =>
  box.left >= area.left && box.right <= area.right && box.top >= area.top && box.bottom <= area.bottom;

const overlap = (a: Box, b: Box): boolean =>
  a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom;

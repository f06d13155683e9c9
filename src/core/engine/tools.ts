import type { Mm } from '../shared/kinds';
import { MM_PER_INCH } from '../units/unit';

/** Inch sockets sold for plugs, in sixteenths. */
const INCH_SOCKETS: readonly (readonly [string, number])[] = [
  ['9/16 in', 9 / 16],
  ['5/8 in', 5 / 8],
  ['11/16 in', 11 / 16],
  ['3/4 in', 3 / 4],
  ['13/16 in', 13 / 16],
];
/** A socket may be this much wider than the hexagon, mm, and a little tighter for a worn one. Source: trade guidance. */
const LOOSEST_MM = 0.35;
const TIGHTEST_MM = -0.2;

/** The sockets that fit a plug's hexagon, in words: 16 mm and 5/8 in go for each other, and so do 14 mm and 9/16 in. */
export function socketsFor(hexMm: Mm): string {
  const inch = INCH_SOCKETS.map(([name, inches]) => ({ name, mm: inches * MM_PER_INCH })).find(
    ({ mm }) => mm - hexMm <= LOOSEST_MM && mm - hexMm >= TIGHTEST_MM,
  );
  return inch ? `${hexMm} mm, or ${inch.name} (${inch.mm.toFixed(2)} mm)` : `${hexMm} mm`;
}

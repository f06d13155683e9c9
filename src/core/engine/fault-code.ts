import { coilOf } from './coils';
import { type Layout, siteName, siteWhere } from './layout';

/* A fault code that names a cylinder, in the words of this engine: which cylinder, and where its well is. */

/** Generic codes of ignition, P0 and three digits: misfire by cylinder, and coil circuits. Source: SAE J2012. */
const MISFIRE_ANYWHERE = 300;
const MISFIRE = { before: 300, of: 16 };
const COIL_CIRCUIT = { before: 350, of: 12 };

/** Which of a row of codes it is, from 1; null: none of them. */
const nth = (code: number, { before, of }: { readonly before: number; readonly of: number }): number | null =>
  code > before && code <= before + of ? code - before : null;

/**
 * What a code says of this engine: "misfire, cylinder 3: rear bank, 2nd of 3 from the left". Null: it names no cylinder that
 * is known here, or is no code of ignition.
 */
export function sayCode(layout: Layout, code: string): string | null {
  const number = Number(/^P0(3\d\d)$/i.exec(code.trim())?.[1] ?? 0);
  if (number === MISFIRE_ANYWHERE) return 'misfire, at no cylinder alone';
  const misfire = nth(number, MISFIRE);
  const coil = misfire === null ? nth(number, COIL_CIRCUIT) : null;
  const cylinder = misfire ?? coil;
  const sites = layout.sites.filter((site) => site.cylinder === cylinder);
  const [first] = sites;
  if (!first || cylinder === null) return null;
  const where = siteWhere(layout, first);
  if (coil !== null) return `coil circuit ${coil}: coil ${coilOf(layout.model, first)?.name ?? coil}, ${where}`;
  const names = sites.length > 1 ? ` (sites ${sites.map((site) => siteName(layout, site)).join(' and ')})` : '';
  return `misfire, cylinder ${cylinder}: ${where}${names}`;
}

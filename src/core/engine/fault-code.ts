import { coilOf } from './coils';
import { type Layout, siteName, siteWhere } from './layout';

/* A fault code that names a cylinder, in the words of this engine: which cylinder, and where its well is. */

/** Generic codes of ignition, P0 and three digits: misfire by cylinder, coil and injector circuits. Source: SAE J2012. */
const MISFIRE_ANYWHERE = 300;
const INJECTOR_CIRCUIT = { before: 200, cylinders: 12 };
const MISFIRE = { before: 300, cylinders: 16 };
const COIL_CIRCUIT = { before: 350, cylinders: 12 };

const CODE = /\b[PBCU][0-3][0-9A-F]{3}\b/gi;

/** Every fault code in a text, each once, in its order: typed by hand, or what another program printed. */
export const codesIn = (text: string): readonly string[] => [
  ...new Set(Array.from(text.matchAll(CODE), ([code]) => code.toUpperCase())),
];

/** Which of a row of codes it is, from 1; null: none of them. */
const nth = (
  code: number,
  { before, cylinders }: { readonly before: number; readonly cylinders: number },
): number | null => (code > before && code <= before + cylinders ? code - before : null);

/** Codes of the mixture: which bank, from 1, and what it is. Source: SAE J2012. */
const MIXTURE: Readonly<Record<string, readonly [bank: number, says: string]>> = {
  P0171: [1, 'mixture too lean'],
  P0172: [1, 'mixture too rich'],
  P0174: [2, 'mixture too lean'],
  P0175: [2, 'mixture too rich'],
  P2096: [1, 'too lean behind the catalyst'],
  P2097: [1, 'too rich behind the catalyst'],
  P2098: [2, 'too lean behind the catalyst'],
  P2099: [2, 'too rich behind the catalyst'],
};

/** The cylinders that a code names; empty: none, or none of this engine. */
export function codeCylinders(layout: Layout, code: string): readonly number[] {
  const plain = code.trim().toUpperCase();
  const mixture = MIXTURE[plain];
  if (mixture) return layout.model.banks[mixture[0] - 1]?.cylinders ?? [];
  const number = Number(/^P0(\d{3})$/.exec(plain)?.[1] ?? 0);
  const cylinder = nth(number, MISFIRE) ?? nth(number, COIL_CIRCUIT) ?? nth(number, INJECTOR_CIRCUIT);
  return layout.sites.some((site) => site.cylinder === cylinder) && cylinder !== null ? [cylinder] : [];
}

function sayMixture(layout: Layout, code: string): string | null {
  const mixture = MIXTURE[code];
  if (!mixture) return null;
  const [number, says] = mixture;
  const bank = layout.model.banks[number - 1];
  if (!bank) return null;
  return layout.model.banks.length > 1 ? `${says}, bank ${number}: the ${bank.place} one` : says;
}

/**
 * What a code says of this engine: "misfire, cylinder 3: rear bank, 2nd of 3 from the left". Null: it names no cylinder that
 * is known here, or is no code of ignition.
 */
export function sayCode(layout: Layout, code: string): string | null {
  const mixture = sayMixture(layout, code.trim().toUpperCase());
  if (mixture !== null) return mixture;
  const number = Number(/^P0([23]\d\d)$/i.exec(code.trim())?.[1] ?? 0);
  if (number === MISFIRE_ANYWHERE) return 'misfire, at no cylinder alone';
  const coil = nth(number, COIL_CIRCUIT);
  const injector = nth(number, INJECTOR_CIRCUIT);
  const cylinder = nth(number, MISFIRE) ?? coil ?? injector;
  const sites = layout.sites.filter((site) => site.cylinder === cylinder);
  const [first] = sites;
  if (!first || cylinder === null) return null;
  const where = siteWhere(layout, first);
  if (coil !== null) return `coil circuit ${coil}: coil ${coilOf(layout.model, first)?.name ?? coil}, ${where}`;
  if (injector !== null) return `injector circuit ${injector}: ${where}`;
  const names = sites.length > 1 ? ` (plugs ${sites.map((site) => siteName(layout, site)).join(' and ')})` : '';
  return `misfire, cylinder ${cylinder}: ${where}${names}`;
}

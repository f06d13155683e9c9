import type { Nm } from '../shared/kinds';
import { roundTo } from '../units/round';
import { saySmallTorque, saySmallTorques } from '../units/say';
import { NM_PER_LBF_FT, NM_PER_LBF_IN } from '../units/unit';

/** How a bank is reached, the easiest first. */
export const ACCESS_CLASSES = ['open', 'cover', 'side', 'by_feel', 'under_intake'] as const;
export type AccessClass = (typeof ACCESS_CLASSES)[number];

export interface BankAccess {
  readonly access: AccessClass;
  /** Bay time for this bank's plugs, minutes, opening and closing included. */
  readonly minutes: number;
}

export const TIGHTENING_ORDERS = ['any', 'centre_outward', 'crosswise'] as const;
export type TighteningOrder = (typeof TIGHTENING_ORDERS)[number];

export const FASTENER_SIZES = ['M5', 'M6', 'M7', 'M8', 'M10'] as const;
export type FastenerSize = (typeof FASTENER_SIZES)[number];

/** What a screw holds: it says when it is taken out and when it is counted back. */
export const FASTENER_PLACES = ['cover', 'intake', 'coil', 'other'] as const;
type FastenerPlace = (typeof FASTENER_PLACES)[number];

/** A screw that is opened on the way: its own small torque, never that of the plug. */
export interface Fastener {
  readonly what: string;
  readonly holds: FastenerPlace;
  readonly size: FastenerSize;
  readonly count: number;
  readonly torqueNm: Nm;
  readonly order: TighteningOrder;
  /** Stays in its part when loosened, so it is not counted out and in. */
  readonly captive: boolean;
}

/** Usual torque of a screw into aluminium or an insert, N·m. Source: general trade guidance for class 8.8; the sheet wins. */
const USUAL_FASTENER_NM: Readonly<Record<FastenerSize, { readonly min: number; readonly max: number }>> = {
  M5: { min: 3, max: 6 },
  M6: { min: 6, max: 12 },
  M7: { min: 10, max: 16 },
  M8: { min: 15, max: 28 },
  M10: { min: 30, max: 50 },
};

/** Says why a fastener's torque is doubted and names the unit slip that would explain it. Null when it is usual. */
export function doubtOfFastener(size: FastenerSize, torqueNm: Nm): string | null {
  const band = USUAL_FASTENER_NM[size];
  const fits = (nm: Nm): boolean => nm >= band.min * 0.75 && nm <= band.max * 1.25;
  if (fits(torqueNm)) return null;
  const slips: readonly (readonly [string, string, number])[] = [
    ['lbf·in', 'lbf·ft', NM_PER_LBF_IN / NM_PER_LBF_FT],
    ['lbf·in', 'N·m', NM_PER_LBF_IN],
    ['N·m', 'lbf·in', 1 / NM_PER_LBF_IN],
    ['lbf·ft', 'lbf·in', NM_PER_LBF_FT / NM_PER_LBF_IN],
  ];
  const fitting = slips
    .filter(([, , factor]) => fits(torqueNm * factor))
    .map(([was, read]) => `${was} read as ${read}`);
  const hint = fitting.length > 0 ? `Was ${fitting.join(', or ')}?` : 'Check figure and unit.';
  return `${saySmallTorque(torqueNm)} is far from the usual ${saySmallTorques(band)} for an ${size} screw here. ${hint}`;
}

/**
 * The order in which a row of fasteners is tightened, as their numbers along the row from 1.
 * From the centre outward a part lies down flat instead of bridging.
 *
 * @throws RangeError when count is not a positive whole number
 */
export function tighteningOrder(count: number, order: TighteningOrder): readonly number[] {
  if (!Number.isInteger(count) || count < 1) throw new RangeError(`tighteningOrder: got ${count}`);
  const row = Array.from({ length: count }, (_, i) => i + 1);
  if (order === 'any') return row;
  if (order === 'crosswise') {
    const half = Math.ceil(count / 2);
    return row.slice(0, half).flatMap((n, i) => [n, ...row.slice(half + i, half + i + 1)]);
  }
  const middle = (count + 1) / 2;
  return row.sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle) || a - b);
}

/**
 * Fasteners as a person lists them: "coil bolt M6 x4 9 N·m; intake bolt M8 x8 20 N·m centre outward; cover clip bolt M6 x3 8 N·m captive".
 * What each holds is told by its name, or said after it: "long screw M6 x2 9 N·m holds cover".
 *
 * @param torqueNm reads a torque with its unit; null where it cannot be read
 * @returns the list, or in words what is wrong with the first entry that cannot be read
 */
export function fastenersFromText(
  text: string,
  torqueNm: (text: string) => number | null,
): { readonly ok: true; readonly value: readonly Fastener[] } | { readonly ok: false; readonly error: string } {
  const list: Fastener[] = [];
  for (const entry of text
    .split(/[;|]/)
    .map((part) => part.trim())
    .filter(Boolean)) {
    const match =
      entry.length > 120 ? null : /^(.+?)\s+(M\d+)\s*[x×]\s*(\d{1,2})\s+([\d.,]+\s*[^\d\s][^\s]*)\s*(.*)$/i.exec(entry);
    const size = FASTENER_SIZES.find((known) => known === match?.[2]?.toUpperCase());
    const nm = match?.[4] ? torqueNm(match[4]) : null;
    if (!match || !size || nm === null)
      return {
        ok: false,
        error: `“${entry}” cannot be read. Write it like “coil bolt M6 x4 9 N·m”, sizes ${FASTENER_SIZES.join(', ')}`,
      };
    const doubt = doubtOfFastener(size, nm);
    if (doubt) return { ok: false, error: `${match[1]}: ${doubt}` };
    const rest = (match[5] ?? '').toLowerCase();
    const count = Number(match[3]);
    if (count < 1) return { ok: false, error: `${match[1]}: give how many there are` };
    list.push({
      what: match[1] ?? '',
      holds: holdsOf(match[1] ?? '', rest),
      size,
      count,
      torqueNm: nm,
      order: orderOf(rest),
      captive: rest.includes('captive'),
    });
  }
  return { ok: true, value: list };
}

/** Where a list does not say what a screw holds, its name does: read once, kept as a fact. */
const NAME_WORDS: readonly (readonly [FastenerPlace, RegExp])[] = [
  ['intake', /intake|manifold|duct/i],
  ['cover', /cover|cowl/i],
  ['coil', /coil|rail/i],
];

function holdsOf(name: string, rest: string): FastenerPlace {
  const named = FASTENER_PLACES.find((place) => rest.includes(`holds ${place}`));
  return named ?? NAME_WORDS.find(([, word]) => word.test(name))?.[0] ?? 'other';
}

function orderOf(rest: string): TighteningOrder {
  if (/cent(re|er) outward/.test(rest)) return 'centre_outward';
  return rest.includes('cross') ? 'crosswise' : 'any';
}

const ORDER_WORDS: Readonly<Record<TighteningOrder, string>> = {
  any: '',
  centre_outward: ' centre outward',
  crosswise: ' crosswise',
};

/** The list that `fastenersFromText` reads back. */
export const fastenersText = (list: readonly Fastener[]): string =>
  list
    .map(
      (f) =>
        `${f.what} ${f.size} x${f.count} ${roundTo(f.torqueNm, 2)} N·m${ORDER_WORDS[f.order]}${f.captive ? ' captive' : ''} holds ${f.holds}`,
    )
    .join('; ');

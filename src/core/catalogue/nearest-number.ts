import { partKey } from './match';

export interface NearNumber {
  readonly number: string;
  /** What was slipped, in words. */
  readonly why: string;
}

/** Characters that are read for each other off a worn part or a poor print. */
const LOOK_ALIKE: readonly (readonly [string, string])[] = [
  ['0', 'O'],
  ['1', 'I'],
  ['1', 'L'],
  ['5', 'S'],
  ['8', 'B'],
  ['2', 'Z'],
  ['6', 'G'],
];

/**
 * Known numbers that differ from a typed one by a single slip: two characters swapped, one wrong, missing or doubled,
 * or one read for a look-alike. A near number is offered, never taken.
 *
 * @returns at most five, look-alikes and swaps first
 */
export function nearestNumbers(typed: string, known: readonly string[]): readonly NearNumber[] {
  const key = partKey(typed);
  if (key.length < 3) return [];
  return known
    .flatMap((number) => {
      const slip = slipBetween(key, partKey(number));
      return slip ? [{ number, why: slip.why, rank: slip.rank }] : [];
    })
    .sort((a, b) => a.rank - b.rank || a.number.localeCompare(b.number))
    .slice(0, 5)
    .map(({ number, why }) => ({ number, why }));
}

function slipBetween(typed: string, real: string): { why: string; rank: number } | null {
  if (typed === real) return null;
  if (typed.length === real.length) return sameLength(typed, real);
  const [longer, shorter] = typed.length > real.length ? [typed, real] : [real, typed];
  if (longer.length - shorter.length !== 1) return null;
  const at = [...longer].findIndex((c, i) => c !== shorter[i]);
  if (longer.slice(0, at) + longer.slice(at + 1) !== shorter) return null;
  return longer === typed
    ? { why: `one character too many: ${longer[at]}`, rank: 2 }
    : { why: `one character is missing: ${longer[at]}`, rank: 2 };
}

function sameLength(typed: string, real: string): { why: string; rank: number } | null {
  const wrong = [...typed].flatMap((c, i) => (c === real[i] ? [] : [i]));
  const [a = 0, b] = wrong;
  if (wrong.length === 1) {
    const pair = [typed[a] ?? '', real[a] ?? ''];
    const alike = LOOK_ALIKE.some((like) => like.every((c) => pair.includes(c)));
    return { why: alike ? `${pair[0]} read for ${pair[1]}` : `${pair[0]} in place of ${pair[1]}`, rank: alike ? 0 : 3 };
  }
  if (wrong.length === 2 && b === a + 1 && typed[a] === real[b] && typed[b] === real[a])
    return { why: `${real[a]} and ${real[b]} swapped`, rank: 1 };
  return null;
}

/* What people and manuals write, in the signs that the readers know. */

const VULGAR: Readonly<Record<string, number>> = {
  '½': 1 / 2,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
};
const VULGAR_SIGNS = Object.keys(VULGAR).join('');
const decimal = (value: number): string => String(Number(value.toFixed(6)));

/**
 * One sign for each meaning: full-width figures, every dash and every dot between units, fractions, "about" and a plus in front.
 *
 * @returns text with ASCII digits, "-" and "·"; what it does not know stays
 */
export function plainText(text: string): string {
  return text
    .replace(/[\uff01-\uff5e]/gu, (wide) => String.fromCharCode(wide.charCodeAt(0) - 0xfee0))
    .replace(/[\u2010-\u2015\u2212]/gu, '-')
    .replace(/[\u22c5\u2022\u2219\u30fb\u2027]/gu, '·')
    .replace(/[µμ]/gu, 'u')
    .replace(new RegExp(`(\\d*)\\s*([${VULGAR_SIGNS}])`, 'gu'), (_, whole: string, part: string) =>
      decimal(Number(whole) + (VULGAR[part] ?? 0)),
    )
    .replace(INCH_FRACTION, (_, whole: string | undefined, over: string, under: string) =>
      decimal(Number(whole ?? 0) + Number(over) / Number(under)),
    )
    .replace(/^\s*(?:~|≈|about|approx\.?|ca\.?)\s*(?=[\d.,])/iu, '')
    .replace(/^\s*\+\s*(?=[\d.,])/u, '')
    .trim();
}

/** Sixty-fourths and the like: only inches are written so. */
const INCH_FRACTION = /(?:\b(\d+)[\s-]+)?\b(\d{1,2})\/(2|4|8|16|32|64|128)(?=\s*(?:in\b|inch|["″”]))/giu;

/** A figure in which a letter stands for a digit, with the digit put in; null: there is none. */
export function withDigits(text: string): string | null {
  const start = /^(?=[\d.,OolI]*\d)(?=[\d.,]*[OolI])[\d.,OolI]+(?![a-z])/u.exec(text)?.[0];
  if (!start) return null;
  return start.replace(/[Oo]/gu, '0').replace(/[lI]/gu, '1') + text.slice(start.length);
}

/** Two figures of one quantity: "28 Nm (21 lb-ft)". Null: only one stands there. */
export function twice(text: string): readonly [string, string] | null {
  const found = /^([^()[\]]+?)\s*[([]\s*([^()[\]]+?)\s*[)\]]$/u.exec(text);
  return found?.[1] && found[2] ? [found[1], found[2]] : null;
}

/** What a text is that is no single figure, in words; null: it may be one. */
export function notAFigure(text: string): string | null {
  if (/\b(turns?|deg(rees?)?)\b|°/iu.test(text)) return 'a turn: an angle from finger-tight, and no torque';
  if (/\d\s*(?:[a-z"·/]+(?:[\s·-]*[a-z]+)?\s*)?(?:±|\+\/-|\+-)\s*[\d.,]/iu.test(text))
    return 'a figure with its tolerance';
  return /[\d.,]k?\s*(?:[a-z"·/]+)?\s*(?:\bto\b|\.\.\.?|(?<!e)-)\s*[.,]?\d/iu.test(text) ? 'a range' : null;
}

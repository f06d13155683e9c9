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
const mixed = (_: string, whole: string | undefined, over: string, under: string): string =>
  decimal(Number(whole ?? 0) + Number(over) / Number(under));

/**
 * One sign for each meaning: full-width figures, every dash and every dot between units, fractions, "about" and a plus in front.
 *
 * @returns text with ASCII digits, "-" and "·"; what it does not know stays
 */
export function plainText(text: string): string {
  return (
    text
      .replace(/[\uff01-\uff5e]/gu, (wide) => String.fromCharCode(wide.charCodeAt(0) - 0xfee0))
      .replace(/[\u2010-\u2015\u2212]/gu, '-')
      .replace(/[\u22c5\u2022\u2219\u30fb\u2027]/gu, '·')
      .replace(/[µμ]/gu, 'u')
      .replace(new RegExp(`(\\d*)\\s*([${VULGAR_SIGNS}])`, 'gu'), (_, whole: string, part: string) =>
        decimal(Number(whole) + (VULGAR[part] ?? 0)),
      )
      .replace(/(\d|^)·(?=\d)/gu, '$1.')
      .replace(/(\d)\s*\.\s+(?=\d)|(\d)\s+\.(?=\d)/gu, '$1$2.')
      // "28, 30" are two figures; "0, 8", "22, 5" and "104, 000" are one.
      .replace(/\b0\s*,\s+(?=\d)/gu, '0,')
      .replace(/(\d)\s*,\s+(?=(?:\d|\d{3})(?!\d))/gu, '$1,')
      .replace(HALVES, mixed)
      .replace(PARTS_OF_MM, mixed)
      .replace(INCH_FRACTION, mixed)
      .replace(/^\s*[~≈]\s*(?=[\d.,])/u, '')
      .replace(/^\s*\+\s*(?=[\d.,])/u, '')
      .trim()
  );
}

/** Sixty-fourths and the like: only inches are written so. */
const INCH_FRACTION =
  /(?:\b(\d+)[\s-]+)?\b(\d{1,3})\s*\/\s*(2|4|8|16|32|64|128|1000)(?:ths)?(?=\s*(?:of an\s*)?(?:ins?\b|inch|["″”]))(?:\s*of an)?/giu;
/** "20 1/2", "20-1/2": a half, a quarter or an eighth behind a whole; a turn is none. */
const HALVES = /\b(\d+)(?:\s+|\s?-)([1357])\/([248])(?!\d)(?!\s*(?:turn|in\b|inch|["″”]))/giu;
/** "8/10 mm", "80/100 mm". */
const PARTS_OF_MM = /(?:\b(\d+)\s+)?\b(\d{1,2})\s*\/\s*(10|100)(?=\s*mm\b)/giu;

/** A figure in which a letter stands for a digit, with the digit put in; null: there is none. */
export function withDigits(text: string): string | null {
  const start = /^(?=[\d.,OolI]*\d)[\d.,OolI]+(?![a-z])/u.exec(text)?.[0];
  if (!start || !/[OolI]/u.test(start)) return null;
  return start.replace(/[Oo]/gu, '0').replace(/[lI]/gu, '1') + text.slice(start.length);
}

const BETWEEN =
  /\s*(?:[([](?:\s*=)?|[^\p{L}\p{N}\s.+"″”)]|\s\.\s|\b(?:or|and|equals|aka)\b)\s*(?=[.,]?\d)|(?<=\p{L}|["″”.])(?<!\bto)\s+(?=[.,]?\d)/giu;

/**
 * Two figures of one quantity: "28 Nm (21 lb-ft)", "28 Nm / 21 lb-ft", "28 Nm 21 lb-ft".
 *
 * @param unitOf the name of the unit that a text ends with, or null
 * @returns both figures; null: only one stands there, or a range, both ends of which are in one unit
 */
export function twice(text: string, unitOf: (text: string) => string | null): readonly [string, string] | null {
  for (const match of text.matchAll(BETWEEN)) {
    const [left, other] = [text.slice(0, match.index), text.slice(match.index + match[0].length)];
    const [first, second] = [unitOf(left), unitOf(other.replace(/[)\]]$/u, ''))];
    if (first === null || (/-/u.test(match[0]) && (second === null || first === second))) continue;
    return [left, other.replace(/[)\]]$/u, '')];
  }
  return null;
}

/** What a text is that is no single figure, in words; null: it may be one. */
export function notAFigure(text: string): string | null {
  if (/\b(turns?|deg(rees?)?)\b|°/iu.test(text)) return 'a turn: an angle from finger-tight, and no torque';
  if (/\d\s*(?:[a-z"·/]+(?:[\s·-]*[a-z]+)?\s*)?(?:±|\+\/-|\+-)\s*[\d.,]/iu.test(text))
    return 'a figure with its tolerance';
  return /[\d.,]k?\s*(?:[a-z"·/]+)?\s*(?:\bto\b|\.\.\.?|(?<!e)-)\s*[.,]?\d/iu.test(text) ? 'a range' : null;
}

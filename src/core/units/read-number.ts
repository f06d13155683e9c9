/** No number that a person types is longer. */
const MAX_TEXT = 60;

/**
 * Numbers as people type them: "0,8", ".030", "104 000", "104,000", "1.234,5", "104k", "1.2M", "8e-1".
 *
 * @param text a number without its unit
 * @returns every value the text can mean, most usual first: none if it is no number, two where a separator before
 *   exactly three digits may be a decimal mark or a thousands mark. Never negative.
 */
export function readNumber(text: string): readonly number[] {
  if (text.length > MAX_TEXT) return [];
  const compact = text.trim().replace(/[\s\u00a0\u202f\u2009'’_]+(?=\d{3}(\D|$))/g, '');
  if (/^\d+([.,]\d+)?e[+-]?\d{1,2}$/i.test(compact)) return [Number(compact.replace(',', '.'))];
  const scaled = /^(.*\d)\s*([kKM])$/.exec(compact);
  const digits = scaled?.[1] ?? compact;
  if (!/^[\d.,]*\d[\d.,]*$/.test(digits)) return [];
  const scale = SCALES[scaled?.[2]?.toLowerCase() ?? ''] ?? 1;
  return interpretations(digits).map((plain) => Number((Number(plain) * scale).toPrecision(15)));
}

const SCALES: Readonly<Record<string, number>> = { k: 1000, m: 1_000_000 };

function interpretations(digits: string): readonly string[] {
  const marks = digits.replace(/\d/g, '');
  if (marks === '') return [digits];
  const distinct = new Set(marks);
  if (distinct.size === 2) return twoMarks(digits);
  const mark = marks.charAt(0);
  if (marks.length > 1) return isGrouped(digits, mark) ? [digits.replaceAll(mark, '')] : [];
  const decimal = digits.replace(mark, '.');
  const ambiguous = /^[1-9]\d{0,2}[.,]\d{3}$/.test(digits);
  if (!ambiguous) return [decimal];
  const grouped = digits.replace(mark, '');
  return mark === ',' ? [grouped, decimal] : [decimal, grouped];
}

/** With both marks present the last one is the decimal mark, and the other must group by three. */
function twoMarks(digits: string): readonly string[] {
  const decimalAt = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  const whole = digits.slice(0, decimalAt);
  const groupMark = digits.charAt(decimalAt) === '.' ? ',' : '.';
  const fraction = digits.slice(decimalAt + 1);
  return isGrouped(whole, groupMark) && /^\d+$/.test(fraction)
    ? [`${whole.replaceAll(groupMark, '')}.${fraction}`]
    : [];
}

function isGrouped(digits: string, mark: string): boolean {
  const [first = '', ...rest] = digits.split(mark);
  const isByTwos = mark === ',' && /^\d{1,2}(,\d{2})+,\d{3}$/.test(digits);
  return isByTwos || (/^\d{1,3}$/.test(first) && rest.length > 0 && rest.every((group) => /^\d{3}$/.test(group)));
}

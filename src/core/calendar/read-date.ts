import { fromParts, type PlainDate } from './plain-date';

export const DATE_ORDERS = ['day-first', 'month-first'] as const;
export type DateOrder = (typeof DATE_ORDERS)[number];

type DateReading =
  | { readonly kind: 'exact'; readonly date: PlainDate }
  /** Someone's estimate ("about 2019", "2019-06"): the middle of the span, kept apart from an exact day. */
  | { readonly kind: 'estimated'; readonly date: PlainDate }
  | { readonly kind: 'unknown' }
  | { readonly kind: 'undecided'; readonly dayFirst: PlainDate; readonly monthFirst: PlainDate }
  | { readonly kind: 'impossible'; readonly why: string };

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/**
 * Reads a day as people write it: 2026-04-18, 18/04/2026, 18.4.26, 4/18/2026, 18 Apr 2026, about 2019, unknown.
 *
 * @param order settles 03/04/2026; without it such a day is `undecided`
 * @returns never guesses: two-digit years are read as 20xx, impossible days say why
 */
export function readDate(text: string, order?: DateOrder): DateReading {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/[t ]\d{1,2}:\d{2}.*$/, '');
  if (plain === '' || /^(unknown|not known|\?+|n\/?a|-)$/.test(plain)) return { kind: 'unknown' };
  const rough = /^(?:(?:about|around|ca\.?|circa|~)\s*)?(\d{4})(?:-(\d{2}))?$/.exec(plain);
  if (rough) return estimated(Number(rough[1]), rough[2] ? Number(rough[2]) : null);
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/.exec(plain);
  if (iso) return exact(fromParts(Number(iso[1]), Number(iso[2]), Number(iso[3])), text);
  const named = /^(\d{1,2})[ -]([a-z]{3})[a-z]*\.?[ -](\d{4})$/.exec(plain);
  if (named) return exact(fromParts(Number(named[3]), MONTHS.indexOf(named[2] ?? '') + 1, Number(named[1])), text);
  const numeric = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})$/.exec(plain);
  if (numeric) return fromNumeric(Number(numeric[1]), Number(numeric[2]), Number(numeric[3]), text, order);
  return { kind: 'impossible', why: `“${text.slice(0, 30)}” is not a day. Write it as 2026-04-18` };
}

function estimated(year: number, month: number | null): DateReading {
  const date = fromParts(year, month ?? 7, month ? 15 : 1);
  return date
    ? { kind: 'estimated', date }
    : { kind: 'impossible', why: `there is no such month: ${year}-${month ?? ''}` };
}

function exact(date: PlainDate | null, text: string): DateReading {
  return date
    ? { kind: 'exact', date }
    : { kind: 'impossible', why: `there is no such day: ${text.trim().slice(0, 30)}` };
}

function fromNumeric(a: number, b: number, y: number, text: string, order?: DateOrder): DateReading {
  const year = y < 100 ? 2000 + y : y;
  const dayFirst = fromParts(year, b, a);
  const monthFirst = fromParts(year, a, b);
  if (order) return exact(order === 'day-first' ? dayFirst : monthFirst, text);
  if (dayFirst && monthFirst && dayFirst !== monthFirst) return { kind: 'undecided', dayFirst, monthFirst };
  return exact(dayFirst ?? monthFirst, text);
}

/** What the days of one file say of their order: a 13 in first place can only be a day. Null: the file cannot decide. */
export function orderOf(texts: Iterable<string>): DateOrder | 'mixed' | null {
  let seenOrder: DateOrder | null = null;
  for (const text of texts) {
    const match = /^\s*(\d{1,2})[-/.](\d{1,2})[-/.]\d{2,4}/.exec(text);
    if (!match) continue;
    const order = orderShownBy(Number(match[1]), Number(match[2]));
    if (order && seenOrder && order !== seenOrder) return 'mixed';
    seenOrder = order ?? seenOrder;
  }
  return seenOrder;
}

/** Which of the two is the day, where one is over 12. */
function orderShownBy(first: number, second: number): DateOrder | null {
  if (first > 12) return 'day-first';
  return second > 12 ? 'month-first' : null;
}

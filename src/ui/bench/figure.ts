import { readNumber } from '@/core/units/read-number';

/** What may be entered in a field of the bench. */
export interface Limits {
  readonly least: number;
  readonly most: number;
  readonly unit?: string;
  /** Nothing between whole numbers. */
  readonly whole?: boolean;
}

interface Figure {
  readonly value: number | null;
  /** Why it is none. */
  readonly fault: string | null;
}

/** The figure that was typed, or why it is none. */
function readFigure(text: string, { least, most, unit = '', whole = false }: Limits): Figure {
  const [value] = readNumber(text);
  if (value !== undefined && value >= least && value <= most && (!whole || Number.isInteger(value)))
    return { value, fault: null };
  const what = whole ? 'whole number' : 'figure';
  return { value: null, fault: `Give a ${what} from ${least} to ${most.toLocaleString('en')}${unit && ` ${unit}`}.` };
}

type Figures<K extends string> = Readonly<Record<K, Figure>>;

/** Every field of a tool, by name. */
export const readFigures = <K extends string>(
  limits: Readonly<Record<K, Limits>>,
  typed: Readonly<Record<K, string>>,
): Figures<K> =>
  Object.fromEntries(
    (Object.keys(limits) as K[]).map((name) => [name, readFigure(typed[name], limits[name])]),
  ) as Figures<K>;

/** All of them as numbers; null while one is none. */
export function wholeOf<K extends string>(read: Figures<K>): Readonly<Record<K, number>> | null {
  const entries = Object.entries<Figure>(read).map(([name, { value }]) => [name, value] as const);
  return entries.some(([, value]) => value === null) ? null : (Object.fromEntries(entries) as Record<K, number>);
}

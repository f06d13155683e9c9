/*
 * When an engine that was shut off is cold enough to take its plugs out: Newton's cooling from a warm head. An estimate, and said
 * to be one: a head temperature that somebody measured stands above it.
 */

/** A head at working temperature, °C. */
const WARM_C = 90;
/** Cold to the touch, °C. Source: general trade guidance; the service information wins. */
export const COLD_C = 40;
/** Time constant of a head in a closed bay, minutes. Source: general trade guidance, coarse; a family may have its own. */
export const USUAL_COOLING_MIN = 100;
/** What it is outside where nobody has said, °C. */
export const USUAL_OUTSIDE_C = 12;
/** On a day as warm as cold is, an engine that is so near to the day counts as cold, °C. */
const NEAR_C = 5;

/** What counts as cold on such a day, °C. */
export const coldOn = (outsideC: number): number => Math.max(COLD_C, outsideC + NEAR_C);

/**
 * Temperature of a head some minutes after it was shut off warm, °C.
 *
 * @throws RangeError for a time constant that is not above 0
 */
export function headC(minutesOff: number, outsideC: number, coolingMin: number): number {
  if (!(coolingMin > 0)) throw new RangeError(`headC: cooling must be above 0, got ${coolingMin}`);
  return outsideC + (WARM_C - outsideC) * Math.exp(-Math.max(0, minutesOff) / coolingMin);
}

/** Minutes from a head temperature until it is cold; 0 when it is. @param fromC °C, a warm head where nothing is said */
export function minutesToCold(outsideC: number, coolingMin: number, fromC: number = WARM_C): number {
  const cold = coldOn(outsideC);
  return fromC <= cold ? 0 : Math.ceil(coolingMin * Math.log((fromC - outsideC) / (cold - outsideC)));
}

/** What was said of an engine that cools, as typed. */
interface Cooling {
  /** When it was shut off, ISO 8601; empty: nobody said. */
  readonly shutAt: string;
  /** °C; empty: nobody said. */
  readonly outside: string;
  readonly head: string;
}

/** A temperature as typed: "62", "62 °C", "144 °F". Null: none, or not one that a bay or a head has. */
export function readCelsius(text: string): number | null {
  const match = /^\s*(-?\d{1,3}(?:[.,]\d)?)\s*(°?\s*[cf])?\s*$/i.exec(text);
  if (!match) return null;
  const figure = Number((match[1] ?? '').replace(',', '.'));
  const celsius = /f/i.test(match[2] ?? '') ? ((figure - 32) * 5) / 9 : figure;
  return celsius >= -50 && celsius <= 200 ? celsius : null;
}

/** What is known of the head now: by measure, else by estimate. Null: nobody has said anything. */
export function headNow(
  { shutAt, outside, head }: Cooling,
  coolingMin: number,
  nowMs: number,
): { readonly headC: number; readonly by: 'measure' | 'estimate'; readonly coldInMin: number } | null {
  const outsideC = readCelsius(outside) ?? USUAL_OUTSIDE_C;
  const measured = readCelsius(head);
  const off = Date.parse(shutAt);
  if (measured === null && Number.isNaN(off)) return null;
  const now = measured ?? headC((nowMs - off) / 60_000, outsideC, coolingMin);
  return {
    headC: now,
    by: measured === null ? 'estimate' : 'measure',
    coldInMin: minutesToCold(outsideC, coolingMin, now),
  };
}

/** Why the plugs have to wait, in words; null: they have not. */
export function coolingFault(cooling: Cooling, coolingMin: number, nowMs: number): string | null {
  for (const [text, what] of [
    [cooling.outside, 'Outside'],
    [cooling.head, 'Head'],
  ] as const)
    if (text.trim() !== '' && readCelsius(text) === null)
      return `${what}: “${text}” is no temperature. Write it like 12 °C or 54 °F.`;
  const now = headNow(cooling, coolingMin, nowMs);
  if (!now || now.coldInMin === 0) return null;
  const at = new Date(nowMs + now.coldInMin * 60_000).toISOString().slice(11, 16);
  const wait = `about ${now.coldInMin} more minutes, until ${at} UTC by estimate`;
  return now.by === 'measure'
    ? `The head is at ${Math.round(now.headC)} °C, and cold is ${COLD_C} °C or less: ${wait}.`
    : `By the time since it was shut off the head is at about ${Math.round(now.headC)} °C: ${wait}. A measured head stands above this: type it.`;
}

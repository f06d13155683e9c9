import type { Mm } from '../shared/kinds';
import { roundTo } from '../units/round';
import type { FloorSite } from './job-record';

/** The next site to do after this one: along its bank first, then the other, round to the first. Null: none is left. */
export function nextSite(sites: readonly FloorSite[], now: string, done: (id: string) => boolean): FloorSite | null {
  const at = sites.find(({ id }) => id === now);
  const inBank = [...sites].sort(
    (a, b) => a.bank - b.bank || a.place - b.place || a.position.localeCompare(b.position),
  );
  const from = at ? inBank.indexOf(at) : -1;
  const after = [...inBank.slice(from + 1), ...inBank.slice(0, Math.max(0, from))];
  return after.find((site) => site.id !== now && !done(site.id)) ?? null;
}

/** Gaps that a set of wire gauges offers round an expected one, mm: from just below it upward. */
export function gaugeSteps(expectedMm: Mm, { below, above }: { below: number; above: number }): readonly number[] {
  const middle = Math.round(expectedMm / GAUGE_STEP_MM);
  return Array.from({ length: below + above + 1 }, (_, i) => (middle - below + i) * GAUGE_STEP_MM)
    .filter((mm) => mm >= 0.4 && mm <= 2)
    .map((mm) => roundTo(mm, 2));
}

const GAUGE_STEP_MM = 0.05;

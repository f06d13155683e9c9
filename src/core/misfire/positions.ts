import type { Cause, DoneTest, Hypothesis, MisfireEngine, MovablePart, Swap } from './misfire-case';

/* Where parts sit after swaps. A part is named by its home: the cylinder that it was in before the first test. */

type Moved = Pick<Swap, 'moved' | 'from' | 'to' | 'bootsStayed'>;

/** Swaps among some tests, in their order. */
export const swapsOf = (tests: readonly DoneTest[]): readonly Moved[] =>
  tests.flatMap((test) => (test.test === 'swap' ? [test] : []));

const PART_OF: Readonly<Partial<Record<Cause, MovablePart>>> = {
  coil: 'coil',
  plug: 'plug',
  boot: 'boot',
  lead: 'lead',
  injector: 'injector',
};

/** Whether a swap moved the parts of a kind: a boot hangs on its coil. */
export const movedBy = ({ ignition }: MisfireEngine, { moved, bootsStayed }: Moved, part: MovablePart): boolean =>
  moved.includes(part) || (part === 'boot' && ignition === 'coil_on_plug' && moved.includes('coil') && !bootsStayed);

const other = ({ from, to }: Pick<Swap, 'from' | 'to'>, cylinder: number): number => {
  if (cylinder === from) return to;
  return cylinder === to ? from : cylinder;
};

/** Where the part with a home sits after some swaps. */
export const placeOf = (engine: MisfireEngine, swaps: readonly Moved[], part: MovablePart, home: number): number =>
  swaps.reduce((at, swap) => (movedBy(engine, swap, part) ? other(swap, at) : at), home);

/** The home of the part that sits in a cylinder after some swaps. */
export const homeAt = (engine: MisfireEngine, swaps: readonly Moved[], part: MovablePart, cylinder: number): number =>
  [...swaps].reverse().reduce((at, swap) => (movedBy(engine, swap, part) ? other(swap, at) : at), cylinder);

/** The cylinders that a cause stops after some swaps: a bad part stops the one that it sits in, all else stays where it is. */
export function stopsAfter(
  engine: MisfireEngine,
  swaps: readonly Moved[],
  { cause, cylinders }: Hypothesis,
): readonly number[] {
  const part = PART_OF[cause];
  const [home] = cylinders;
  return part === undefined || home === undefined || cylinders.length > 1
    ? cylinders
    : [placeOf(engine, swaps, part, home)];
}

import type { PlanProblem } from '@/core/planning/plan-problem';
import { agreedSlots, type Plan, planOf, roundsFor } from '@/core/planning/solver/plan';
import { PlanSearch, type Slots } from '@/core/planning/solver/search';
import { spaceOf } from '@/core/planning/solver/space';

/** A slice is short enough that a stop is heard at once. */
const SLICE_MS = 40;
const ROUNDS_A_LOOK = 20;
const TELL_MS = 200;

interface SearchProgress {
  /** The best so far. */
  readonly plan: Plan;
  /** From 0 to 1. */
  readonly share: number;
}

/**
 * The search in slices, so that whoever runs it can look up in between.
 *
 * @param isStopped the best so far is kept then
 * @param pause resolves when the next slice may begin
 * @param start a plan to begin with; by default what was agreed
 * @returns the plan, and whether all rounds were made: time or a stop ended it otherwise
 */
export async function searchInSlices(
  problem: PlanProblem,
  {
    onProgress,
    isStopped,
    pause,
    start = agreedSlots(problem),
  }: {
    readonly onProgress: (progress: SearchProgress) => void;
    readonly isStopped: () => boolean;
    readonly pause: () => Promise<void>;
    readonly start?: Slots;
  },
): Promise<{ readonly plan: Plan; readonly isOver: boolean }> {
  const space = spaceOf(problem);
  const search = new PlanSearch(space, problem.seed, roundsFor(problem), start);
  const until = performance.now() + problem.seconds * 1000;
  let told = 0;
  const tell = (share: number): void => onProgress({ plan: planOf(problem, space, search.best), share });
  tell(0);
  while (!search.isOver && !isStopped() && performance.now() < until) {
    const from = performance.now();
    while (!search.isOver && performance.now() - from < SLICE_MS) search.run(ROUNDS_A_LOOK);
    if (performance.now() - told > TELL_MS) {
      told = performance.now();
      tell(search.share);
    }
    await pause();
  }
  const { isOver } = search;
  search.polish();
  tell(1);
  return { plan: planOf(problem, space, search.best), isOver };
}

import type { PlanProblem } from '../plan-problem';
import type { PlanProgress, SolvedPlan } from '../plan-proposal';
import { leastCost, type Plan } from './plan';

/* A plan is worked out by two threads, in a browser and on a server alike: one searches, the other proves how good a plan can be. */

export interface PlannerTask {
  readonly kind: 'search' | 'bound';
  readonly problem: PlanProblem;
}

export type PlannerNews =
  | { readonly kind: 'progress'; readonly cost: number; readonly share: number }
  | { readonly kind: 'bound'; readonly bound: number }
  | { readonly kind: 'plan'; readonly plan: Plan }
  | { readonly kind: 'bound-done'; readonly bound: number };

/** Said to a search: keep the best so far. */
export const STOP = 'stop';

interface PlannerThread {
  readonly post: (message: typeof STOP) => void;
  readonly end: () => unknown;
}

/** Starts a thread on a task, and tells what it says. */
export type OpenThread = (
  task: PlannerTask,
  on: { readonly news: (news: PlannerNews) => void; readonly error: (error: unknown) => void },
) => PlannerThread;

/** Relative distance to the bound at which no more is looked for. */
const CLOSE_ENOUGH = 1e-7;
/** Threads begin a little later than they are asked to. */
const GRACE_MS = 500;
/** Figures are money: less than this is the same. */
const SAME_COST = 0.005;

/**
 * A plan for a problem, and what no plan can be cheaper than.
 *
 * @param onNews told now and then how far it is
 * @param stop the best so far is kept then
 * @throws what a thread failed with: half an answer is not given
 */
export async function solveInThreads(
  problem: PlanProblem,
  open: OpenThread,
  onNews: (news: PlanProgress) => void = () => undefined,
  stop?: AbortSignal,
): Promise<SolvedPlan> {
  const from = performance.now();
  const race = new Race(leastCost(problem), onNews);
  const searcher = open({ kind: 'search', problem }, { news: race.hear, error: race.fail });
  const prover = open({ kind: 'bound', problem }, { news: race.hear, error: race.fail });
  race.onClose = () => searcher.post(STOP);
  const onStop = (): void => {
    searcher.post(STOP);
    race.giveUpProof();
  };
  if (stop?.aborted) onStop();
  stop?.addEventListener('abort', onStop, { once: true });
  try {
    const plan = await race.plan;
    race.tell({ cost: plan.cost });
    // What is not proven in time is not waited for.
    const late = problem.seconds * 1000 + GRACE_MS - (performance.now() - from);
    if (!race.isClose) await Promise.race([race.proof, after(Math.max(0, late))]);
    return withBound(plan, race.bound);
  } finally {
    stop?.removeEventListener('abort', onStop);
    await Promise.all([searcher.end(), prover.end()]);
  }
}

/** A plan with what no plan can be cheaper than. */
export function withBound(plan: Plan, bound: number): SolvedPlan {
  const lowerBound = Math.min(bound, plan.cost);
  return { ...plan, lowerBound, isProven: plan.cost - lowerBound < SAME_COST };
}

const after = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** What both threads have said so far. */
class Race {
  private found: (plan: Plan) => void = () => undefined;
  giveUpProof: () => void = () => undefined;
  fail: (error: unknown) => void = () => undefined;
  readonly plan = new Promise<Plan>((resolve, reject) => {
    this.found = resolve;
    this.fail = reject;
  });
  readonly proof = new Promise<void>((resolve) => {
    this.giveUpProof = resolve;
  });
  onClose: () => void = () => undefined;
  private news: PlanProgress & { readonly bound: number };

  constructor(
    bound: number,
    private readonly onNews: (news: PlanProgress) => void,
  ) {
    this.news = { cost: null, bound, share: 0 };
  }

  get bound(): number {
    return this.news.bound;
  }

  get isClose(): boolean {
    const { cost, bound } = this.news;
    return cost !== null && cost - bound <= CLOSE_ENOUGH * Math.abs(cost);
  }

  readonly hear = (said: PlannerNews): void => {
    if (said.kind === 'progress') this.tell({ cost: said.cost, share: said.share });
    if (said.kind === 'plan') this.found(said.plan);
    if (said.kind === 'bound' || said.kind === 'bound-done') this.tell({ bound: Math.max(said.bound, this.bound) });
    if (said.kind === 'bound-done') this.giveUpProof();
  };

  tell(more: Partial<PlanProgress & { readonly bound: number }>): void {
    this.news = { ...this.news, ...more };
    this.onNews(this.news);
    // Nothing better can be found.
    if (this.isClose) this.onClose();
  }
}

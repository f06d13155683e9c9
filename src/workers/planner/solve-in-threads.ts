import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import { leastCost, type Plan, type PlanEnd, type SolvedPlan, withBound } from '@/core/planning/solver/plan';
import { WORTH_A_CHANGE } from '@/core/planning/solver/search';

/* A plan is worked out by two threads, in a browser and on a server alike: one searches, the other proves how good a plan can be. */

export interface PlannerTask {
  readonly kind: 'search' | 'bound';
  readonly problem: PlanProblem;
}

export type PlannerNews =
  | { readonly kind: 'progress'; readonly cost: number; readonly share: number }
  | { readonly kind: 'bound'; readonly bound: number }
  | { readonly kind: 'plan'; readonly plan: Plan; readonly isOver: boolean }
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

/** Threads begin a little later than they are asked to. */
const GRACE_MS = 500;

export interface PlanFound extends SolvedPlan {
  /** After `rounds` and `bound` the same problem and seed give the same plan on any machine. */
  readonly endedBy: PlanEnd;
}

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
): Promise<PlanFound> {
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
    const { plan, isOver } = await race.plan;
    const endedBy = isOver ? 'rounds' : race.stoppedBy;
    race.tell({ cost: plan.cost });
    // What is not proven in time is not waited for.
    const late = problem.seconds * 1000 + GRACE_MS - (performance.now() - from);
    if (!race.isClose) await Promise.race([race.proof, after(Math.max(0, late))]);
    return { ...withBound(plan, race.bound), endedBy };
  } finally {
    stop?.removeEventListener('abort', onStop);
    await Promise.all([searcher.end(), prover.end()]);
  }
}

const after = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

type Searched = Extract<PlannerNews, { readonly kind: 'plan' }>;

/** What both threads have said so far. */
class Race {
  private found: (said: Searched) => void = () => undefined;
  giveUpProof: () => void = () => undefined;
  fail: (error: unknown) => void = () => undefined;
  readonly plan = new Promise<Searched>((resolve, reject) => {
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
    // The search itself takes nothing that is better by less: stopped here or not, it ends with the same plan.
    return cost !== null && cost - bound <= WORTH_A_CHANGE * Math.abs(cost);
  }

  readonly hear = (said: PlannerNews): void => {
    if (said.kind === 'progress') this.tell({ cost: said.cost, share: said.share });
    if (said.kind === 'plan') this.found(said);
    if (said.kind === 'bound' || said.kind === 'bound-done') this.tell({ bound: Math.max(said.bound, this.bound) });
    if (said.kind === 'bound-done') this.giveUpProof();
  };

  /** What ends a search that has rounds left. */
  get stoppedBy(): PlanEnd {
    return this.isClose ? 'bound' : 'seconds';
  }

  tell(more: Partial<PlanProgress & { readonly bound: number }>): void {
    this.news = { ...this.news, ...more };
    this.onNews(this.news);
    // Nothing better can be found.
    if (this.isClose) this.onClose();
  }
}

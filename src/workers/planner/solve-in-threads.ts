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
  | { readonly kind: 'progress'; readonly plan: Plan; readonly share: number }
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
/** A search that does not end by itself so long after its time is ended. */
const OVERRUN_MS = 2000;
/** A search says its first plan within this time, on a busy machine too. */
const FIRST_PLAN_MS = 60_000;

export interface PlanFound extends SolvedPlan {
  /** After `rounds` and `bound` the same problem and seed give the same plan on any machine. */
  readonly endedBy: PlanEnd;
}

/**
 * A plan for a problem, and what no plan can be cheaper than.
 *
 * @param onNews told now and then how far it is
 * @param stop the best so far is kept then
 * @throws what a thread failed with: half an answer is not given; and where no first plan was found
 */
export async function solveInThreads(
  problem: PlanProblem,
  open: OpenThread,
  onNews: (news: PlanProgress) => void = () => undefined,
  stop?: AbortSignal,
): Promise<PlanFound> {
  const from = performance.now();
  const race = new Race(leastCost(problem), onNews);
  const limit = new TimeLimit(problem.seconds, race);
  const searcher = open({ kind: 'search', problem }, { news: limit.hear, error: race.fail });
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
    limit.clear();
    stop?.removeEventListener('abort', onStop);
    await Promise.all([searcher.end(), prover.end()]);
  }
}

const after = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

type Searched = Extract<PlannerNews, { readonly kind: 'plan' }>;

/** Ends a search that hangs: with the best plan that it told, or as a failure where it told none. */
class TimeLimit {
  private best: Plan | null = null;
  private timer: NodeJS.Timeout;

  constructor(
    private readonly seconds: number,
    private readonly race: Race,
  ) {
    this.timer = setTimeout(this.end, seconds * 1000 + FIRST_PLAN_MS);
  }

  readonly hear = (news: PlannerNews): void => {
    if (news.kind === 'progress') {
      // The time runs from the first plan: before it the thread was only being started.
      if (!this.best) {
        this.clear();
        this.timer = setTimeout(this.end, this.seconds * 1000 + OVERRUN_MS);
      }
      this.best = news.plan;
    }
    this.race.hear(news);
  };

  private readonly end = (): void => {
    if (this.best) this.race.found({ kind: 'plan', plan: this.best, isOver: false });
    else this.race.fail(new Error(`No plan was found in ${this.seconds} s, nor in the minute after.`));
  };

  clear(): void {
    clearTimeout(this.timer);
  }
}

/** What both threads have said so far. */
class Race {
  found: (said: Searched) => void = () => undefined;
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

  readonly hear = (news: PlannerNews): void => {
    if (news.kind === 'progress') this.tell({ cost: news.plan.cost, share: news.share });
    if (news.kind === 'plan') this.found(news);
    if (news.kind === 'bound' || news.kind === 'bound-done') this.tell({ bound: Math.max(news.bound, this.bound) });
    if (news.kind === 'bound-done') this.giveUpProof();
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

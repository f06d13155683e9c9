import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import { type OpenThread, type PlanFound, solveInThreads } from '@/workers/planner/solve-in-threads';

/* Plans in threads of their own, so that nobody else waits: one searches, one proves how good a plan can be. */

/** Problems that are solved at a time: each takes two threads. Others wait for their turn. */
const MAX_AT_ONCE = 1;
/** Of one person so many wait at a time. */
const MAX_WAITING = 2;
/** Twice what the largest problem takes (docs/planning.md): beyond it a thread ends by itself, and the app goes on. */
const MAX_THREAD_MB = 2048;

/** A person has as many plans waiting as they may. */
export class TooManyPlans extends Error {}

let running = 0;
const waiting: { readonly person: string | undefined; readonly go: () => void }[] = [];

async function turn<T>(person: string | undefined, work: () => Promise<T>): Promise<T> {
  if (running >= MAX_AT_ONCE) {
    if (person !== undefined && waiting.filter((job) => job.person === person).length >= MAX_WAITING)
      throw new TooManyPlans('You have two plans waiting already. Wait until one of them is answered.');
    await new Promise<void>((go) => waiting.push({ person, go }));
  }
  running += 1;
  try {
    return await work();
  } finally {
    running -= 1;
    waiting.shift()?.go();
  }
}

const openThread: OpenThread = (task, { news, error }) => {
  const thread = new Worker(path.resolve(process.cwd(), 'generated/planner-thread.mjs'), {
    workerData: task,
    resourceLimits: { maxOldGenerationSizeMb: MAX_THREAD_MB },
  });
  thread.on('message', news);
  thread.once('error', error);
  return { post: (message) => thread.postMessage(message), end: () => thread.terminate() };
};

/**
 * A plan, worked out in threads; other problems wait for their turn.
 *
 * @param person who asks over HTTP: of them only a few wait at a time
 * @throws TooManyPlans
 */
export const solvePlan = (
  problem: PlanProblem,
  {
    onNews,
    stop,
    person,
  }: {
    readonly onNews?: (news: PlanProgress) => void;
    readonly stop?: AbortSignal;
    readonly person?: string;
  } = {},
): Promise<PlanFound> => turn(person, () => solveInThreads(problem, openThread, onNews, stop));

import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress, SolvedPlan } from '@/core/planning/plan-proposal';
import { type OpenThread, solveInThreads } from '@/core/planning/solver/threads';

/* Plans in threads of their own, so that nobody else waits: one searches, one proves how good a plan can be. */

/** Problems that are solved at a time: each takes two threads. Others wait for their turn. */
const MAX_AT_ONCE = 1;
let running = 0;
const waiting: (() => void)[] = [];

async function turn<T>(work: () => Promise<T>): Promise<T> {
  if (running >= MAX_AT_ONCE) await new Promise<void>((resolve) => waiting.push(resolve));
  running += 1;
  try {
    return await work();
  } finally {
    running -= 1;
    waiting.shift()?.();
  }
}

const openThread: OpenThread = (task, { news, error }) => {
  const thread = new Worker(path.resolve(process.cwd(), 'generated/planner-thread.mjs'), { workerData: task });
  thread.on('message', news);
  thread.once('error', error);
  return { post: (message) => thread.postMessage(message), end: () => thread.terminate() };
};

/** The same on a server: other problems wait for their turn. */
export const solvePlan = (
  problem: PlanProblem,
  onNews?: (news: PlanProgress) => void,
  stop?: AbortSignal,
): Promise<SolvedPlan> => turn(() => solveInThreads(problem, openThread, onNews, stop));

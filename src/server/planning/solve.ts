import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { type PlannerNews, type PlannerTask, STOP, solved } from '@/contracts/planner';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress, SolvedPlan } from '@/core/planning/plan-proposal';
import { leastCost, type Plan } from '@/core/planning/solver/plan';

/* Plans in threads of their own, so that nobody else waits: one searches, one proves how good a plan can be. */

/** Relative distance to the bound at which no more is looked for. */
const CLOSE_ENOUGH = 1e-7;
/** Threads begin a little later than they are asked to. */
const GRACE_MS = 500;
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

const threadOf = (task: PlannerTask): Worker =>
  new Worker(path.resolve(process.cwd(), 'generated/planner-thread.mjs'), { workerData: task });

/**
 * A plan for a problem, and what no plan can be cheaper than.
 *
 * @param onNews told now and then how far it is
 * @param stop the best so far is kept then
 */
export const solvePlan = (
  problem: PlanProblem,
  onNews: (news: PlanProgress) => void = () => undefined,
  stop?: AbortSignal,
): Promise<SolvedPlan> => turn(() => solve(problem, onNews, stop));

async function solve(
  problem: PlanProblem,
  onNews: (news: PlanProgress) => void,
  stop?: AbortSignal,
): Promise<SolvedPlan> {
  const [searcher, prover] = [threadOf({ kind: 'search', problem }), threadOf({ kind: 'bound', problem })];
  const from = performance.now();
  let news = { cost: null as number | null, bound: leastCost(problem), share: 0 };
  const isClose = (): boolean => news.cost !== null && news.cost - news.bound <= CLOSE_ENOUGH * Math.abs(news.cost);
  const tell = (more: Partial<typeof news>): void => {
    news = { ...news, ...more };
    onNews(news);
    // Nothing better can be found.
    if (isClose()) searcher.postMessage(STOP);
  };
  const onStop = (): void => searcher.postMessage(STOP);
  stop?.addEventListener('abort', onStop, { once: true });
  try {
    const proof = new Promise<void>((resolve, reject) => {
      prover.on('message', (said: PlannerNews) => {
        if (said.kind === 'bound' || said.kind === 'bound-done') tell({ bound: Math.max(said.bound, news.bound) });
        if (said.kind === 'bound-done') resolve();
      });
      prover.once('error', reject);
      stop?.addEventListener('abort', () => resolve(), { once: true });
    });
    const plan = await new Promise<Plan>((resolve, reject) => {
      searcher.on('message', (said: PlannerNews) => {
        if (said.kind === 'progress') tell({ cost: said.cost, share: said.share });
        if (said.kind === 'plan') resolve(said.plan);
      });
      searcher.once('error', reject);
      // A prover that fails is a fault of the program: half an answer is not given.
      proof.catch(reject);
    });
    tell({ cost: plan.cost });
    // What is not proven in time is not waited for.
    const late = problem.seconds * 1000 + GRACE_MS - (performance.now() - from);
    if (!isClose()) await Promise.race([proof, setTimeout(Math.max(0, late))]);
    return solved(plan, news.bound);
  } finally {
    stop?.removeEventListener('abort', onStop);
    await Promise.all([searcher.terminate(), prover.terminate()]);
  }
}

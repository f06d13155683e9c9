import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import { type OpenThread, type PlanFound, type PlannerNews, solveInThreads } from '@/workers/planner/solve-in-threads';

const openThread: OpenThread = (task, { news, error }) => {
  const worker = new Worker('/planner.js', { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<PlannerNews>) => news(data);
  worker.onerror = (event) => error(new Error(event.message || 'the planner could not be started'));
  worker.postMessage(task);
  return { post: (message) => worker.postMessage(message), end: () => worker.terminate() };
};

/** Works a plan out in workers of this browser: the page stays quick meanwhile. */
export const solveHere = (
  problem: PlanProblem,
  onNews: (news: PlanProgress) => void,
  stop: AbortSignal,
): Promise<PlanFound> => solveInThreads(problem, openThread, onNews, stop);

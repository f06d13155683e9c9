import { setImmediate } from 'node:timers/promises';
import { type MessagePort, parentPort, workerData } from 'node:worker_threads';
import loadHighs from 'highs';
import { boundModels } from '@/core/planning/solver/bound-model';
import { spaceOf } from '@/core/planning/solver/space';
import { proveBound } from './prove-bound';
import { searchInSlices } from './search-slices';
import { type PlannerNews, type PlannerTask, STOP } from './solve-in-threads';

/* A thread of a server that plans: one of them searches, another proves the bound. */

async function search(port: MessagePort, { problem }: PlannerTask): Promise<void> {
  const tell = (news: PlannerNews): void => port.postMessage(news);
  let isStopped = false;
  port.on('message', (news) => {
    isStopped ||= news === STOP;
  });
  const result = await searchInSlices(problem, {
    onProgress: (progress) => tell({ kind: 'progress', ...progress }),
    isStopped: () => isStopped,
    pause: () => setImmediate(),
  });
  tell({ kind: 'plan', ...result });
  port.close();
}

async function bound(port: MessagePort, { problem }: PlannerTask): Promise<void> {
  const tell = (news: PlannerNews): void => port.postMessage(news);
  const from = performance.now();
  const highs = await loadHighs();
  const models = boundModels(spaceOf(problem));
  const seconds = problem.seconds - (performance.now() - from) / 1000;
  const least = proveBound(highs, models, seconds, (each) => tell({ kind: 'bound', bound: each }));
  tell({ kind: 'bound-done', bound: least });
  port.close();
}

if (parentPort) {
  const task = workerData as PlannerTask;
  await (task.kind === 'search' ? search : bound)(parentPort, task);
}

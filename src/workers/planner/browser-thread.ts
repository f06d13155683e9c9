import loadHighs from 'highs';
import { boundModels } from '@/core/planning/solver/bound-model';
import { spaceOf } from '@/core/planning/solver/space';
import { proveBound } from './prove-bound';
import { searchInSlices } from './search-slices';
import { type PlannerNews, type PlannerTask, STOP } from './solve-in-threads';

/* A worker of a browser that plans, so that the page stays quick: one of them searches, another proves the bound. */

/** What this file uses of a worker's own world. */
declare const self: {
  onmessage: ((event: { readonly data: PlannerTask | typeof STOP }) => void) | null;
  readonly postMessage: (news: PlannerNews) => void;
  readonly location: { readonly origin: string };
};

let isStopped = false;

const search = async ({ problem }: PlannerTask): Promise<void> => {
  const result = await searchInSlices(problem, {
    onProgress: (progress) => self.postMessage({ kind: 'progress', ...progress }),
    isStopped: () => isStopped,
    // What was said meanwhile is heard in between.
    pause: () => new Promise((resolve) => setTimeout(resolve)),
  });
  self.postMessage({ kind: 'plan', ...result });
};

const bound = async ({ problem }: PlannerTask): Promise<void> => {
  const from = performance.now();
  const highs = await loadHighs({ locateFile: (file: string) => `${self.location.origin}/${file}` });
  const seconds = problem.seconds - (performance.now() - from) / 1000;
  const least = proveBound(highs, boundModels(spaceOf(problem)), seconds, (each) =>
    self.postMessage({ kind: 'bound', bound: each }),
  );
  self.postMessage({ kind: 'bound-done', bound: least });
};

self.onmessage = ({ data }) => {
  if (data === STOP) isStopped = true;
  // What fails is the page's to tell: an error that nobody catches reaches it.
  else
    void (data.kind === 'search' ? search(data) : bound(data)).catch((error) =>
      setTimeout(() => {
        throw error;
      }),
    );
};

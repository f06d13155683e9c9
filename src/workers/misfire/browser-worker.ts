import { type AdviceNews, type AdviceTask, adviceOn } from '@/core/misfire/advice';

/* A worker of a browser that works a misfire out, so that the page stays quick, with a network and without. */

/** What this file uses of a worker's own world. */
declare const self: {
  onmessage: ((event: { readonly data: AdviceTask }) => void) | null;
  readonly postMessage: (news: AdviceNews) => void;
};

self.onmessage = ({ data: { asked, given, underway } }) =>
  self.postMessage({ asked, advice: adviceOn(given, underway) });

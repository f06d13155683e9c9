/** Time as what sends things later sees it; a test plays it. */
export interface Clock {
  readonly nowMs: () => number;
  /** @returns takes it back */
  readonly after: (ms: number, run: () => void) => () => void;
}

/** The time of the browser. */
export const browserClock: Clock = {
  nowMs: () => Date.now(),
  after: (ms, run) => {
    const timer = setTimeout(run, ms);
    return () => clearTimeout(timer);
  },
};

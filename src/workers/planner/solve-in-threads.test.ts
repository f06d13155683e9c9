import { afterEach, describe, expect, it, vi } from 'vitest';
import type { PlanProblem } from '@/core/planning/plan-problem';
import type { PlanProgress } from '@/core/planning/plan-proposal';
import type { Plan } from '@/core/planning/solver/plan';
import { type OpenThread, type PlannerNews, type PlannerTask, STOP, solveInThreads } from './solve-in-threads';

const problem: PlanProblem = {
  days: ['2027-03-01'],
  bays: [],
  people: [],
  jobs: [],
  moveCost: 0,
  seconds: 0.05,
  seed: 1,
};
const plan = (cost: number): Plan => ({ assignments: [], unplanned: [], cost });

/** Threads whose words are put into their mouths. */
function threads() {
  const open = new Map<PlannerTask['kind'], Parameters<OpenThread>[1]>();
  const heard: string[] = [];
  const ended: string[] = [];
  const openThread: OpenThread = ({ kind }, on) => {
    open.set(kind, on);
    return { post: (message) => heard.push(`${kind} ${message}`), end: () => ended.push(kind) };
  };
  const say = (kind: PlannerTask['kind'], news: PlannerNews): void => open.get(kind)?.news(news);
  return { openThread, say, fail: (kind: PlannerTask['kind']) => open.get(kind)?.error(new Error('no')), heard, ended };
}

describe('two threads on one plan', () => {
  afterEach(() => void vi.useRealTimers());

  it('are ended two seconds after their time where the search hangs, with the best that it told', async () => {
    vi.useFakeTimers();
    const { openThread, say, ended } = threads();
    const solved = solveInThreads({ ...problem, seconds: 5 }, openThread);
    say('search', { kind: 'progress', plan: plan(90), share: 0 });
    say('search', { kind: 'progress', plan: plan(80), share: 0.1 });
    await vi.advanceTimersByTimeAsync(6_900);
    expect(ended).toEqual([]);
    await vi.advanceTimersByTimeAsync(200);
    expect(await solved).toMatchObject({ cost: 80, endedBy: 'seconds', isProven: false });
    expect(ended.sort()).toEqual(['bound', 'search']);
  });

  it('are ended as a failure where the search never tells a plan', async () => {
    vi.useFakeTimers();
    const { openThread, ended } = threads();
    const solved = solveInThreads({ ...problem, seconds: 5 }, openThread);
    const failed = expect(solved).rejects.toThrow('No plan was found in 5 s');
    await vi.advanceTimersByTimeAsync(65_000);
    await failed;
    expect(ended.sort()).toEqual(['bound', 'search']);
  });

  it('tell how far they are, and end once the plan is proven', async () => {
    const { openThread, say, heard, ended } = threads();
    const news: PlanProgress[] = [];
    const solved = solveInThreads(problem, openThread, (one) => news.push(one));
    say('search', { kind: 'progress', plan: plan(50), share: 0.2 });
    say('bound', { kind: 'bound', bound: 30 });
    say('bound', { kind: 'bound', bound: 20 });
    expect(news.at(-1)).toEqual({ cost: 50, bound: 30, share: 0.2 });
    expect(heard).toEqual([]);
    say('bound', { kind: 'bound', bound: 50 });
    // Nothing better can be found.
    expect(heard).toContain(`search ${STOP}`);
    say('search', { kind: 'plan', plan: plan(50), isOver: false });
    expect(await solved).toMatchObject({ cost: 50, lowerBound: 50, isProven: true, endedBy: 'bound' });
    expect(ended.sort()).toEqual(['bound', 'search']);
  });

  it('do not wait for a proof for ever, and never claim a bound above the plan', async () => {
    const { openThread, say } = threads();
    const solved = solveInThreads(problem, openThread);
    say('bound', { kind: 'bound', bound: 40 });
    say('search', { kind: 'plan', plan: plan(50), isOver: true });
    expect(await solved).toMatchObject({ cost: 50, lowerBound: 40, isProven: false, endedBy: 'rounds' });
    const other = threads();
    const late = solveInThreads(problem, other.openThread);
    other.say('bound', { kind: 'bound-done', bound: 60 });
    other.say('search', { kind: 'plan', plan: plan(50), isOver: true });
    expect((await late).lowerBound).toBe(50);
  });

  it('keep the best when they are stopped', async () => {
    const { openThread, say, heard } = threads();
    const stop = new AbortController();
    const solved = solveInThreads(problem, openThread, undefined, stop.signal);
    stop.abort();
    expect(heard).toEqual([`search ${STOP}`]);
    say('search', { kind: 'plan', plan: plan(70), isOver: false });
    expect(await solved).toMatchObject({ cost: 70, endedBy: 'seconds' });
  });

  it('give no half answer when one of them fails', async () => {
    for (const kind of ['search', 'bound'] as const) {
      const { openThread, fail, ended } = threads();
      const solved = solveInThreads(problem, openThread);
      fail(kind);
      await expect(solved).rejects.toThrow('no');
      expect(ended.sort()).toEqual(['bound', 'search']);
    }
  });
});

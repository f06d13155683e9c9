'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Placing } from '@/core/planning/board';
import { type BoardWeek, placingOf } from '@/core/planning/board-week';
import type { PlanSlot } from '@/core/planning/plan-problem';

/** How often the plan is asked whether somebody else changed it; they are seen within two seconds. */
const LOOK_MS = 1000;
const LOST = 'Isobar could not be reached: nothing was moved. Try again.';

const PIN_WORDS = { on: 'Pinned: no plan moves it.', off: 'The pin is off.' };

interface Undo {
  readonly job: string;
  readonly back: PlanSlot | null;
  readonly words: string;
}

export interface Told {
  readonly isFault: boolean;
  readonly words: string;
}

interface Answer {
  readonly ok: boolean;
  readonly answer: { readonly detail?: string; readonly work_order_id?: string; readonly version?: number | null };
}

/** Sends a change; what cannot be reached is answered as a refusal. */
async function send(path: string, body: object): Promise<Answer> {
  try {
    const headers = { 'Content-Type': 'application/json' };
    const answer = await fetch(path, { method: 'POST', headers, body: JSON.stringify(body) });
    return { ok: answer.ok, answer: await answer.json().catch(() => ({})) };
  } catch {
    return { ok: false, answer: { detail: LOST } };
  }
}

/** The week with what is being moved, undo, and what others do meanwhile. @param isBusy somebody has a job in hand */
export function useBoard(week: BoardWeek, isBusy: boolean) {
  const router = useRouter();
  const { placing, begin, done, failed, versionOf } = useMoves(week);
  const [undos, setUndos] = useState<readonly Undo[]>([]);
  const [told, setTold] = useState<Told | null>(null);
  // One after another: a job that is moved twice in a hurry goes by the version that its first move was given.
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  useChanges(week, isBusy, () => router.refresh());

  const post = async (job: string, to: PlanSlot | null, isUndo: boolean): Promise<string | null> => {
    const slot = to && { day: to.day, bay_id: to.bay, person_id: to.person, start_min: to.startMin };
    const version = versionOf(job);
    const { ok, answer } = await send('/api/v1/plan/moves', { job, to: slot, undo: isUndo, version });
    router.refresh();
    if (ok && answer.work_order_id) {
      const order = `order ${answer.work_order_id}`;
      done([job, order], answer.version ?? null);
      return order;
    }
    failed(job);
    setTold({ isFault: true, words: answer.detail ?? LOST });
    return null;
  };
  const place = (job: string, to: PlanSlot | null, isUndo = false): Promise<string | null> => {
    begin(job, to);
    const posted = queue.current.then(() => post(job, to, isUndo));
    queue.current = posted;
    return posted;
  };

  const move = async (job: string, to: PlanSlot | null, words: string): Promise<void> => {
    const back = placing.get(job) ?? null;
    setTold(null);
    const moved = await place(job, to);
    if (moved === null) return;
    setUndos((before) => [...before, { job: moved, back, words }]);
    setTold({ isFault: false, words });
  };

  const undo = async (): Promise<void> => {
    const last = undos.at(-1);
    if (!last) return;
    setUndos((before) => before.slice(0, -1));
    if ((await place(last.job, last.back, true)) !== null)
      setTold({ isFault: false, words: `Taken back: ${last.words}` });
  };

  const pin = async (workOrderId: string, pinned: boolean, version: number): Promise<void> => {
    const { ok, answer } = await send('/api/v1/plan/pins', { work_order_id: workOrderId, pinned, version });
    setTold({
      isFault: !ok,
      words: ok ? PIN_WORDS[pinned ? 'on' : 'off'] : (answer.detail ?? LOST),
    });
    router.refresh();
  };

  return { placing, move, undo: undos.length > 0 ? undo : null, pin, told, tell: setTold };
}

/** So many weeks may come that were read before a move; a later one counts as it is. */
const MAX_OLD_WEEKS = 2;

interface Answered {
  readonly version: number | null;
  readonly oldWeeks: number;
}

/** Whether a week was read after a job was given a version; null: after it was taken off the plan. */
function hasSeen({ jobs }: BoardWeek, jobId: string, version: number | null): boolean {
  const job = jobs.find(({ id }) => id === jobId);
  if (!job) return false;
  return version === null ? !job.booking : (job.booking?.version ?? 0) >= version;
}

/** Where the jobs are: as the week has them, and as they were moved here until a week has the same. */
function useMoves(week: BoardWeek) {
  const [moving, setMoving] = useState<ReadonlyMap<string, PlanSlot | null>>(new Map());
  const sent = useRef(new Map<string, number>());
  const answered = useRef(new Map<string, Answered>());
  useEffect(() => {
    for (const [job, { version, oldWeeks }] of answered.current) {
      if (hasSeen(week, job, version) || oldWeeks >= MAX_OLD_WEEKS) answered.current.delete(job);
      else answered.current.set(job, { version, oldWeeks: oldWeeks + 1 });
    }
    setMoving((before) => new Map([...before].filter(([job]) => sent.current.has(job) || answered.current.has(job))));
  }, [week]);
  const placing = useMemo((): Placing => {
    const all = new Map(placingOf(week.jobs));
    for (const { id } of week.jobs) {
      const slot = moving.get(id);
      if (slot) all.set(id, slot);
      if (slot === null) all.delete(id);
    }
    return all;
  }, [week, moving]);
  const end = (job: string): void => {
    const left = (sent.current.get(job) ?? 1) - 1;
    if (left > 0) sent.current.set(job, left);
    else sent.current.delete(job);
  };
  return {
    placing,
    begin: (job: string, to: PlanSlot | null): void => {
      sent.current.set(job, (sent.current.get(job) ?? 0) + 1);
      setMoving((before) => new Map(before).set(job, to));
    },
    /** @param jobs its names: a job that was due has another as a work order */
    done: (jobs: readonly [string, string], version: number | null): void => {
      end(jobs[0]);
      for (const job of jobs) answered.current.set(job, { version, oldWeeks: 0 });
    },
    failed: (job: string): void => {
      end(job);
      answered.current.delete(job);
      setMoving((before) => new Map([...before].filter(([id]) => id !== job)));
    },
    versionOf: (job: string): number | null => {
      const answer = answered.current.get(job);
      return answer ? answer.version : (week.jobs.find(({ id }) => id === job)?.booking?.version ?? null);
    },
  };
}

/** Asks again and again whether the plan of a week is still the same, and says when it is not. */
function useChanges({ problem, depot }: BoardWeek, isBusy: boolean, onChange: () => void): void {
  const latest = useRef({ isBusy, onChange });
  useEffect(() => {
    latest.current = { isBusy, onChange };
  });
  const [from, to] = [problem.days[0], problem.days.at(-1)];
  useEffect(() => {
    if (from === undefined || to === undefined) return;
    const path = `/api/v1/plan?${new URLSearchParams({ from, to, depot: depot.name })}`;
    let tag: string | null = null;
    const look = async (): Promise<void> => {
      // While a job is in hand nothing moves under it; the server refuses what no longer goes.
      if (document.hidden || latest.current.isBusy) return;
      const answer = await fetch(path, { headers: tag ? { 'If-None-Match': tag } : {} });
      if (answer.status !== 200) return;
      if (tag !== null) latest.current.onChange();
      tag = answer.headers.get('etag');
    };
    const timer = setInterval(() => void look().catch(() => undefined), LOOK_MS);
    void look().catch(() => undefined);
    return () => clearInterval(timer);
  }, [from, to, depot.name]);
}

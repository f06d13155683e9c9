'use client';

import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
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

async function post(
  path: string,
  body: object,
): Promise<{ ok: boolean; answer: { detail?: string; work_order_id?: string; version?: number | null } }> {
  const answer = await fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  });
  return { ok: answer.ok, answer: await answer.json().catch(() => ({})) };
}

/** The week with what is being moved, undo, and what others do meanwhile. @param isBusy somebody has a job in hand */
export function useBoard(week: BoardWeek, isBusy: boolean) {
  const router = useRouter();
  // What was moved here has another version before the week comes anew.
  const versions = useRef(new Map<string, number | null>());
  const { placing, setMoving } = usePlacing(week);
  const [undos, setUndos] = useState<readonly Undo[]>([]);
  const [told, setTold] = useState<Told | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new week has them all
  useEffect(() => versions.current.clear(), [week]);
  useChanges(week, isBusy, () => router.refresh());

  const send = useCallback(
    async (job: string, to: PlanSlot | null, isUndo = false): Promise<string | null> => {
      const known = versions.current.get(job);
      const version = known === undefined ? (week.jobs.find(({ id }) => id === job)?.booking?.version ?? null) : known;
      const slot = to && { day: to.day, bay_id: to.bay, person_id: to.person, start_min: to.startMin };
      setMoving((before) => new Map(before).set(job, to));
      const { ok, answer } = await post('/api/v1/plan/moves', { job, to: slot, undo: isUndo, version }).catch(() => ({
        ok: false,
        answer: { detail: LOST, work_order_id: undefined, version: undefined },
      }));
      if (!ok) {
        setMoving((before) => new Map([...before].filter(([id]) => id !== job)));
        setTold({ isFault: true, words: answer.detail ?? LOST });
      }
      if (ok && answer.version !== undefined) versions.current.set(`order ${answer.work_order_id}`, answer.version);
      router.refresh();
      return ok && answer.work_order_id ? `order ${answer.work_order_id}` : null;
    },
    [week, router, setMoving],
  );

  const move = async (job: string, to: PlanSlot | null, words: string): Promise<void> => {
    const back = placing.get(job) ?? null;
    setTold(null);
    const moved = await send(job, to);
    if (moved === null) return;
    setUndos((before) => [...before, { job: moved, back, words }]);
    setTold({ isFault: false, words });
  };

  const undo = async (): Promise<void> => {
    const last = undos.at(-1);
    if (!last) return;
    setUndos((before) => before.slice(0, -1));
    if ((await send(last.job, last.back, true)) !== null)
      setTold({ isFault: false, words: `Taken back: ${last.words}` });
  };

  const pin = async (workOrderId: string, pinned: boolean, version: number): Promise<void> => {
    const { ok, answer } = await post('/api/v1/plan/pins', { work_order_id: workOrderId, pinned, version }).catch(
      () => ({
        ok: false,
        answer: { detail: LOST },
      }),
    );
    setTold({
      isFault: !ok,
      words: ok ? PIN_WORDS[pinned ? 'on' : 'off'] : (answer.detail ?? LOST),
    });
    router.refresh();
  };

  return { placing, move, undo: undos.length > 0 ? undo : null, pin, told, tell: setTold };
}

/** Where the jobs are: as the week has them, and as they were moved here since. */
function usePlacing(week: BoardWeek) {
  const [moving, setMoving] = useState<ReadonlyMap<string, PlanSlot | null>>(new Map());
  // What was moved here holds until the server has said the same.
  const [seen, setSeen] = useState(week);
  if (seen !== week) {
    setSeen(week);
    setMoving(new Map());
  }
  const placing = useMemo((): Placing => {
    const all = new Map(placingOf(week.jobs));
    for (const [job, slot] of moving) {
      if (slot) all.set(job, slot);
      else all.delete(job);
    }
    return all;
  }, [week, moving]);
  return { placing, setMoving };
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

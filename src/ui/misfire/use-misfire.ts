'use client';

import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import type { Advice, AdviceNews, AdviceTask } from '@/core/misfire/advice';
import { type CaseEntry, type Said, type Story, storyOf } from '@/core/misfire/case-entry';
import type { MisfireCase } from '@/core/misfire/misfire-case';
import type { PersonId } from '@/core/shared/kinds';
import { ask, post } from '../sync/ask';
import { browserClock } from '../sync/clock';
import { caseStore } from '../sync/device-store';
import { caseOutbox } from './case-outbox';

/** What a page at the vehicle begins with. */
export interface MisfireAtVehicle {
  readonly caseId: string;
  readonly personId: PersonId;
  readonly entries: readonly CaseEntry[];
  /** What the record says, without what the entries say. */
  readonly facts: Omit<MisfireCase, keyof Story>;
  readonly advice: Advice;
}

const fromServer = async (caseId: string): Promise<readonly CaseEntry[]> => {
  const { entries } = (await (await ask(`/api/v1/cases/${caseId}`)).json()) as { entries: readonly CaseEntry[] };
  return entries;
};

/** A misfire at the vehicle: what is said is kept here at once, and what it means is worked out here, network or not. */
export function useMisfire({ caseId, personId, entries: first, facts, advice: firstAdvice }: MisfireAtVehicle) {
  const [known, setKnown] = useState(first);
  const [outbox] = useState(() =>
    caseOutbox(
      {
        send: (entries) => post(`/api/v1/cases/${caseId}/entries`, { entries }),
        // A page that the device kept may be older than what the server has, and others go on with the case.
        look: async () => {
          const now = await fromServer(caseId);
          setKnown((before) => (isSame(before, now) ? before : now));
        },
      },
      caseStore(caseId, personId),
      browserClock,
      () => crypto.randomUUID(),
      personId,
    ),
  );
  const state = useSyncExternalStore(outbox.subscribe, outbox.snapshot, outbox.snapshot);
  useEffect(() => {
    void outbox.start();
    window.addEventListener('online', outbox.hurry);
    return () => {
      outbox.stop();
      window.removeEventListener('online', outbox.hurry);
    };
  }, [outbox]);
  const { waiting } = state;
  const story = useMemo(() => storyOf(once([...known, ...waiting])), [known, waiting]);
  return {
    ...state,
    story,
    advice: useAdvice(facts, story, firstAdvice),
    say: (statement: Said) => outbox.add((kept) => ({ ...kept, caseId, said: statement })),
    undo: outbox.dropLast,
    drop: outbox.drop,
  };
}

/** What says the same is not worked out again. */
const isSame = (a: readonly CaseEntry[], b: readonly CaseEntry[]): boolean =>
  a.length === b.length && a.every(({ id }, i) => id === b[i]?.id);

const once = (entries: readonly CaseEntry[]): readonly CaseEntry[] => [
  ...new Map(entries.map((entry) => [entry.id, entry])).values(),
];

/** What is to be made of it, worked out beside the page; null: it is being worked out. */
function useAdvice(facts: MisfireAtVehicle['facts'], story: Story, first: Advice): Advice | null {
  const [advice, setAdvice] = useState<Advice | null>(first);
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  useEffect(() => {
    const thread = new Worker('/misfire.js');
    thread.onmessage = ({ data }: MessageEvent<AdviceNews>) => {
      if (data.asked === asked.current) setAdvice(data.advice);
    };
    worker.current = thread;
    return () => thread.terminate();
  }, []);
  useEffect(() => {
    asked.current += 1;
    setAdvice((before) => (asked.current > 1 ? null : before));
    const underway = story.underway && { test: 'swap' as const, ...story.underway };
    const task: AdviceTask = { asked: asked.current, given: { ...facts, ...story }, underway };
    worker.current?.postMessage(task);
  }, [facts, story]);
  return advice;
}

'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type JobRecord, type Json, sameJson, withEntries } from '@/core/work/entry';
import type { FloorJob } from '@/core/work/job-record';
import { readSiteQuantity, SITE_QUANTITIES, type SiteQuantity } from '@/core/work/site-done';
import { unitsOf } from '../view/number-field';
import {
  dropEntries,
  dropPhoto,
  keepEntry,
  keepJob,
  keepPhoto,
  keptJob,
  type Waiting,
  type WaitingPhoto,
  waitingOf,
  waitingOfOthers,
  waitingPhotosOf,
} from './outbox';

export type Link = 'opening' | 'fresh' | 'sending' | 'cut' | 'signed-out' | 'closed' | 'unkept';

export interface Refused {
  readonly id: string;
  readonly target: string;
  readonly message: string;
}

export interface Floor {
  readonly job: FloorJob;
  /** The record with what is not yet sent laid over it. */
  readonly record: JobRecord;
  /** Entries and pictures that the server does not have yet. */
  readonly unsent: number;
  /** Of those, figures that cannot be right: they are mended before they are sent. */
  readonly unreadable: number;
  readonly unsentOfOthers: number;
  readonly link: Link;
  /** The device's own store has been read: before that nothing can be entered. */
  readonly ready: boolean;
  readonly refused: readonly Refused[];
  readonly photosWaiting: readonly WaitingPhoto[];
  readonly set: (target: string, field: string, value: Json, resolves?: string) => void;
  /** The field that is being typed in: it is not sent half-written. Null: none. */
  readonly edit: (target: string | null, field?: string) => void;
  readonly addPhoto: (target: string, blob: Blob) => void;
  readonly setWorking: (working: boolean) => void;
  readonly forget: (refusedId: string) => void;
  /** Takes back what the last press did on this device; null: there is nothing to take back. */
  readonly undo: (() => void) | null;
}

/** Pause between two questions to the server: short when something waits, longer when it did not answer. */
const LOOK_EVERY_MS = 15_000;
const FIRST_RETRY_MS = 2_000;
const MAX_RETRY_MS = 20_000;
const BATCH = 100;
/** What is set within this time belongs to one press. */
const ONE_PRESS_MS = 80;
const MAX_UNDONE = 60;

interface Past {
  readonly target: string;
  readonly field: string;
  readonly from: Json;
  readonly atMs: number;
}

/** A job at the vehicle: everything typed is kept on the device at once and sent when it can be. */
export function useFloor(first: FloorJob): Floor {
  const [job, setJob] = useState(first);
  const [waiting, setWaiting] = useState<readonly Waiting[]>([]);
  const [photosWaiting, setPhotosWaiting] = useState<readonly WaitingPhoto[]>([]);
  const [others, setOthers] = useState(0);
  const [link, setLink] = useState<Link>('opening');
  const [refused, setRefused] = useState<readonly Refused[]>([]);
  const live = useRef({ job: first, waiting: [] as readonly Waiting[], photos: [] as readonly WaitingPhoto[] });
  const [past, setPast] = useState<readonly Past[]>([]);
  const edited = useRef<string | null>(null);
  const sending = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const retry = useRef(FIRST_RETRY_MS);

  const putJob = useCallback((answered: FloorJob) => {
    const next = sharing(live.current.job, answered);
    live.current.job = next;
    setJob(next);
    void keepJob(next);
  }, []);
  const putWaiting = useCallback((next: readonly Waiting[]) => {
    live.current.waiting = next;
    setWaiting(next);
  }, []);
  const putPhotos = useCallback((next: readonly WaitingPhoto[]) => {
    live.current.photos = next;
    setPhotosWaiting(next);
  }, []);

  const send = useCallback(async (): Promise<void> => {
    if (sending.current) return;
    // What is being typed, and what no one could read, stays with the person who typed it.
    const ready = (entry: Waiting): boolean =>
      key(entry) !== edited.current && isReadable(entry, live.current.job.units);
    sending.current = true;
    clearTimeout(timer.current);
    let pause = LOOK_EVERY_MS;
    try {
      const batch = live.current.waiting.filter(ready).slice(0, BATCH);
      if (batch.length > 0 || live.current.photos.length > 0) setLink('sending');
      if (batch.length > 0) {
        const tried = batch.map((entry) => ({ ...entry, tried: true }));
        const ids = new Set(batch.map(({ id }) => id));
        // Marked before anything is awaited: what is set meanwhile becomes an entry of its own, and is not dropped with this one.
        putWaiting(live.current.waiting.map((entry) => (ids.has(entry.id) ? { ...entry, tried: true } : entry)));
        await Promise.all(tried.map(keepEntry));
        const answer = await post(`${api(live.current.job)}/entries`, { entries: tried.map(bare) });
        await dropEntries([...ids]);
        putWaiting(live.current.waiting.filter(({ id }) => !ids.has(id)));
        putJob(answer.job);
        const told = (answer.results ?? []).flatMap(({ id, message }) => {
          const target = batch.find((entry) => entry.id === id)?.target ?? '';
          return message ? [{ id, target, message }] : [];
        });
        if (told.length > 0) setRefused((before) => [...before, ...told]);
      }
      for (const photo of live.current.photos) {
        const fault = await putPhoto(photo);
        if (fault) setRefused((before) => [...before, { id: photo.id, target: photo.target, message: fault }]);
        await dropPhoto(photo.id);
        putPhotos(live.current.photos.filter(({ id }) => id !== photo.id));
      }
      if (batch.length === 0) putJob((await ask(`${api(live.current.job)}/floor`)).job);
      retry.current = FIRST_RETRY_MS;
      setLink('fresh');
      if (live.current.waiting.some(ready)) pause = 0;
    } catch (error) {
      setLink(
        error instanceof Answered
          ? error.status === 401
            ? 'signed-out'
            : error.status === 409
              ? 'closed'
              : 'cut'
          : 'cut',
      );
      pause = retry.current;
      retry.current = Math.min(MAX_RETRY_MS, retry.current * 2);
    } finally {
      sending.current = false;
      timer.current = setTimeout(() => void send(), pause);
    }
  }, [putJob, putWaiting, putPhotos]);

  const soon = useCallback(() => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void send(), 60);
  }, [send]);

  useEffect(() => {
    let gone = false;
    const again = () => {
      retry.current = FIRST_RETRY_MS;
      void send();
    };
    const open = async () => {
      const [kept, entries, photos, rest] = await Promise.all([
        keptJob(first),
        waitingOf(first),
        waitingPhotosOf(first),
        waitingOfOthers(first),
      ]);
      if (gone) return;
      // A page from the device's own store may be older than the job kept beside it.
      if (kept && kept.asOf > first.asOf) putJob(kept);
      else await keepJob(first);
      putWaiting([...entries, ...live.current.waiting.filter((e) => !entries.some(({ id }) => id === e.id))]);
      putPhotos(photos);
      setOthers(rest);
      setLink('fresh');
      window.addEventListener('online', again);
      document.addEventListener('visibilitychange', again);
      void send();
    };
    open().catch(() => setLink('unkept'));
    return () => {
      gone = true;
      clearTimeout(timer.current);
      window.removeEventListener('online', again);
      document.removeEventListener('visibilitychange', again);
    };
  }, [first, putJob, putWaiting, putPhotos, send]);

  const set = useCallback(
    (target: string, field: string, value: Json, resolves?: string) => {
      const shown = withEntries(live.current.job.record, live.current.waiting)[target]?.[field] ?? null;
      if (sameJson(shown, value) && !resolves) return;
      setPast((before) => [...before, { target, field, from: shown, atMs: Date.now() }].slice(-MAX_UNDONE));
      const last = live.current.waiting.findLast((entry) => entry.target === target && entry.field === field);
      if (last && !last.tried && !resolves) {
        const changed = { ...last, value, at: new Date().toISOString() };
        if (sameJson(last.base, value)) {
          void dropEntries([last.id]);
          putWaiting(live.current.waiting.filter(({ id }) => id !== last.id));
        } else {
          void keepEntry(changed);
          putWaiting(live.current.waiting.map((entry) => (entry.id === last.id ? changed : entry)));
        }
      } else {
        const place = (live.current.waiting.at(-1)?.place ?? Date.now()) + 1;
        const entry: Waiting = {
          id: crypto.randomUUID(),
          orderId: live.current.job.orderId,
          personId: live.current.job.personId,
          place,
          tried: false,
          target,
          field,
          value,
          base: shown,
          at: new Date().toISOString(),
          ...(resolves ? { resolves } : {}),
        };
        void keepEntry(entry);
        putWaiting([...live.current.waiting, entry]);
      }
      soon();
    },
    [putWaiting, soon],
  );

  const edit = useCallback(
    (target: string | null, field = '') => {
      edited.current = target === null ? null : `${target}/${field}`;
      soon();
    },
    [soon],
  );

  const addPhoto = useCallback(
    (target: string, blob: Blob) => {
      const { orderId, personId } = live.current.job;
      const photo = { id: crypto.randomUUID(), orderId, personId, target, at: new Date().toISOString(), blob };
      void keepPhoto(photo);
      putPhotos([...live.current.photos, photo]);
      soon();
    },
    [putPhotos, soon],
  );

  const setWorking = useCallback(
    (working: boolean) => {
      void post(`${api(live.current.job)}/working`, { working })
        .then(({ job: next }) => putJob(next))
        .catch(() => setLink('cut'));
    },
    [putJob],
  );

  const lastMs = past.at(-1)?.atMs ?? 0;
  const undo = () => {
    const press = past.filter(({ atMs }) => lastMs - atMs < ONE_PRESS_MS);
    for (const { target, field, from } of press.toReversed())
      set(target, field, from ?? (field.startsWith('answer.') ? '' : null));
    setPast(past.slice(0, past.length - press.length));
  };
  const record = useMemo(() => withEntries(job.record, waiting), [job.record, waiting]);
  return {
    job,
    record,
    unsent: waiting.length + photosWaiting.length,
    unreadable: waiting.filter((entry) => !isReadable(entry, job.units)).length,
    unsentOfOthers: others,
    link,
    ready: link !== 'opening' && link !== 'unkept',
    refused,
    photosWaiting,
    set,
    edit,
    addPhoto,
    setWorking,
    undo: past.length > 0 ? undo : null,
    forget: (id) => setRefused((before) => before.filter((one) => one.id !== id)),
  };
}

/** Whether a figure can be read; every other entry can. */
const isReadable = ({ field, value }: Waiting, system: FloorJob['units']): boolean =>
  !(field in SITE_QUANTITIES) ||
  typeof value !== 'string' ||
  readSiteQuantity(field as SiteQuantity, value, unitsOf(system)).ok;

/** What has not changed stays the very same object, so that only what has is drawn again. */
const sharing = (before: FloorJob, next: FloorJob): FloorJob =>
  Object.fromEntries(
    Object.entries(next).map(([name, value]) => {
      const known = before[name as keyof FloorJob] as Json;
      return [name, sameJson(known, value) ? known : value];
    }),
  ) as unknown as FloorJob;

const key = ({ target, field }: Pick<Waiting, 'target' | 'field'>): string => `${target}/${field}`;
const api = ({ orderId }: FloorJob): string => `/api/v1/work-orders/${orderId}`;
const bare = ({ id, target, field, value, base, at, resolves }: Waiting) => ({
  id,
  target,
  field,
  value,
  base,
  at,
  resolves: resolves ?? null,
});

/** The server answered, and not with what was hoped for. */
class Answered extends Error {
  constructor(readonly status: number) {
    super(`answered ${status}`);
  }
}

interface Answer {
  readonly job: FloorJob;
  readonly results?: readonly { readonly id: string; readonly message: string | null }[];
}

const WAIT_MS = 12_000;

async function ask(url: string, init: RequestInit = {}): Promise<Answer> {
  const answer = await fetch(url, { ...init, signal: AbortSignal.timeout(WAIT_MS) });
  if (!answer.ok) throw new Answered(answer.status);
  return answer.json();
}

const post = (url: string, body: unknown): Promise<Answer> =>
  ask(url, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) });

/** Null when it is kept; why it never will be otherwise. */
async function putPhoto({ orderId, id, target, at, blob }: WaitingPhoto): Promise<string | null> {
  const query = new URLSearchParams({ target, at });
  try {
    await ask(`/api/v1/work-orders/${orderId}/photos/${id}?${query}`, { method: 'PUT', body: blob });
    return null;
  } catch (error) {
    if (error instanceof Answered && (error.status === 413 || error.status === 422))
      return 'The picture was not kept: it is too large or no picture. Take it again.';
    throw error;
  }
}

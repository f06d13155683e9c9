'use client';

import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { FloorJob } from '@/core/work/job-record';
import { browserClock } from '@/ui/sync/clock';
import { floorStore } from '@/ui/sync/device-store';
import { recordOf, SyncEngine } from './engine';
import type { State } from './parts';
import { httpServer } from './server';

/** A job at the vehicle: everything typed is kept on the device at once and sent when it can be. */
export function useFloor(first: FloorJob) {
  const [engine] = useState(
    () => new SyncEngine(first, floorStore(first), httpServer, browserClock, () => crypto.randomUUID()),
  );
  const state: State = useSyncExternalStore(engine.subscribe, engine.snapshot, engine.snapshot);
  useEffect(() => {
    void engine.start();
    window.addEventListener('online', engine.hurry);
    document.addEventListener('visibilitychange', engine.hurry);
    return () => {
      engine.stop();
      window.removeEventListener('online', engine.hurry);
      document.removeEventListener('visibilitychange', engine.hurry);
    };
  }, [engine]);
  useEffect(() => engine.readAnew(first), [engine, first]);
  const { job, waiting, photos, link } = state;
  const record = useMemo(() => recordOf({ job, waiting }), [job, waiting]);
  const { set, edit, addPhoto, setWorking, readCodes, forget, tryAgain } = engine;
  return {
    ...{ set, edit, addPhoto, setWorking, readCodes, forget, tryAgain },
    ...state,
    /** The record with what is not yet sent laid over it. */
    record,
    /** The same with what this very press said before. */
    recordNow: () => recordOf(engine.snapshot()),
    /** Entries and pictures that the server does not have yet. */
    unsent: waiting.length + photos.length,
    /** Of those, figures that cannot be right: they are mended before they are sent. */
    unreadable: waiting.filter((entry) => !engine.isReadable(entry)).length,
    /** The device's own store has been read: before that nothing can be entered. */
    ready: link !== 'opening' && link !== 'unkept',
    undo: state.past.length > 0 ? engine.undo : null,
  };
}

export type Floor = ReturnType<typeof useFloor>;

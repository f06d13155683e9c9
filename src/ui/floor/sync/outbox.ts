import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Entry } from '@/core/work/entry';
import type { FloorJob } from '@/core/work/job-record';

/* What a device keeps by itself: entries and pictures until the server has them, and each job as it was last seen. */

export interface Waiting extends Entry {
  readonly orderId: string;
  readonly personId: string;
  /** Keeps the order in which they were made. */
  readonly place: number;
  /** It may have reached the server, so it is not changed any more. */
  readonly tried: boolean;
}

export interface WaitingPhoto {
  readonly id: string;
  readonly orderId: string;
  readonly personId: string;
  readonly target: string;
  readonly at: string;
  readonly blob: Blob;
}

interface Schema extends DBSchema {
  entries: { key: string; value: Waiting };
  photos: { key: string; value: WaitingPhoto };
  jobs: { key: string; value: FloorJob };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

function store(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('isobar-floor', 1, {
    upgrade(db) {
      db.createObjectStore('entries', { keyPath: 'id' });
      db.createObjectStore('photos', { keyPath: 'id' });
      db.createObjectStore('jobs');
    },
  });
  return opened;
}

const own = (job: Pick<FloorJob, 'orderId' | 'personId'>) => (row: { orderId: string; personId: string }) =>
  row.orderId === job.orderId && row.personId === job.personId;

export async function waitingOf(job: FloorJob): Promise<readonly Waiting[]> {
  const rows = await (await store()).getAll('entries');
  return rows.filter(own(job)).sort((a, b) => a.place - b.place);
}

export async function waitingPhotosOf(job: FloorJob): Promise<readonly WaitingPhoto[]> {
  return (await (await store()).getAll('photos')).filter(own(job));
}

/** Entries of others that this device still holds: they go when their person signs in here. */
export async function waitingOfOthers(job: FloorJob): Promise<number> {
  const rows = await (await store()).getAll('entries');
  return rows.filter(({ personId }) => personId !== job.personId).length;
}

export const keepEntry = async (entry: Waiting): Promise<unknown> => (await store()).put('entries', entry);
export const dropEntries = async (ids: readonly string[]): Promise<void> => {
  const tx = (await store()).transaction('entries', 'readwrite');
  await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done]);
};
export const keepPhoto = async (photo: WaitingPhoto): Promise<unknown> => (await store()).put('photos', photo);
export const dropPhoto = async (id: string): Promise<void> => (await store()).delete('photos', id);

const jobKey = ({ personId, orderId }: Pick<FloorJob, 'personId' | 'orderId'>): string => `${personId} ${orderId}`;
export const keepJob = async (job: FloorJob): Promise<unknown> => (await store()).put('jobs', job, jobKey(job));
export const keptJob = async (job: FloorJob): Promise<FloorJob | undefined> => (await store()).get('jobs', jobKey(job));

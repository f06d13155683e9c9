import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { PersonId } from '@/core/shared/kinds';
import type { FloorJob } from '@/core/work/job-record';
import type { Store, Waiting, WaitingPhoto } from './parts';

/* What a device keeps by itself: entries and pictures until the server has them, and each job as it was last seen. */

interface Schema extends DBSchema {
  entries: { key: string; value: Waiting };
  photos: { key: string; value: WaitingPhoto };
  jobs: { key: string; value: FloorJob };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('isobar-floor', 2, {
    upgrade(db, before) {
      if (before < 1) {
        db.createObjectStore('entries', { keyPath: 'id' });
        db.createObjectStore('photos', { keyPath: 'id' });
      } else db.deleteObjectStore('jobs');
      // A job as an earlier version saw it has other names in it; the server gives it anew.
      db.createObjectStore('jobs');
    },
  });
  return opened;
}

const isOwn = (job: FloorJob) => (row: { orderId: string; personId: PersonId }) =>
  row.orderId === job.orderId && row.personId === job.personId;
const jobKey = ({ personId, orderId }: FloorJob): string => `${personId} ${orderId}`;

export const deviceStore: Store = {
  async open(job) {
    const db = await database();
    const [kept, entries, photos] = await Promise.all([
      db.get('jobs', jobKey(job)),
      db.getAll('entries'),
      db.getAll('photos'),
    ]);
    return {
      job: kept,
      entries: entries.filter(isOwn(job)).sort((a, b) => a.place - b.place),
      photos: photos.filter(isOwn(job)),
      ofOthers: entries.filter(({ personId }) => personId !== job.personId).length,
    };
  },
  keepJob: async (job) => (await database()).put('jobs', job, jobKey(job)),
  keepEntry: async (entry) => (await database()).put('entries', entry),
  async dropEntries(ids) {
    const tx = (await database()).transaction('entries', 'readwrite');
    await Promise.all([...ids.map((id) => tx.store.delete(id)), tx.done]);
  },
  keepPhoto: async (photo) => (await database()).put('photos', photo),
  dropPhoto: async (id) => (await database()).delete('photos', id),
};

import { type DBSchema, type IDBPDatabase, openDB, type StoreValue } from 'idb';
import type { PersonId } from '@/core/shared/kinds';
import type { FloorJob } from '@/core/work/job-record';
import type { FloorStore, Waiting, WaitingPhoto } from '../floor/sync/parts';
import type { CaseWaiting } from '../misfire/case-outbox';
import type { OutboxStore } from './outbox';

/* What a device keeps by itself: entries and pictures until the server has them, and each job as it was last seen. */

interface Schema extends DBSchema {
  entries: { key: string; value: Waiting };
  photos: { key: string; value: WaitingPhoto };
  jobs: { key: string; value: FloorJob };
  misfireEntries: { key: string; value: CaseWaiting };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

function database(): Promise<IDBPDatabase<Schema>> {
  opened ??= openDB<Schema>('isobar-floor', 3, {
    upgrade(db, before) {
      if (before < 1) {
        db.createObjectStore('entries', { keyPath: 'id' });
        db.createObjectStore('photos', { keyPath: 'id' });
      }
      // A job as an earlier version saw it has other names in it; the server gives it anew.
      if (before === 1) db.deleteObjectStore('jobs');
      if (before < 2) db.createObjectStore('jobs');
      db.createObjectStore('misfireEntries', { keyPath: 'id' });
    },
    // A newer Isobar in another tab wants to change the store: this one lets it.
    blocking: (_, __, event) => (event.target as IDBDatabase).close(),
  });
  return opened;
}

/** The entries of one person that `belongs` picks: those of one job or one misfire. */
const entriesOf = <N extends 'entries' | 'misfireEntries'>(
  name: N,
  personId: PersonId,
  belongs: (entry: StoreValue<Schema, N>) => boolean,
): OutboxStore<StoreValue<Schema, N>> => ({
  async load() {
    const all = await (await database()).getAll(name);
    return {
      entries: all.filter((entry) => entry.personId === personId && belongs(entry)).sort((a, b) => a.place - b.place),
      ofOthers: all.filter((entry) => entry.personId !== personId).length,
    };
  },
  async save(keep, drop) {
    const tx = (await database()).transaction(name, 'readwrite');
    const writes = [...keep.map((entry) => tx.store.put(entry)), ...drop.map((id) => tx.store.delete(id)), tx.done];
    // Without this a page that is closed now would take back what the browser has been given already.
    tx.commit();
    await Promise.all(writes);
  },
});

export const caseStore = (caseId: string, personId: PersonId): OutboxStore<CaseWaiting> =>
  entriesOf('misfireEntries', personId, (entry) => entry.caseId === caseId);

const jobKey = ({ personId, orderId }: FloorJob): string => `${personId} ${orderId}`;

export const floorStore = ({ orderId, personId }: FloorJob): FloorStore => ({
  ...entriesOf('entries', personId, (entry) => entry.orderId === orderId),
  async open(job) {
    const db = await database();
    const [kept, photos] = await Promise.all([db.get('jobs', jobKey(job)), db.getAll('photos')]);
    return { job: kept, photos: photos.filter((row) => row.orderId === orderId && row.personId === personId) };
  },
  keepJob: async (job) => (await database()).put('jobs', job, jobKey(job)),
  keepPhoto: async (photo) => (await database()).put('photos', photo),
  dropPhoto: async (id) => (await database()).delete('photos', id),
});

import type { PersonId } from '@/core/shared/kinds';
import type { Entry, Json } from '@/core/work/entry';
import type { FloorJob } from '@/core/work/job-record';

/* What the sync engine works with: what waits on the device, the device's store, the server, the clock, and its own state. */

export interface Waiting extends Entry {
  readonly orderId: string;
  readonly personId: PersonId;
  /** Keeps the order in which they were made. */
  readonly place: number;
  /** It may have reached the server, so it is not changed any more. */
  readonly tried: boolean;
  /** Why the server will never take it as it is: it is kept aside and not sent again. */
  readonly refusedWhy?: string;
}

export interface WaitingPhoto {
  readonly id: string;
  readonly orderId: string;
  readonly personId: PersonId;
  readonly target: string;
  readonly at: string;
  readonly blob: Blob;
}

/** The device's own store. */
export interface Store {
  readonly open: (job: FloorJob) => Promise<{
    readonly job: FloorJob | undefined;
    readonly entries: readonly Waiting[];
    readonly photos: readonly WaitingPhoto[];
    /** Entries of others that this device still has. */
    readonly ofOthers: number;
  }>;
  readonly keepJob: (job: FloorJob) => Promise<unknown>;
  readonly keepEntry: (entry: Waiting) => Promise<unknown>;
  readonly dropEntries: (ids: readonly string[]) => Promise<unknown>;
  readonly keepPhoto: (photo: WaitingPhoto) => Promise<unknown>;
  readonly dropPhoto: (id: string) => Promise<unknown>;
}

export interface Answer {
  readonly job: FloorJob;
  readonly results?: readonly { readonly id: string; readonly outcome: string; readonly message: string | null }[];
}

/** The server; each throws `Answered` where it answered with something else than was hoped for. */
export interface Server {
  readonly job: (orderId: string) => Promise<Answer>;
  readonly entries: (orderId: string, entries: readonly SentEntry[]) => Promise<Answer>;
  readonly photo: (photo: WaitingPhoto) => Promise<unknown>;
  readonly working: (orderId: string, working: boolean) => Promise<Answer>;
  readonly codes: (orderId: string, moment: 'before' | 'after') => Promise<Answer>;
}

export type SentEntry = Entry & { readonly by: string };

/**
 * `opening`: the store is being read; `unkept`: it cannot be; `cut`: no connection, or a server that cannot answer now;
 * `closed`: the order is closed; `other-person`: somebody else is signed in on this device.
 */
export type Link = 'opening' | 'fresh' | 'sending' | 'cut' | 'signed-out' | 'other-person' | 'closed' | 'unkept';

export interface State {
  readonly job: FloorJob;
  readonly waiting: readonly Waiting[];
  readonly aside: readonly Waiting[];
  readonly photos: readonly WaitingPhoto[];
  readonly ofOthers: number;
  readonly link: Link;
  /** What the server said of pictures, and of entries that it took with a remark. */
  readonly told: readonly { readonly id: string; readonly target: string; readonly message: string }[];
  readonly past: readonly Past[];
}

interface Past {
  readonly target: string;
  readonly field: string;
  readonly from: Json;
  /** Of the press that set it: a press is taken back whole. */
  readonly press: number;
}

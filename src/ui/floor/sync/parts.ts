import type { PersonId } from '@/core/shared/kinds';
import type { Entry, Json } from '@/core/work/entry';
import type { FloorJob } from '@/core/work/job-record';
import type { Kept, OutboxState, OutboxStore } from '@/ui/sync/outbox';

/* What the sync engine works with: what waits on the device, the device's store, the server, the clock, and its own state. */

export interface Waiting extends Entry, Kept {
  readonly at: string;
  readonly orderId: string;
}

export interface WaitingPhoto {
  readonly id: string;
  readonly orderId: string;
  readonly personId: PersonId;
  readonly target: string;
  readonly at: string;
  readonly blob: Blob;
}

/** The device's store: entries, pictures, and the job as it was last seen. */
export interface FloorStore extends OutboxStore<Waiting> {
  readonly open: (job: FloorJob) => Promise<{
    readonly job: FloorJob | undefined;
    readonly photos: readonly WaitingPhoto[];
  }>;
  readonly keepJob: (job: FloorJob) => Promise<unknown>;
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

export interface State extends OutboxState<Waiting> {
  readonly job: FloorJob;
  readonly photos: readonly WaitingPhoto[];
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

import type { Said } from '@/core/misfire/case-entry';
import type { PersonId } from '@/core/shared/kinds';
import { Answered } from '../sync/answered';
import type { Clock } from '../sync/clock';
import { type Kept, type Link, Outbox, type OutboxStore } from '../sync/outbox';

/** What is said of a misfire at the vehicle, while the device has it. */
export interface CaseWaiting extends Kept {
  readonly caseId: string;
  readonly said: Said;
}

/** An entry as the server takes it. */
export interface SentCaseEntry {
  readonly id: string;
  /** Id of who said it: the server takes it from them alone. */
  readonly by: string;
  /** ISO 8601. */
  readonly at: string;
  readonly said: Said;
}

interface CaseServer {
  readonly send: (entries: readonly SentCaseEntry[]) => Promise<unknown>;
  /** What others said meanwhile. */
  readonly look: () => Promise<void>;
}

/** Nobody is signed in, or somebody else is: what was said waits for whoever said it. */
function judge(error: unknown): 'refused' | Link | null {
  if (!(error instanceof Answered)) return null;
  if (error.status === 403) return 'signed-out';
  // A case that is closed, or parts that are not swapped, are so the next time too.
  return error.status === 409 ? 'refused' : null;
}

/** The outbox of one misfire; the server refuses the whole of a request or nothing of it. */
export const caseOutbox = (
  { send, look }: CaseServer,
  store: OutboxStore<CaseWaiting>,
  clock: Clock,
  newId: () => string,
  personId: PersonId,
): Outbox<CaseWaiting> =>
  new Outbox(
    store,
    {
      async send(batch) {
        await send(batch.map(({ id, at, said }) => ({ id, by: personId, at, said })));
        await look();
        return new Map();
      },
      look,
      judge,
    },
    clock,
    newId,
    personId,
  );

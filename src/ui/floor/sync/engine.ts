import { personUnits } from '@/core/units/person-units';
import { type JobRecord, type Json, sameJson, withEntries } from '@/core/work/entry';
import type { FloorJob } from '@/core/work/job-record';
import { readPlaceQuantity } from '@/core/work/place-done';
import { isPlaceQuantity } from '@/core/work/place-fields';
import { readPlaceTarget } from '@/core/work/targets';
import { Answered, isPermanent } from '@/ui/sync/answered';
import type { Clock } from '@/ui/sync/clock';
import { type Link, Outbox } from '@/ui/sync/outbox';
import type { FloorStore, SentEntry, Server, State, Waiting, WaitingPhoto } from './parts';

/* A job at the vehicle as a state machine: the record with what is not yet sent laid over it, pictures, and Undo. It knows no
   browser: store, server and clock are handed in. */

const MAX_UNDONE = 60;

export class SyncEngine {
  private state: State;
  private readonly outbox: Outbox<Waiting>;
  private readonly listeners = new Set<() => void>();
  private edited: string | null = null;
  private press = 0;
  private inPress = false;

  constructor(
    first: FloorJob,
    private readonly store: FloorStore,
    private readonly server: Server,
    private readonly clock: Clock,
    private readonly newId: () => string,
  ) {
    this.outbox = new Outbox(
      { load: () => this.open(), save: store.save },
      {
        send: (batch) => this.sendEntries(batch),
        hasMore: () => this.state.photos.length > 0,
        sendMore: async () => {
          for (const photo of this.state.photos) await this.sendPhoto(photo);
        },
        look: async () => this.takeJob((await server.job(this.state.job.orderId)).job),
        isReady: (entry) => this.isReady(entry),
        judge: linkAfter,
      },
      clock,
      newId,
      first.personId,
    );
    this.state = { ...this.outbox.snapshot(), job: first, photos: [], told: [], past: [] };
    this.outbox.subscribe(() => this.put(this.outbox.snapshot()));
  }

  readonly snapshot = (): State => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Reads the device's store, then goes on sending until it is stopped. */
  start = (): Promise<void> => this.outbox.start();

  stop = (): void => this.outbox.stop();

  /** Asks at once, as when the connection comes back. */
  readonly hurry = (): void => this.outbox.hurry();

  /** The page was read anew, as after a form on it was pressed: what it says is shown at once, not at the next question. */
  readonly readAnew = (job: FloorJob): void => {
    if (job.personId === this.state.job.personId && job.asOf > this.state.job.asOf) this.takeJob(job);
  };

  readonly set = (target: string, field: string, value: Json, resolves?: string): void => {
    const { job, waiting, past } = this.state;
    const shown = withEntries(job.record, waiting)[target]?.[field] ?? null;
    if (sameJson(shown, value) && !resolves) return;
    this.put({ past: [...past, { target, field, from: shown, press: this.pressNow() }].slice(-MAX_UNDONE) });
    const last = waiting.findLast((entry) => entry.target === target && entry.field === field);
    if (last && !last.tried && !resolves) this.change(last, value);
    else
      this.outbox.add((kept) => ({
        ...{ ...kept, orderId: job.orderId, target, field, value, base: shown },
        ...(resolves ? { resolves } : {}),
      }));
  };

  /** The field that is being typed in: it is not sent half-written. Null: none. */
  readonly edit = (target: string | null, field = ''): void => {
    this.edited = target === null ? null : `${target}/${field}`;
    this.outbox.soon();
  };

  readonly addPhoto = (target: string, blob: Blob): void => {
    const { orderId, personId } = this.state.job;
    const at = new Date(this.clock.nowMs()).toISOString();
    const photo = { id: this.newId(), orderId, personId, target, at, blob };
    void this.store.keepPhoto(photo);
    this.put({ photos: [...this.state.photos, photo] });
    this.outbox.soon();
  };

  readonly setWorking = (working: boolean): void => {
    void this.server.working(this.state.job.orderId, working).then(
      ({ job }) => this.takeJob(job),
      () => this.put({ link: 'cut' }),
    );
  };

  /**
   * Asks the code reader at the server; where it cannot be asked, the codes are typed.
   *
   * @param step that is done when they are kept
   */
  readonly readCodes = (moment: 'before' | 'after', step: string): void => {
    const { orderId } = this.state.job;
    void this.server.codes(orderId, moment).then(
      ({ job }) => {
        this.takeJob(job);
        this.set(step, 'state', 'done');
      },
      (error) => {
        const message = error instanceof Answered ? error.detail : 'No connection to the code reader: type the codes.';
        this.put({ told: [...this.state.told, { id: this.newId(), target: step, message }] });
      },
    );
  };

  /** What was told has been seen; an entry that stands aside is given up. */
  readonly forget = (id: string): void => {
    if (this.state.aside.some((entry) => entry.id === id)) this.outbox.drop(id);
    this.put({ told: this.state.told.filter((entry) => entry.id !== id) });
  };

  /** Enters once more what stood aside, as it was typed: the record may have changed since. */
  readonly tryAgain = (id: string): void => {
    const entry = this.state.aside.find((refused) => refused.id === id);
    if (!entry) return;
    this.forget(id);
    this.set(entry.target, entry.field, entry.value);
  };

  /** Takes back what the last press did on this device. */
  readonly undo = (): void => {
    const { past } = this.state;
    const last = past.at(-1)?.press;
    const press = past.filter((entry) => entry.press === last);
    for (const { target, field, from } of press.toReversed())
      this.set(target, field, from ?? (field.startsWith('answer.') ? '' : null));
    this.put({ past: past.slice(0, past.length - press.length) });
  };

  /** What is set by one event of the browser belongs to one press: it is over before a microtask runs. */
  private pressNow(): number {
    if (!this.inPress) {
      this.inPress = true;
      this.press += 1;
      queueMicrotask(() => {
        this.inPress = false;
      });
    }
    return this.press;
  }

  /** An entry that says again what the server knows is no entry. */
  private change(last: Waiting, value: Json): void {
    if (sameJson(last.base, value)) this.outbox.drop(last.id);
    else this.outbox.change({ ...last, value });
  }

  /** What is being typed, and what no one could read, stays with the person who typed it. */
  private isReady(entry: Waiting): boolean {
    return `${entry.target}/${entry.field}` !== this.edited && this.isReadable(entry);
  }

  /** Whether a figure can be read; every other entry can. */
  isReadable({ target, field, value }: Pick<Waiting, 'target' | 'field' | 'value'>): boolean {
    const place = readPlaceTarget(target);
    if (!place || !isPlaceQuantity(field) || typeof value !== 'string') return true;
    return readPlaceQuantity(place.component, field, value, personUnits(this.state.job.units)).ok;
  }

  private async open(): ReturnType<FloorStore['load']> {
    const first = this.state.job;
    const [kept, { job, photos }] = await Promise.all([this.store.load(), this.store.open(first)]);
    // A page from the device's own store may be older than the job kept beside it.
    if (job && job.asOf > first.asOf) this.takeJob(job);
    else await this.store.keepJob(first);
    this.put({ photos });
    return kept;
  }

  /** @returns why an entry was refused, by its id */
  private async sendEntries(batch: readonly Waiting[]): Promise<ReadonlyMap<string, string>> {
    const { job, results = [] } = await this.server.entries(this.state.job.orderId, batch.map(sent));
    this.takeJob(job);
    const targets = new Map(batch.map(({ id, target }) => [id, target]));
    const told = results.flatMap(({ id, outcome, message }) =>
      outcome === 'refused' || !message ? [] : [{ id, target: targets.get(id) ?? '', message }],
    );
    if (told.length > 0) this.put({ told: [...this.state.told, ...told] });
    return new Map(
      results.flatMap(({ id, outcome, message }) =>
        outcome === 'refused' ? [[id, message ?? 'The server did not take it.'] as const] : [],
      ),
    );
  }

  private async sendPhoto(photo: WaitingPhoto): Promise<void> {
    const { id, target } = photo;
    try {
      await this.server.photo(photo);
    } catch (error) {
      if (!isPermanent(error)) throw error;
      const message = `The picture was not kept: ${error.detail} Take it again.`;
      this.put({ told: [...this.state.told, { id, target, message }] });
    }
    await this.store.dropPhoto(id);
    this.put({ photos: this.state.photos.filter((photo) => photo.id !== id) });
  }

  /** @throws OtherPerson where the answer is for somebody else: nothing of this person's page is theirs */
  private takeJob(answered: FloorJob): void {
    if (answered.personId !== this.state.job.personId) throw new OtherPerson();
    const job = sharing(this.state.job, answered);
    this.put({ job });
    void this.store.keepJob(job);
  }

  private put(changed: Partial<State>): void {
    this.state = { ...this.state, ...changed };
    for (const listener of this.listeners) listener();
  }
}

class OtherPerson extends Error {}

function linkAfter(error: unknown): Link | null {
  if (error instanceof OtherPerson) return 'other-person';
  return error instanceof Answered && error.status === 409 ? 'closed' : null;
}

const sent = ({ id, personId, target, field, value, base, at, resolves }: Waiting): SentEntry => ({
  id,
  by: personId,
  target,
  field,
  value,
  base,
  at,
  resolves: resolves ?? null,
});

/** What has not changed stays the very same object, so that only what has is drawn again. */
function sharing(before: FloorJob, next: FloorJob): FloorJob {
  const same = Object.keys(next).filter((name) =>
    sameJson(before[name as keyof FloorJob] as Json, next[name as keyof FloorJob] as Json),
  );
  return { ...next, ...Object.fromEntries(same.map((name) => [name, before[name as keyof FloorJob]])) };
}

/** The record as this person sees it: what the server last said, with what is not yet sent laid over it. */
export const recordOf = ({ job, waiting }: Pick<State, 'job' | 'waiting'>): JobRecord =>
  withEntries(job.record, waiting);

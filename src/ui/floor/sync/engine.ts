import { personUnits } from '@/core/units/person-units';
import { type Entry, type JobRecord, type Json, sameJson, withEntries } from '@/core/work/entry';
import type { FloorJob } from '@/core/work/job-record';
import { readPlaceQuantity } from '@/core/work/place-done';
import { isPlaceQuantity } from '@/core/work/place-fields';
import { readPlaceTarget } from '@/core/work/targets';
import { Answered, isPermanent } from '@/ui/sync/answered';
import type { Clock } from '@/ui/sync/clock';
import type { Answer, Link, SentEntry, Server, State, Store, Waiting, WaitingPhoto } from './parts';

/* A job at the vehicle as a state machine: what is typed is kept on the device at once and sent when it can be. It knows no
   browser: store, server and clock are handed in. */

/** Pause between two questions to the server: short when something waits, longer when it did not answer. */
const LOOK_EVERY_MS = 15_000;
const FIRST_RETRY_MS = 2_000;
const MAX_RETRY_MS = 20_000;
const SOON_MS = 60;
const BATCH = 100;
const MAX_UNDONE = 60;
export class SyncEngine {
  private state: State;
  private readonly listeners = new Set<() => void>();
  private edited: string | null = null;
  private sending = false;
  private stopped = false;
  private press = 0;
  private inPress = false;
  private cancelTimer: () => void = () => undefined;
  private retryMs = FIRST_RETRY_MS;
  /** Entries a request: one after a refusal, until it is known which of them is not taken. */
  private batch = BATCH;

  constructor(
    first: FloorJob,
    private readonly store: Store,
    private readonly server: Server,
    private readonly clock: Clock,
    private readonly newId: () => string,
  ) {
    this.state = { job: first, waiting: [], aside: [], photos: [], ofOthers: 0, link: 'opening', told: [], past: [] };
  }

  readonly snapshot = (): State => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Reads the device's store, then goes on sending until it is stopped. */
  async start(): Promise<void> {
    this.stopped = false;
    try {
      const first = this.state.job;
      const { job, entries, photos, ofOthers } = await this.store.open(first);
      if (this.stopped) return;
      // A page from the device's own store may be older than the job kept beside it.
      if (job && job.asOf > first.asOf) this.takeJob(job);
      else await this.store.keepJob(first);
      const known = new Set(entries.map(({ id }) => id));
      this.put({
        waiting: [...entries.filter(isWaiting), ...this.state.waiting.filter(({ id }) => !known.has(id))],
        aside: entries.filter((entry) => !isWaiting(entry)),
        photos,
        ofOthers,
        link: 'fresh',
      });
    } catch {
      this.put({ link: 'unkept' });
      return;
    }
    void this.send();
  }

  stop(): void {
    this.stopped = true;
    this.cancelTimer();
  }

  /** Asks at once, as when the connection comes back. */
  readonly hurry = (): void => {
    this.retryMs = FIRST_RETRY_MS;
    void this.send();
  };

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
    else this.add({ target, field, value, base: shown, ...(resolves ? { resolves } : {}) });
    this.soon();
  };

  /** The field that is being typed in: it is not sent half-written. Null: none. */
  readonly edit = (target: string | null, field = ''): void => {
    this.edited = target === null ? null : `${target}/${field}`;
    this.soon();
  };

  readonly addPhoto = (target: string, blob: Blob): void => {
    const { orderId, personId } = this.state.job;
    const photo = { id: this.newId(), orderId, personId, target, at: this.iso(), blob };
    void this.store.keepPhoto(photo);
    this.put({ photos: [...this.state.photos, photo] });
    this.soon();
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
    if (this.state.aside.some((entry) => entry.id === id)) void this.store.dropEntries([id]);
    this.put({
      told: this.state.told.filter((one) => one.id !== id),
      aside: this.state.aside.filter((entry) => entry.id !== id),
    });
  };

  /** Enters once more what stood aside, as it was typed: the record may have changed since. */
  readonly tryAgain = (id: string): void => {
    const entry = this.state.aside.find((one) => one.id === id);
    if (!entry) return;
    this.forget(id);
    this.set(entry.target, entry.field, entry.value);
  };

  /** Takes back what the last press did on this device. */
  readonly undo = (): void => {
    const { past } = this.state;
    const last = past.at(-1)?.press;
    const press = past.filter((one) => one.press === last);
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

  private change(last: Waiting, value: Json): void {
    const others = this.state.waiting.filter(({ id }) => id !== last.id);
    if (sameJson(last.base, value)) {
      void this.store.dropEntries([last.id]);
      this.put({ waiting: others });
      return;
    }
    const changed = { ...last, value, at: this.iso() };
    void this.store.keepEntry(changed);
    this.put({ waiting: this.state.waiting.map((entry) => (entry.id === last.id ? changed : entry)) });
  }

  private add(said: Pick<Entry, 'target' | 'field' | 'value' | 'base' | 'resolves'>): void {
    const { job, waiting } = this.state;
    const entry: Waiting = {
      id: this.newId(),
      orderId: job.orderId,
      personId: job.personId,
      place: (waiting.at(-1)?.place ?? this.clock.nowMs()) + 1,
      tried: false,
      at: this.iso(),
      ...said,
    };
    void this.store.keepEntry(entry);
    this.put({ waiting: [...waiting, entry] });
  }

  private soon(): void {
    this.wait(SOON_MS);
  }

  private wait(ms: number): void {
    this.cancelTimer();
    if (!this.stopped) this.cancelTimer = this.clock.after(ms, () => void this.send());
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

  private async send(): Promise<void> {
    if (this.sending || this.stopped) return;
    this.sending = true;
    this.cancelTimer();
    let pause = LOOK_EVERY_MS;
    try {
      const batch = this.state.waiting.filter((entry) => this.isReady(entry)).slice(0, this.batch);
      if (batch.length > 0 || this.state.photos.length > 0) this.put({ link: 'sending' });
      if (batch.length > 0) await this.sendEntries(batch);
      for (const photo of this.state.photos) await this.sendPhoto(photo);
      if (batch.length === 0) this.takeJob((await this.server.job(this.state.job.orderId)).job);
      this.retryMs = FIRST_RETRY_MS;
      this.put({ link: 'fresh' });
      if (this.state.waiting.some((entry) => this.isReady(entry))) pause = 0;
    } catch (error) {
      this.put({ link: linkAfter(error) });
      pause = this.retryMs;
      this.retryMs = Math.min(MAX_RETRY_MS, this.retryMs * 2);
    } finally {
      this.sending = false;
      this.wait(pause);
    }
  }

  private async sendEntries(batch: readonly Waiting[]): Promise<void> {
    const ids = new Set(batch.map(({ id }) => id));
    // Marked before anything is awaited: what is set meanwhile becomes an entry of its own, and is not dropped with this one.
    this.put({ waiting: this.state.waiting.map((entry) => (ids.has(entry.id) ? { ...entry, tried: true } : entry)) });
    await Promise.all(batch.map((entry) => this.store.keepEntry({ ...entry, tried: true })));
    let answer: Answer;
    try {
      answer = await this.server.entries(this.state.job.orderId, batch.map(sent));
    } catch (error) {
      if (!isPermanent(error)) throw error;
      // One of them is not taken: alone, each of the others is.
      if (batch.length > 1) this.batch = 1;
      else await this.setAside(batch, () => error.detail);
      return;
    }
    this.takeJob(answer.job);
    const results = new Map((answer.results ?? []).map((result) => [result.id, result]));
    const refused = batch.filter(({ id }) => results.get(id)?.outcome === 'refused');
    await this.setAside(refused, ({ id }) => results.get(id)?.message ?? 'It was not taken.');
    const taken = batch.filter((entry) => !refused.includes(entry));
    await this.store.dropEntries(taken.map(({ id }) => id));
    this.put({
      waiting: this.state.waiting.filter((entry) => !ids.has(entry.id)),
      told: [
        ...this.state.told,
        ...taken.flatMap(({ id, target }) => {
          const message = results.get(id)?.message;
          return message ? [{ id, target, message }] : [];
        }),
      ],
    });
    if (this.batch === 1 && !this.state.waiting.some(({ tried }) => tried)) this.batch = BATCH;
  }

  /** Refused for good: it does not stand in the way of what is behind it, and is not lost. */
  private async setAside(entries: readonly Waiting[], why: (entry: Waiting) => string): Promise<void> {
    if (entries.length === 0) return;
    const aside = entries.map((entry) => ({ ...entry, tried: true, refusedWhy: why(entry) }));
    await Promise.all(aside.map((entry) => this.store.keepEntry(entry)));
    const ids = new Set(aside.map(({ id }) => id));
    this.put({
      waiting: this.state.waiting.filter(({ id }) => !ids.has(id)),
      aside: [...this.state.aside.filter(({ id }) => !ids.has(id)), ...aside],
    });
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
    this.put({ photos: this.state.photos.filter((one) => one.id !== id) });
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

  private iso(): string {
    return new Date(this.clock.nowMs()).toISOString();
  }
}

class OtherPerson extends Error {}

const isWaiting = ({ refusedWhy }: Waiting): boolean => refusedWhy === undefined;

function linkAfter(error: unknown): Link {
  if (error instanceof OtherPerson) return 'other-person';
  if (!(error instanceof Answered)) return 'cut';
  if (error.status === 401) return 'signed-out';
  return error.status === 409 ? 'closed' : 'cut';
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

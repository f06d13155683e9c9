import type { PersonId } from '@/core/shared/kinds';
import { Answered, isPermanent } from './answered';
import type { Clock } from './clock';

/* What a person enters at a vehicle: kept on the device at once, sent when the server answers, and never half of a press.
   A job and a misfire share this class. It knows no browser: store, server and clock are handed in. */

/** Pause between two questions to the server: short when something waits, longer when it did not answer. */
const LOOK_EVERY_MS = 15_000;
const FIRST_RETRY_MS = 2_000;
const MAX_RETRY_MS = 20_000;
const SOON_MS = 60;
/** As many as the server takes in one request. */
const BATCH = 50;

/** What every entry carries while it is on the device. */
export interface Kept {
  readonly id: string;
  readonly personId: PersonId;
  /** When it was entered, ISO 8601. */
  readonly at: string;
  /** Keeps the order in which entries were made. */
  readonly place: number;
  /** It may have reached the server, so it is not changed any more. */
  readonly tried: boolean;
  /** Why the server will never take it as it is: it is kept aside and not sent again. */
  readonly refusedWhy?: string;
}

/**
 * `opening`: the store is being read; `unkept`: the device keeps nothing; `cut`: no connection, or a server that cannot
 * answer now; `closed`: the order is closed; `other-person`: somebody else is signed in on this device.
 */
export type Link = 'opening' | 'fresh' | 'sending' | 'cut' | 'signed-out' | 'other-person' | 'closed' | 'unkept';

export interface OutboxState<E extends Kept> {
  /** Not yet on the server, in their order. */
  readonly waiting: readonly E[];
  /** Refused for good, until the person who entered them has decided. */
  readonly aside: readonly E[];
  /** Entries of others that this device still has. */
  readonly ofOthers: number;
  readonly link: Link;
}

/** The device's store, for one person and one job or misfire. */
export interface OutboxStore<E extends Kept> {
  readonly load: () => Promise<{ readonly entries: readonly E[]; readonly ofOthers: number }>;
  /** One transaction: all of it is kept, or nothing. */
  readonly save: (keep: readonly E[], drop: readonly string[]) => Promise<unknown>;
}

/** The server as an outbox sees it; each throws where it could not be asked or refused the whole. */
interface Exchange<E extends Kept> {
  /** @returns why an entry was refused, by its id; all others were taken */
  readonly send: (batch: readonly E[]) => Promise<ReadonlyMap<string, string>>;
  /** What is sent beside the entries, after them. */
  readonly sendMore?: () => Promise<void>;
  /** Nothing waits: asks what is new. */
  readonly look: () => Promise<void>;
  /** What an error leaves: a refusal for good, or the state of the connection. */
  readonly judge?: (error: unknown) => 'refused' | Link | null;
  /** Whether an entry may be sent now; by default each may. */
  readonly isReady?: (entry: E) => boolean;
  /** Whether more than entries waits. */
  readonly hasMore?: () => boolean;
}

export class Outbox<E extends Kept> {
  private state: OutboxState<E> = { waiting: [], aside: [], ofOthers: 0, link: 'opening' };
  private readonly listeners = new Set<() => void>();
  private isSending = false;
  private isStopped = false;
  private cancelTimer: () => void = () => undefined;
  private retryMs = FIRST_RETRY_MS;
  /** Entries a request: one after a refusal, until it is known which of them is not taken. */
  private batch = BATCH;
  /** Changes that the store does not have yet; null: dropped. */
  private unsaved = new Map<string, E | null>();
  private saving: Promise<void> | null = null;

  constructor(
    private readonly store: OutboxStore<E>,
    private readonly exchange: Exchange<E>,
    private readonly clock: Clock,
    private readonly newId: () => string,
    private readonly personId: PersonId,
  ) {}

  readonly snapshot = (): OutboxState<E> => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Reads the device's store, then goes on with what an earlier page left. */
  async start(): Promise<void> {
    this.isStopped = false;
    try {
      const { entries, ofOthers } = await this.store.load();
      if (this.isStopped) return;
      const known = new Set(entries.map(({ id }) => id));
      this.put({
        waiting: [...entries.filter(isWaiting), ...this.state.waiting.filter(({ id }) => !known.has(id))],
        aside: entries.filter((entry) => !isWaiting(entry)),
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
    this.isStopped = true;
    this.cancelTimer();
  }

  /** Asks at once, as when the connection comes back. */
  readonly hurry = (): void => {
    this.retryMs = FIRST_RETRY_MS;
    void this.send();
  };

  /** Sends shortly: what is entered in the same breath goes with it. */
  readonly soon = (): void => this.wait(SOON_MS);

  /** @param entryWith the entry, given what every entry carries */
  add(entryWith: (kept: Kept) => E): void {
    const entry = entryWith({
      id: this.newId(),
      personId: this.personId,
      at: this.now(),
      place: (this.state.waiting.at(-1)?.place ?? this.clock.nowMs()) + 1,
      tried: false,
    });
    void this.save([entry]);
    this.put({ waiting: [...this.state.waiting, entry] });
    this.soon();
  }

  /** Puts an entry that waits into the place of the one with its id, as entered now. */
  change(entry: E): void {
    const changed = { ...entry, at: this.now() };
    void this.save([changed]);
    this.put({ waiting: this.state.waiting.map((entry) => (entry.id === changed.id ? changed : entry)) });
    this.soon();
  }

  /** Gives an entry up, whether it waits or stands aside. */
  readonly drop = (id: string): void => {
    void this.save([], [id]);
    this.put({
      waiting: this.state.waiting.filter((entry) => entry.id !== id),
      aside: this.state.aside.filter((entry) => entry.id !== id),
    });
  };

  /** Takes back the last that was entered, as long as it is on this device alone. */
  readonly dropLast = (): void => {
    const last = this.state.waiting.at(-1);
    if (last && !this.isSending) this.drop(last.id);
  };

  private async send(): Promise<void> {
    if (this.isSending || this.isStopped || this.state.link === 'opening') return;
    this.isSending = true;
    this.cancelTimer();
    let pause = LOOK_EVERY_MS;
    try {
      const batch = this.ready().slice(0, this.batch);
      if (batch.length > 0 || this.exchange.hasMore?.()) this.put({ link: 'sending' });
      if (batch.length > 0) await this.sendBatch(batch);
      await this.exchange.sendMore?.();
      if (batch.length === 0) await this.exchange.look();
      this.retryMs = FIRST_RETRY_MS;
      this.put({ link: 'fresh' });
      if (this.ready().length > 0) pause = 0;
    } catch (error) {
      const left = this.judge(error);
      this.put({ link: left === 'refused' ? 'cut' : left });
      pause = this.retryMs;
      this.retryMs = Math.min(MAX_RETRY_MS, this.retryMs * 2);
    } finally {
      this.isSending = false;
      this.wait(pause);
    }
  }

  private async sendBatch(entries: readonly E[]): Promise<void> {
    const batch = entries.map((entry) => ({ ...entry, tried: true }));
    const tried = new Map(batch.map((entry) => [entry.id, entry]));
    // Marked before anything is awaited: what is set meanwhile becomes an entry of its own, and is not dropped with this one.
    this.put({ waiting: this.state.waiting.map((entry) => tried.get(entry.id) ?? entry) });
    await this.save(batch);
    let refused: ReadonlyMap<string, string>;
    try {
      refused = await this.exchange.send(batch);
    } catch (error) {
      if (this.judge(error) !== 'refused') throw error;
      // One of them is not taken: alone, each of the others is.
      if (batch.length > 1) this.batch = 1;
      else await this.settle(batch, new Map(batch.map(({ id }) => [id, detailOf(error)])));
      return;
    }
    await this.settle(batch, refused);
    if (this.batch === 1 && !this.state.waiting.some((entry) => entry.tried)) this.batch = BATCH;
  }

  /** What was taken leaves the device; what is refused for good steps aside: it holds nothing up, and is not lost. */
  private async settle(batch: readonly E[], refused: ReadonlyMap<string, string>): Promise<void> {
    const aside = batch.flatMap((entry) => {
      const refusedWhy = refused.get(entry.id);
      return refusedWhy === undefined ? [] : [{ ...entry, refusedWhy }];
    });
    const done = new Set(batch.map(({ id }) => id));
    await this.save(
      aside,
      [...done].filter((id) => !refused.has(id)),
    );
    this.put({
      waiting: this.state.waiting.filter(({ id }) => !done.has(id)),
      aside: [...this.state.aside.filter(({ id }) => !done.has(id)), ...aside],
    });
  }

  /**
   * What one press sets is kept as a whole: a page that is closed in the middle leaves all of it or nothing.
   *
   * @returns once the device has it
   */
  private save(keep: readonly E[], drop: readonly string[] = []): Promise<void> {
    for (const entry of keep) this.unsaved.set(entry.id, entry);
    for (const id of drop) this.unsaved.set(id, null);
    this.saving ??= Promise.resolve().then(() => this.saveAll());
    return this.saving;
  }

  private async saveAll(): Promise<void> {
    const changes = [...this.unsaved];
    this.unsaved = new Map();
    this.saving = null;
    try {
      await this.store.save(
        changes.flatMap(([, entry]) => entry ?? []),
        changes.flatMap(([id, entry]) => (entry ? [] : id)),
      );
    } catch {
      this.put({ link: 'unkept' });
    }
  }

  private ready(): readonly E[] {
    const { isReady } = this.exchange;
    return isReady ? this.state.waiting.filter(isReady) : this.state.waiting;
  }

  private judge(error: unknown): 'refused' | Link {
    return this.exchange.judge?.(error) ?? linkAfter(error);
  }

  private now(): string {
    return new Date(this.clock.nowMs()).toISOString();
  }

  private wait(ms: number): void {
    this.cancelTimer();
    if (!this.isStopped) this.cancelTimer = this.clock.after(ms, () => void this.send());
  }

  private put(changed: Partial<OutboxState<E>>): void {
    this.state = { ...this.state, ...changed };
    for (const listener of this.listeners) listener();
  }
}

const isWaiting = ({ refusedWhy }: Kept): boolean => refusedWhy === undefined;

const detailOf = (error: unknown): string => (error instanceof Answered ? error.detail : '');

function linkAfter(error: unknown): 'refused' | Link {
  if (isPermanent(error)) return 'refused';
  return error instanceof Answered && error.status === 401 ? 'signed-out' : 'cut';
}

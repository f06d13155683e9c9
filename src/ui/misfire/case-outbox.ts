import type { Said } from '@/core/misfire/case-entry';
import { Answered, isPermanent } from '../sync/answered';
import type { Clock } from '../sync/clock';

/* What is said of a misfire at the vehicle: kept on the device at once, sent when it can be. It knows no browser. */

/** An entry as the server takes it. */
export interface DeviceEntry {
  readonly id: string;
  /** Id of who said it: the server takes it from them alone. */
  readonly by: string;
  /** ISO 8601. */
  readonly at: string;
  readonly said: Said;
}

/** The device's own store, of one person and case. */
export interface OutboxStore {
  readonly load: () => readonly DeviceEntry[];
  readonly save: (entries: readonly DeviceEntry[]) => void;
}

interface OutboxState {
  /** Not yet on the server, in their order. */
  readonly waiting: readonly DeviceEntry[];
  /** On the server since the page was opened. */
  readonly sent: readonly DeviceEntry[];
  /** What the server will never take, with its reason. */
  readonly refused: { readonly entry: DeviceEntry; readonly why: string } | null;
  readonly link: 'fresh' | 'sending' | 'cut' | 'signed-out';
}

const FIRST_RETRY_MS = 2000;
const MAX_RETRY_MS = 20_000;

/** Nobody is signed in, or somebody else is: what was said waits for whoever said it. */
const isOthers = (error: unknown): boolean =>
  error instanceof Answered && (error.status === 401 || error.status === 403);

/** A case that is closed, or parts that do not stand swapped, are so the next time too. */
const isRefusal = (error: unknown): error is Answered =>
  !isOthers(error) && (isPermanent(error) || (error instanceof Answered && error.status === 409));

export class CaseOutbox {
  private state: OutboxState = { waiting: [], sent: [], refused: null, link: 'fresh' };
  private readonly listeners = new Set<() => void>();
  private cancelTimer: () => void = () => undefined;
  private retryMs = FIRST_RETRY_MS;
  private isSending = false;

  constructor(
    private readonly store: OutboxStore,
    private readonly send: (entries: readonly DeviceEntry[]) => Promise<unknown>,
    private readonly clock: Clock,
    private readonly newId: () => string,
    private readonly personId: string,
  ) {}

  readonly snapshot = (): OutboxState => this.state;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** Goes on with what an earlier page left. */
  start(): void {
    this.put({ waiting: this.store.load() });
    void this.flush();
  }

  stop(): void {
    this.cancelTimer();
  }

  readonly say = (said: Said): void => {
    const entry = { id: this.newId(), by: this.personId, at: new Date(this.clock.nowMs()).toISOString(), said };
    this.keep([...this.state.waiting, entry]);
    void this.flush();
  };

  /** Takes back the last that was said, as long as it is on this device alone. */
  readonly undo = (): void => {
    if (!this.isSending) this.keep(this.state.waiting.slice(0, -1));
  };

  /** Drops what the server will never take. */
  readonly seen = (): void => this.put({ refused: null });

  /** The network may be back. */
  readonly hurry = (): void => {
    this.retryMs = FIRST_RETRY_MS;
    void this.flush();
  };

  private async flush(): Promise<void> {
    const batch = this.state.waiting;
    if (this.isSending || batch.length === 0) return;
    this.cancelTimer();
    this.isSending = true;
    this.put({ link: 'sending' });
    try {
      await this.send(batch);
      this.settled(batch, { sent: [...this.state.sent, ...batch], link: 'fresh' });
      this.retryMs = FIRST_RETRY_MS;
    } catch (error) {
      if (isRefusal(error)) await this.stepAside(batch, error);
      else this.later(error);
    } finally {
      this.isSending = false;
    }
    if (this.state.link === 'fresh' && this.state.waiting.length > 0) void this.flush();
  }

  /** Of several that are refused together each is tried by itself: the others are not held up by one. */
  private async stepAside(batch: readonly DeviceEntry[], error: Answered): Promise<void> {
    for (const entry of batch.length > 1 ? batch : []) {
      try {
        await this.send([entry]);
        this.settled([entry], { sent: [...this.state.sent, entry] });
      } catch (own) {
        if (!isRefusal(own)) return this.later(own);
        this.settled([entry], { refused: { entry, why: own.detail } });
      }
    }
    const [only] = batch;
    if (batch.length === 1 && only) this.settled([only], { refused: { entry: only, why: error.detail } });
    this.put({ link: 'fresh' });
  }

  private later(error: unknown): void {
    this.put({ link: isOthers(error) ? 'signed-out' : 'cut' });
    this.cancelTimer = this.clock.after(this.retryMs, () => void this.flush());
    this.retryMs = Math.min(MAX_RETRY_MS, this.retryMs * 2);
  }

  private settled(done: readonly DeviceEntry[], more: Partial<OutboxState>): void {
    const ids = new Set(done.map(({ id }) => id));
    const waiting = this.state.waiting.filter(({ id }) => !ids.has(id));
    this.store.save(waiting);
    this.put({ ...more, waiting });
  }

  private keep(waiting: readonly DeviceEntry[]): void {
    this.store.save(waiting);
    this.put({ waiting });
  }

  private put(change: Partial<OutboxState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }
}

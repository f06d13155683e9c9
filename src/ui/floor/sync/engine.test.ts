import { describe, expect, it } from 'vitest';
import type { FloorJob } from '@/core/work/job-record';
import { Answered } from '@/ui/sync/answered';
import type { Clock } from '@/ui/sync/clock';
import { recordOf, SyncEngine } from './engine';
import type { FloorStore, SentEntry, Server, Waiting, WaitingPhoto } from './parts';

const JOB = {
  orderId: 'order',
  personId: 'vane',
  units: 'metric',
  record: { 'site 1A': { remark: '', newLot: '', removedGap: '' } },
  asOf: '2026-11-16T08:00:00Z',
} as unknown as FloorJob;

/** A clock that stands until it is told to go on. */
function standingClock() {
  let now = Date.parse('2026-11-16T08:00:00Z');
  let timers: { at: number; run: () => void }[] = [];
  const clock: Clock = {
    nowMs: () => now,
    after: (ms, run) => {
      const timer = { at: now + ms, run };
      timers.push(timer);
      return () => {
        timers = timers.filter((one) => one !== timer);
      };
    },
  };
  const settled = async () => {
    for (let i = 0; i < 50; i++) await Promise.resolve();
  };
  return {
    clock,
    settled,
    /** Lets so much time pass, with all that falls due in it. */
    async pass(ms: number): Promise<void> {
      const end = now + ms;
      await settled();
      for (;;) {
        const next = timers.filter(({ at }) => at <= end).sort((a, b) => a.at - b.at)[0];
        if (!next) break;
        now = Math.max(now, next.at);
        timers = timers.filter((one) => one !== next);
        next.run();
        await settled();
      }
      now = end;
    },
    /** When the next thing falls due, ms from now. */
    next: () => Math.min(...timers.map(({ at }) => at - now)),
  };
}

/** A device's store that outlives the page; `writes` counts its transactions. */
function memory() {
  const entries = new Map<string, Waiting>();
  const photos = new Map<string, WaitingPhoto>();
  const writes: (readonly Waiting[])[] = [];
  const store: FloorStore = {
    load: async () => {
      const all = [...entries.values()];
      const mine = all.filter(({ orderId, personId }) => orderId === JOB.orderId && personId === JOB.personId);
      return { entries: mine, ofOthers: all.length - mine.length };
    },
    open: async () => ({ job: undefined, photos: [...photos.values()] }),
    keepJob: async () => undefined,
    save: async (keep, drop) => {
      writes.push(keep);
      for (const entry of keep) entries.set(entry.id, entry);
      for (const id of drop) entries.delete(id);
    },
    keepPhoto: async (photo) => photos.set(photo.id, photo),
    dropPhoto: async (id) => photos.delete(id),
  };
  return { store, entries, photos, writes };
}

/** A server with one record; `refuse` says what it makes of a request before it looks at it. */
function recordServer(refuse: (entries: readonly SentEntry[]) => Error | null = () => null) {
  const record: Record<string, Record<string, unknown>> = { 'site 1A': { remark: '', newLot: '', removedGap: '' } };
  const seen = new Map<string, SentEntry>();
  let person = 'vane';
  let asked = 0;
  const job = () => ({ job: { ...JOB, personId: person, record: structuredClone(record) } as unknown as FloorJob });
  const server: Server = {
    job: async () => {
      asked += 1;
      const fault = refuse([]);
      if (fault) throw fault;
      return job();
    },
    entries: async (_, entries) => {
      asked += 1;
      const fault = refuse(entries);
      if (fault) throw fault;
      const results = entries.map((entry) => {
        const bad = entry.value === 'bad';
        if (!bad && !seen.has(entry.id)) {
          seen.set(entry.id, entry);
          record[entry.target] = { ...record[entry.target], [entry.field]: entry.value };
        }
        return { id: entry.id, outcome: bad ? 'refused' : 'kept', message: bad ? 'It cannot be right.' : null };
      });
      return { ...job(), results };
    },
    photo: async () => {
      const fault = refuse([]);
      if (fault) throw fault;
    },
    codes: async () => job(),
    working: async () => job(),
  };
  return { server, record, seen, asked: () => asked, signIn: (who: string) => (person = who) };
}

let ids = 0;
async function opened(server: Server, device = memory(), time = standingClock()) {
  const engine = new SyncEngine(JOB, device.store, server, time.clock, () => `id-${++ids}`);
  await engine.start();
  await time.settled();
  return { engine, device, time };
}
const lost = () => new TypeError('Failed to fetch');

describe('what is typed', () => {
  it('is on the device at once, and with the server shortly after, each field once', async () => {
    const { server, record, seen } = recordServer();
    const { engine, device, time } = await opened(server);
    engine.set('site 1A', 'remark', 'a');
    engine.set('site 1A', 'remark', 'ab');
    await time.settled();
    expect([...device.entries.values()].map(({ value }) => value)).toEqual(['ab']);
    expect(recordOf(engine.snapshot())['site 1A']?.remark).toBe('ab');
    await time.pass(100);
    expect([record['site 1A']?.remark, seen.size, device.entries.size]).toEqual(['ab', 1, 0]);
    expect(engine.snapshot()).toMatchObject({ link: 'fresh', waiting: [], aside: [] });
  });

  it('is kept a press at a time: a page that is closed leaves all of a press, or nothing of it', async () => {
    const { server } = recordServer(() => lost());
    const { engine, device, time } = await opened(server);
    for (const field of ['remark', 'newLot', 'removedGap']) engine.set('site 1A', field, field);
    await Promise.resolve();
    expect(device.writes.map((kept) => kept.map(({ field }) => field))).toEqual([['remark', 'newLot', 'removedGap']]);
    engine.undo();
    await time.settled();
    expect([device.entries.size, device.writes.length]).toEqual([0, 2]);
  });

  it('is not sent while its field is being typed in, nor as long as it cannot be read', async () => {
    const { server, seen } = recordServer();
    const { engine, time } = await opened(server);
    engine.edit('site 1A', 'remark');
    engine.set('site 1A', 'remark', 'half');
    engine.set('site 1A', 'removedGap', '9 mm');
    await time.pass(60_000);
    expect(seen.size).toBe(0);
    engine.edit(null);
    engine.set('site 1A', 'removedGap', '0.9 mm');
    await time.pass(100);
    expect([...seen.values()].map(({ value }) => value)).toEqual(['half', '0.9 mm']);
  });

  it('is taken back by one press, as it was put down by one', async () => {
    const { server, record } = recordServer();
    const { engine, time } = await opened(server);
    engine.set('site 1A', 'remark', 'a');
    await time.pass(1000);
    engine.set('site 1A', 'remark', 'b');
    engine.set('site 1A', 'newLot', 'L');
    engine.undo();
    await time.pass(100);
    expect(record['site 1A']).toMatchObject({ remark: 'a', newLot: '' });
  });

  it('is a press of its own however soon it follows another: what was typed before it stays', async () => {
    const { server, record } = recordServer();
    const { engine, time } = await opened(server);
    engine.set('site 1A', 'remark', 'typed');
    await time.settled();
    engine.set('site 1A', 'newLot', 'L');
    engine.undo();
    await time.pass(100);
    expect(record['site 1A']).toMatchObject({ remark: 'typed', newLot: '' });
  });
});

describe('without a connection', () => {
  it('everything is kept and sent when it comes back, in the order in which it was made, once', async () => {
    let cut = true;
    const { server, seen, record } = recordServer(() => (cut ? lost() : null));
    const { engine, device, time } = await opened(server);
    for (const n of [1, 2, 3]) engine.set('site 1A', n === 2 ? 'newLot' : 'remark', `v${n}`);
    await time.pass(5000);
    expect([engine.snapshot().link, device.entries.size]).toEqual(['cut', 2]);
    // The page is closed and opened again.
    engine.stop();
    cut = false;
    const again = await opened(server, device, time);
    await time.pass(25_000);
    expect([seen.size, record['site 1A'], device.entries.size]).toEqual([
      2,
      { remark: 'v3', newLot: 'v2', removedGap: '' },
      0,
    ]);
    expect(again.engine.snapshot().link).toBe('fresh');
  });

  it.each([500, 502, 503, 429, 408])(
    'an answer of %i is tried again, with growing pauses, and refuses nothing',
    async (status) => {
      const { server, asked } = recordServer(() => new Answered(status, 'later'));
      const { engine, time } = await opened(server);
      engine.set('site 1A', 'remark', 'a');
      const pauses: number[] = [];
      await time.pass(100);
      for (let i = 0; i < 6; i++) {
        pauses.push(time.next());
        await time.pass(time.next());
      }
      expect(pauses.every((pause, i) => pause >= (pauses[i - 1] ?? 0) && pause <= 20_000)).toBe(true);
      expect(asked()).toBeLessThan(12);
      expect(engine.snapshot()).toMatchObject({ link: 'cut', aside: [], waiting: [{ value: 'a' }] });
    },
  );

  it('an entry whose answer was lost is sent again under the same id, and what is typed meanwhile is another', async () => {
    let loses = true;
    const inner = recordServer();
    const server: Server = {
      ...inner.server,
      entries: async (order, entries) => {
        const answer = await inner.server.entries(order, entries);
        if (loses) throw lost();
        return answer;
      },
    };
    const { engine, time } = await opened(server);
    engine.set('site 1A', 'remark', 'a');
    await time.pass(100);
    engine.set('site 1A', 'remark', 'b');
    loses = false;
    await time.pass(30_000);
    expect([...inner.seen.values()].map(({ value, base }) => [base, value])).toEqual([
      ['', 'a'],
      ['a', 'b'],
    ]);
    expect(inner.record['site 1A']?.remark).toBe('b');
  });
});

describe('what the server will never take', () => {
  it.each([400, 403, 404, 413, 422])(
    '(%i) steps aside with its reason, and what is behind it goes in',
    async (status) => {
      const { server, record } = recordServer((entries) =>
        entries.some(({ value }) => value === 'poison') ? new Answered(status, 'Not this one.') : null,
      );
      const { engine, device, time } = await opened(server);
      engine.set('site 1A', 'remark', 'poison');
      engine.set('site 1A', 'newLot', 'L-1');
      await time.pass(2000);
      expect(record['site 1A']).toMatchObject({ remark: '', newLot: 'L-1' });
      expect(engine.snapshot()).toMatchObject({
        link: 'fresh',
        waiting: [],
        aside: [{ field: 'remark', value: 'poison', refusedWhy: 'Not this one.' }],
      });
      // It is kept on the device until somebody has decided, over a closed page too.
      const again = await opened(server, device, time);
      expect(again.engine.snapshot().aside).toHaveLength(1);
      again.engine.forget(again.engine.snapshot().aside[0]?.id ?? '');
      await time.settled();
      expect([again.engine.snapshot().aside, device.entries.size]).toEqual([[], 0]);
    },
  );

  it('among what it refuses one by one steps aside likewise, and can be entered again', async () => {
    const { server, record } = recordServer();
    const { engine, time } = await opened(server);
    engine.set('site 1A', 'remark', 'bad');
    engine.set('site 1A', 'newLot', 'L-1');
    await time.pass(100);
    const [aside] = engine.snapshot().aside;
    expect([record['site 1A']?.newLot, aside?.refusedWhy]).toEqual(['L-1', 'It cannot be right.']);
    expect(recordOf(engine.snapshot())['site 1A']?.remark).toBe('');
    engine.tryAgain(aside?.id ?? '');
    expect(engine.snapshot()).toMatchObject({ aside: [], waiting: [{ value: 'bad', tried: false }] });
  });

  it('as a picture is told of and stands in nobody’s way', async () => {
    let refuses = true;
    const { server, record } = recordServer((entries) =>
      refuses && entries.length === 0 ? new Answered(413, 'Too large.') : null,
    );
    const { engine, device, time } = await opened(server);
    engine.addPhoto('site 1A', new Blob(['x']));
    engine.set('site 1A', 'remark', 'a');
    await time.pass(100);
    refuses = false;
    await time.pass(30_000);
    expect([record['site 1A']?.remark, device.photos.size, engine.snapshot().photos]).toEqual(['a', 0, []]);
    expect(engine.snapshot().told[0]?.message).toContain('Too large.');
  });
});

describe('on a shared tablet', () => {
  it('entries name their person, and wait where somebody else has signed in', async () => {
    const { server, seen, signIn } = recordServer();
    const { engine, time } = await opened(server);
    engine.set('site 1A', 'remark', 'mine');
    await time.pass(100);
    expect([...seen.values()].map(({ by }) => by)).toEqual(['vane']);
    signIn('holm');
    await time.pass(20_000);
    expect(engine.snapshot()).toMatchObject({ link: 'other-person', job: { personId: 'vane' } });
    engine.set('site 1A', 'newLot', 'L-2');
    await time.pass(20_000);
    expect(engine.snapshot().waiting.map(({ value }) => value)).toContain('L-2');
  });

  it('tells of entries of others, and says when its own session is over', async () => {
    const device = memory();
    await device.store.save([{ id: 'x', personId: 'holm', orderId: 'order' } as unknown as Waiting], []);
    const { server } = recordServer(() => new Answered(401, 'Sign in.'));
    const { engine } = await opened(server, device);
    expect(engine.snapshot()).toMatchObject({ ofOthers: 1, link: 'signed-out' });
  });

  it('shows a page that was read anew at once; an older one, or one of somebody else, changes nothing', async () => {
    const { server } = recordServer();
    const { engine } = await opened(server);
    const page = (seconds: number, more: object = {}): FloorJob =>
      ({ ...JOB, orderNumber: seconds, asOf: `2026-11-16T09:00:${seconds}Z`, ...more }) as unknown as FloorJob;
    engine.readAnew(page(30));
    expect(engine.snapshot().job.orderNumber).toBe(30);
    engine.readAnew(page(20));
    engine.readAnew(page(40, { personId: 'holm' }));
    expect(engine.snapshot().job).toMatchObject({ orderNumber: 30, personId: 'vane' });
  });

  it('says so where the browser keeps nothing', async () => {
    const { server } = recordServer();
    const device = memory();
    const store = { ...device.store, open: async () => Promise.reject(new Error('denied')) };
    const { engine } = await opened(server, { ...device, store });
    expect(engine.snapshot().link).toBe('unkept');
  });

  it('says so where the device is full, and sends all the same', async () => {
    const { server, record } = recordServer();
    const device = memory();
    const store = { ...device.store, save: async () => Promise.reject(new Error('full')) };
    const { engine, time } = await opened(server, { ...device, store });
    engine.set('site 1A', 'remark', 'a');
    await time.settled();
    expect(engine.snapshot().link).toBe('unkept');
    await time.pass(100);
    expect(record['site 1A']?.remark).toBe('a');
  });
});

import { Readable } from 'node:stream';
import { and, asc, eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { generateFleet } from '../../bench/generate-fleet';
import { importSamples } from '../../demo/load';
import { JOBS } from '../../src/contracts/jobs';
import { dueInputs, dueStatus, odometerReadings, readingLoadPieces, readingLoads, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import type { Deps } from '../../src/server/deps';
import { refreshDue } from '../../src/server/due/refresh-due';
import { createFirstSupervisor } from '../../src/server/fleet/first-run';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import type { ImportKindName } from '../../src/server/imports/kind';
import { cancelLoad, listLoads } from '../../src/server/odometer/list-loads';
import { loadReadingsFile } from '../../src/server/odometer/load-readings-file';
import { awaitLoad, receiveReadingsFile } from '../../src/server/odometer/receive-readings-file';
import { recordReadings } from '../../src/server/odometer/record-readings';
import { copyOf, inRole, lockWaiters, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace;
let actor: Actor;

/** A fleet of twenty vehicles with their history, and the file of their readings. */
async function fill(deps: Deps): Promise<{ actor: Actor; odometer: string }> {
  const person = value(
    await createFirstSupervisor(deps, {
      fleetName: 'Test',
      name: 'T. Ester',
      email: 't@example.org',
      password: 'long enough pw',
    }),
  );
  await importSamples(deps, person);
  const files = generateFleet(20, 30, TODAY);
  await slowly(deps, person, 'vehicles', files.vehicles);
  await slowly(deps, person, 'service-history', files.history);
  return { actor: person, odometer: withFaults(files.odometer) };
}

async function begin() {
  const { filled, close, ...own } = await copyOf('small_fleet', fill);
  return { w: own, close, ...filled };
}

/** As a customer's smaller file goes: uploaded, checked, confirmed. */
async function slowly(deps: Deps, person: Actor, kind: ImportKindName, text: string): Promise<void> {
  const bytes = new TextEncoder().encode(text);
  const { importId } = value(await uploadFile(deps, person, { fileName: `${kind}.csv`, bytes, kind }));
  value(await confirmImport(deps, person, { importId }));
}

/** Every 37th reading in miles called kilometres, every 53rd with a digit dropped, every 41st twice. */
const withFaults = (text: string): string =>
  text
    .split('\n')
    .flatMap((line, i) => {
      const [unit, on, km = '', ...rest] = line.split(',');
      if (i === 0) return [line];
      if (i % 37 === 0) return [[unit, on, String(Math.round(Number(km) / 1.609344)), ...rest].join(',')];
      if (i % 53 === 0) return [[unit, on, km.slice(0, 1) + km.slice(2), ...rest].join(',')];
      return i % 41 === 0 ? [line, line] : [line];
    })
    .join('\n');

let odometer = '';
let close: () => Promise<void>;
beforeEach(async () => {
  ({ w, actor, odometer, close } = await begin());
});
afterEach(() => close());

/** The jobs that a file asks for, done by hand. */
const asked: { readonly fleetId: string; readonly loadId: string }[] = [];
const receiving = (): Deps => ({
  ...w.deps,
  jobs: {
    send: async (_, name, data) => {
      expect(name).toBe('load-readings');
      asked.push(JOBS['load-readings'].parse(data));
    },
  },
});
const received = (pieces: Iterable<Buffer> | AsyncIterable<Buffer>, who = actor, fileName = 'feed.csv') =>
  receiveReadingsFile(receiving(), who, { fileName, file: Readable.from(pieces) });

/** Takes a file in, loads it as a worker would, and gives what came of it. */
async function load(text: string | Iterable<Buffer>, who = actor) {
  const taken = await received(typeof text === 'string' ? [Buffer.from(text)] : text, who);
  if (!taken.ok) return taken;
  const job = asked.pop();
  expect(job).toEqual({ fleetId: who.fleetId, loadId: taken.value.loadId });
  if (job) await loadReadingsFile(w.deps, job);
  return awaitLoad(w.deps, who, taken.value);
}
const sums = async (...given: Parameters<typeof load>) => {
  const loaded = value(await load(...given));
  if (!loaded) throw new Error('it was not loaded');
  return loaded;
};
const pieces = () => w.deps.db.$count(readingLoadPieces);
const kept = (own: Workspace) =>
  own.deps.db
    .select({
      unit: vehicles.unitNumber,
      on: odometerReadings.readOn,
      km: odometerReadings.odometerKm,
      state: odometerReadings.state,
      doubt: odometerReadings.doubt,
      suggested: odometerReadings.suggestedKm,
      unitOfRow: odometerReadings.unit,
      source: odometerReadings.source,
    })
    .from(odometerReadings)
    .innerJoin(vehicles, eq(vehicles.id, odometerReadings.vehicleId))
    .where(eq(odometerReadings.source, 'feed'))
    .orderBy(asc(vehicles.unitNumber), asc(odometerReadings.readOn), asc(odometerReadings.odometerKm));

describe('a large file of readings', () => {
  it('is judged and kept as the same rows in a small file are', async () => {
    const told = await sums(odometer);
    const other = await begin();
    await slowly(other.w.deps, other.actor, 'odometer', odometer);
    const rows = await kept(w);
    expect(rows).toEqual(await kept(other.w));
    expect(told).toMatchObject({
      added: rows.length,
      suspect: rows.filter((r) => r.state === 'suspect').length,
      refused: 0,
    });
    expect(told.suspect).toBeGreaterThan(10);
    expect(told.known).toBe(odometer.split('\n').length - 1 - rows.length);
    const statusOf = async (own: Workspace) =>
      (await own.deps.db.select().from(dueStatus).orderBy(dueStatus.unitOrder, dueStatus.component)).map(
        ({ vehicleId: _, fleetId: __, specSheetId: ___, ...rest }) => rest,
      );
    expect(await statusOf(w)).toEqual(await statusOf(other.w));
  });

  it('sent again changes nothing', async () => {
    await sums(odometer);
    const before = await kept(w);
    expect(await sums(odometer)).toMatchObject({ added: 0, refused: 0 });
    expect(await kept(w)).toEqual(before);
  });

  it('may have its columns in any order, without unit or source, and says which lines it could not take', async () => {
    const [unit] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, 'G1'));
    const told = value(
      await load(
        [
          'odometer,read_on,unit_number',
          '500001,2026-11-15,G1',
          '88,360,2026-11-14,G2'.replace('88,360', '"88,360"'),
          '88360,2026-02-30,G2',
          '88360,2027-01-01,G2',
          '88360,2026-11-14,NOBODY',
          '',
        ].join('\n'),
      ),
    );
    expect(told).toMatchObject({ refused: 4 });
    const [latest] = value(await listLoads(w.deps, actor));
    expect(latest?.refusals?.map(({ line, why }) => [line, why.split(' ').slice(0, 3).join(' ')])).toEqual([
      [3, 'the odometer is'],
      [4, 'the day is'],
      [5, 'the day is'],
      [6, 'no such unit'],
    ]);
    const rows = await w.deps.db
      .select()
      .from(odometerReadings)
      .where(eq(odometerReadings.vehicleId, unit?.id ?? ''));
    expect(rows.map((row) => [row.odometerKm, row.unit, row.source])).toContainEqual([500001, 'km', 'import']);
  });

  it.each([
    ['no rows', 'unit_number,read_on,odometer', 'has no rows'],
    ['a column nobody knows', 'unit_number,read_on,odometer,colour\nG1,2026-11-01,5,red\n', 'Unknown column “colour”'],
    ['a column missing', 'unit_number,read_on\nG1,2026-11-01\n', 'odometer is missing'],
    [
      'a cell too many',
      'unit_number,read_on,odometer\nG1,2026-11-01,5\nG1,2026-11-02,6,7\n',
      'Line 3 has more or fewer',
    ],
    ['a quote never closed', 'unit_number,read_on,odometer\n"G1,2026-11-01,5\n', 'a quote that is never closed'],
  ])('with %s is refused whole', async (_, text, words) => {
    const refused = await load(text);
    expect(refused).toMatchObject({ ok: false, error: { message: expect.stringContaining(words) } });
    expect(await kept(w)).toEqual([]);
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'failed' });
  });

  it('refuses a line over what any vehicle has run, and takes the others', async () => {
    const lines = [
      'unit_number,read_on,odometer,unit',
      'G1,2026-11-15,500001,km',
      'G2,2026-11-15,3300001,km',
      'G3,2026-11-15,2100000,mi',
    ];
    expect(await sums(lines.join('\n'))).toMatchObject({ added: 1, refused: 2 });
    const [latest] = value(await listLoads(w.deps, actor));
    expect(latest?.refusals?.map(({ line, why }) => [line, why])).toEqual([
      [3, 'the odometer is over 3,300,000 km'],
      [4, 'the odometer is over 3,300,000 km'],
    ]);
  });

  it.each(['\\.\n', '\\.\r\n'])(
    'with a line that would end it early (%j) is refused whole and told where',
    async (line) => {
      const text = `unit_number,read_on,odometer\nG1,2026-11-15,500001\n${line}G1,2026-11-14,499000\n`;
      for (const size of [text.length, 1, 7]) {
        const pieces = Array.from({ length: Math.ceil(text.length / size) }, (_, i) =>
          Buffer.from(text.slice(i * size, (i + 1) * size)),
        );
        const refused = await load(pieces);
        expect(refused).toMatchObject({ ok: false, error: { message: expect.stringContaining('Line 3 is “\\.”') } });
      }
      expect(await kept(w)).toEqual([]);
    },
  );

  it.each(['utf16le', 'utf-16be'])('in %s is read like any other', async (encoding) => {
    const text = `\ufeffunit_number,read_on,odometer\nG1,2026-11-15,500001\n`;
    const bytes = Buffer.from(text, 'utf16le');
    if (encoding === 'utf-16be') bytes.swap16();
    expect(await sums([bytes.subarray(0, 21), bytes.subarray(21)])).toMatchObject({ added: 1 });
  });

  it('not in UTF-8 is refused with what to do', async () => {
    const bytes = Buffer.concat([
      Buffer.from('unit_number,read_on,odometer\nG1,2026-11-01,'),
      Buffer.from([0xff, 0xfe, 10]),
    ]);
    const refused = await load([bytes]);
    expect(refused).toMatchObject({ ok: false, error: { message: expect.stringContaining('UTF-8') } });
  });

  it('can be cancelled while it is sent, and writes nothing', async () => {
    const lines = Buffer.from(`${odometer}\n`.repeat(60));
    async function* slow() {
      yield lines;
      const [running] = await w.deps.db.select().from(readingLoads).where(eq(readingLoads.state, 'receiving'));
      await cancelLoad(w.deps, actor, { loadId: running?.id ?? '' });
      yield lines;
    }
    const stopped = await received(slow());
    expect(stopped).toMatchObject({ ok: false, error: { message: 'Cancelled: nothing was written.' } });
    expect(asked).toEqual([]);
    expect(await pieces()).toBe(0);
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'cancelled' });
  });

  it('can be cancelled before a worker takes it, by its own fleet only', async () => {
    const { loadId } = value(await received([Buffer.from(odometer)]));
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'queued', step: 'waiting for a worker' });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await cancelLoad(w.deps, stranger, { loadId })).toMatchObject({ error: { kind: 'not-found' } });
    expect(await awaitLoad(w.deps, stranger, { loadId })).toMatchObject({ error: { kind: 'not-found' } });
    value(await cancelLoad(w.deps, actor, { loadId }));
    expect(await awaitLoad(w.deps, actor, { loadId })).toMatchObject({ error: { kind: 'conflict' } });
    await loadReadingsFile(w.deps, { fleetId: actor.fleetId, loadId });
    expect([await kept(w), await pieces()]).toEqual([[], 0]);
    expect(await cancelLoad(w.deps, actor, { loadId })).toMatchObject({ error: { kind: 'not-found' } });
    asked.pop();
  });

  it('can be cancelled while a worker is at it', async () => {
    const { loadId } = value(await received([Buffer.from(odometer)]));
    asked.pop();
    await w.deps.db.update(readingLoads).set({ state: 'running' });
    value(await cancelLoad(w.deps, actor, { loadId }));
    await loadReadingsFile(w.deps, { fleetId: actor.fleetId, loadId });
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'cancelled' });
    expect([await kept(w), await pieces()]).toEqual([[], 0]);
  });

  it('that breaks off while it is sent leaves nothing', async () => {
    async function* cut() {
      yield Buffer.from(odometer);
      throw new Error('connection lost');
    }
    expect(await received(cut())).toMatchObject({ error: { message: expect.stringContaining('send it again') } });
    expect([asked, await pieces()]).toEqual([[], 0]);
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'failed' });
  });

  it('whose connection is killed leaves nothing half-written, and is taken again whole, once', async () => {
    const { loadId } = value(await received([Buffer.from(odometer)]));
    asked.pop();
    const job = { fleetId: actor.fleetId, loadId };
    const hold = await w.pool.connect();
    await hold.query('begin');
    // The worker stands still where it writes.
    await hold.query('lock table odometer_readings in share mode');
    const broken = loadReadingsFile(w.deps, job).then(
      () => 'done',
      () => 'broken off',
    );
    const cut = `select pg_terminate_backend(pid) as cut from pg_stat_activity
      where datname = current_database() and query like 'copy odometer_readings%' and wait_event_type = 'Lock'`;
    await expect.poll(async () => (await w.pool.query(cut)).rowCount).toBe(1);
    await hold.query('rollback');
    hold.release();
    expect(await broken).toBe('broken off');
    expect(await kept(w)).toEqual([]);
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'queued' });
    await loadReadingsFile(w.deps, job);
    const first = await kept(w);
    expect(first.length).toBeGreaterThan(500);
    expect([value(await listLoads(w.deps, actor))[0]?.state, await pieces()]).toEqual(['done', 0]);
    await loadReadingsFile(w.deps, job);
    expect(await kept(w)).toEqual(first);
  });

  it('is written once where two workers take it at the same time', async () => {
    const { loadId } = value(await received([Buffer.from(odometer)]));
    asked.pop();
    const job = { fleetId: actor.fleetId, loadId };
    await Promise.all([loadReadingsFile(w.deps, job), loadReadingsFile(w.deps, job)]);
    const { rows } = await w.pool.query("select count(*)::int as n from audit_trail where entity = 'reading-load'");
    expect(rows).toEqual([{ n: 1 }]);
    expect((await kept(w)).length).toBeGreaterThan(500);
  });

  /** A load that waits in the midst of its rows for one that somebody else holds, 400,000 km of G1 on 14 November. */
  async function waiting(lines: readonly string[]) {
    const [unit] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, 'G1'));
    const holder = await w.pool.connect();
    await holder.query('begin');
    await holder.query(
      `insert into odometer_readings (fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state)
       values ($1, $2, '2026-11-14', 400000, '400000', 'km', 'yard walk', 'accepted')`,
      [actor.fleetId, unit?.id],
    );
    const loading = load(['unit_number,read_on,odometer', ...lines, ''].join('\n'));
    await expect.poll(() => lockWaiters(w)).toBeGreaterThan(0);
    return async (end: 'commit' | 'rollback') => {
      await holder.query(end);
      holder.release();
      const loaded = value(await loading);
      if (!loaded) throw new Error('it was not loaded');
      return loaded;
    };
  }

  it('takes one as known that somebody else records while it is written', async () => {
    const letGo = await waiting(['G1,2026-11-14,400000', 'G1,2026-11-15,400010']);
    expect(await letGo('commit')).toMatchObject({ added: 1, known: 1 });
  });

  it('goes by what somebody records of its vehicles while it is written', async () => {
    const letGo = await waiting(['G1,2026-11-14,400000', 'G2,2026-11-12,300000']);
    const meanwhile = [{ unitNumber: 'G2', on: '2026-11-15', text: '300100 km', source: 'yard walk' }];
    value(await recordReadings(w.deps, actor, { readings: meanwhile }));
    expect(await letGo('rollback')).toMatchObject({ added: 2, known: 0 });
    const status = async () =>
      (await w.deps.db.select().from(dueInputs).orderBy(dueInputs.vehicleId)).map(
        ({ vehicleId, odometerOn, odometerKm, rateReadings }) => ({ vehicleId, odometerOn, odometerKm, rateReadings }),
      );
    const told = await status();
    expect(told.map(({ odometerKm }) => odometerKm)).toEqual(expect.arrayContaining([300_100, 400_000]));
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(await status()).toEqual(told);
  });

  it('that stalls ends by itself, holds no connection meanwhile, and a person sends two at a time', async () => {
    let goOn = (): void => undefined;
    const stalled = new Promise<void>((resolve) => {
      goOn = resolve;
    });
    async function* stalling() {
      yield Buffer.from(odometer);
      await stalled;
    }
    const send = () =>
      receiveReadingsFile(receiving(), actor, {
        fileName: 'slow.csv',
        file: Readable.from(stalling()),
        idleMs: 60_000,
      });
    const both = [send(), send()];
    const arriving = async () =>
      (await w.deps.db.select().from(readingLoads).where(eq(readingLoads.state, 'receiving'))).length;
    await expect.poll(arriving).toBe(2);
    expect(await send()).toMatchObject({
      error: { kind: 'conflict', message: expect.stringContaining('arriving already') },
    });
    const open = await w.pool.query(
      `select count(*)::int as n from pg_stat_activity where datname = current_database() and state like 'idle in transaction%'`,
    );
    expect(open.rows[0]).toEqual({ n: 0 });
    goOn();
    expect((await Promise.all(both)).map(({ ok }) => ok)).toEqual([true, true]);
    asked.splice(0);
    async function* never() {
      yield Buffer.from(odometer);
      await new Promise(() => undefined);
    }
    const idle = await receiveReadingsFile(receiving(), actor, {
      fileName: 'idle.csv',
      file: Readable.from(never()),
      idleMs: 50,
    });
    expect(idle).toMatchObject({ error: { message: expect.stringContaining('Nothing came for') } });
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'failed' });
  });

  it('whose sending stopped with its process is told as stopped', async () => {
    await w.deps.db.insert(readingLoads).values({
      fleetId: actor.fleetId,
      fileName: 'gone.csv',
      startedBy: actor.personId,
      startedAt: new Date(w.deps.now().getTime() - 60_000),
      state: 'receiving',
      step: 'receiving the file',
    });
    expect(value(await listLoads(w.deps, actor))[0]).toMatchObject({ state: 'stopped' });
  });

  it('is for those who may import, into their own fleet', async () => {
    expect(await load(odometer, inRole(actor, 'technician'))).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await sums(odometer, stranger)).toMatchObject({ added: 0 });
    const [row] = await w.deps.db
      .select()
      .from(dueInputs)
      .where(and(eq(dueInputs.fleetId, actor.fleetId)));
    expect(row).toBeDefined();
  });
});

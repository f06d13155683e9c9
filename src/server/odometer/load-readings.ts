import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { eq } from 'drizzle-orm';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { suspectReadings } from '@/core/odometer/check';
import { ok } from '@/core/shared/result';
import { onOneConnection } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { readingLoads } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { refreshOdometers } from '../due/refresh-status';
import { fail, type Outcome } from '../failure';

/* Large files of readings: streamed into a staging table by COPY, checked in sets and by the core, then merged. All in
   one transaction: whatever stops it, nothing is half-written. */

const COLUMNS = ['unit_number', 'read_on', 'odometer', 'unit', 'source'] as const;
type Column = (typeof COLUMNS)[number];

/** A file of this kind may be so large, bytes. */
export const MOST_LOAD_BYTES = 4 * 1024 ** 3;
/** So many vehicles are judged at a time. */
const VEHICLES_AT_ONCE = 400;
const REFUSALS_KEPT = 200;

class Stopped extends Error {}

export interface LoadResult {
  readonly loadId: string;
  readonly added: number;
  readonly suspect: number;
  readonly known: number;
  readonly refused: number;
}

/** Loads a CSV of readings as a stream. @param file its bytes, UTF-8, with a head line that names its columns */
export async function loadReadings(
  deps: Deps,
  actor: Actor,
  fileName: string,
  file: Readable,
): Promise<Outcome<LoadResult>> {
  const refused = refusal(actor, 'import data');
  if (refused) return refused;
  const [load] = await deps.db
    .insert(readingLoads)
    .values({
      fleetId: actor.fleetId,
      fileName: fileName.slice(0, 200),
      startedBy: actor.personId,
      startedAt: deps.now(),
      state: 'running',
      step: 'reading the file',
    })
    .returning({ id: readingLoads.id });
  if (!load) throw new Error('the load was not written');
  const watch = new Watch(deps, load.id);
  try {
    const counts = await onOneConnection(deps.db, async (tx, client) => {
      await client.query('select pg_advisory_xact_lock(hashtextextended($1, 13))', [load.id]);
      await stage(client, file, watch);
      await read(client, actor.fleetId, deps.today());
      await judge(client, actor.fleetId, watch);
      await watch.step('writing');
      const merged = await merge(client, actor);
      await watch.step('working out what is due');
      await refreshOdometers(tx, actor.fleetId, deps.today(), merged.vehicles);
      await watch.step('finishing');
      await writeAudit(tx, {
        fleetId: actor.fleetId,
        personId: actor.personId,
        action: 'import',
        entity: 'reading-load',
        entityId: load.id,
        changes: { fileName, ...merged.counts },
      });
      return { ...merged.counts, refusals: await refusals(client) };
    });
    await watch.end({ state: 'done', step: 'done', ...counts });
    const { refusals: _, ...told } = counts;
    return ok({ loadId: load.id, ...told });
  } catch (error) {
    const cancelled = error instanceof Stopped;
    const message = cancelled ? 'Cancelled: nothing was written.' : `Nothing was written. ${wordsOf(error)}`;
    await watch.end({ state: cancelled ? 'cancelled' : 'failed', step: 'stopped', message });
    file.destroy();
    return fail(cancelled ? 'conflict' : 'invalid', message);
  }
}

/** Tells how far a load has come, on a connection of its own, and hears whether it is to stop. */
class Watch {
  private at = 0;

  constructor(
    private readonly deps: Deps,
    private readonly id: string,
  ) {}

  /** @throws Stopped when somebody asked for it */
  async step(step: string, counts: { rowsRead?: number; rowsJudged?: number } = {}): Promise<void> {
    const [row] = await this.deps.db
      .update(readingLoads)
      .set({ step, ...counts })
      .where(eq(readingLoads.id, this.id))
      .returning({ cancelAsked: readingLoads.cancelAsked });
    if (row?.cancelAsked) throw new Stopped();
  }

  /** The same at most twice a second. */
  async now(step: string, counts: { rowsRead?: number; rowsJudged?: number }): Promise<void> {
    if (Date.now() - this.at < 500) return;
    this.at = Date.now();
    await this.step(step, counts);
  }

  async end(values: Partial<typeof readingLoads.$inferInsert>): Promise<void> {
    await this.deps.db
      .update(readingLoads)
      .set({ ...values, endedAt: this.deps.now() })
      .where(eq(readingLoads.id, this.id));
  }
}

/** The file as it stands, into a table of text that no one else sees. PostgreSQL reads the CSV. */
async function stage(client: PoolClient, file: Readable, watch: Watch): Promise<void> {
  await client.query(
    `create temp table staged (line bigint generated always as identity, ${COLUMNS.map((c) => `${c} text`).join(', ')}) on commit drop`,
  );
  const { head, rest } = await splitHead(file);
  const columns = columnsOf(head);
  let lines = 0;
  const counting = new Transform({
    transform(chunk: Buffer, _, done) {
      for (let at = chunk.indexOf(10); at >= 0; at = chunk.indexOf(10, at + 1)) lines += 1;
      watch.now('reading the file', { rowsRead: lines }).then(() => done(null, chunk), done);
    },
  });
  await pipeline(
    rest,
    counting,
    client.query(copyFrom(`copy staged (${columns.join(', ')}) from stdin with (format csv, encoding 'UTF8')`)),
  );
  await watch.step('checking', { rowsRead: lines });
}

const MOST_HEAD_BYTES = 10_000;

/** The head line, and a stream of what follows it. */
async function splitHead(file: Readable): Promise<{ head: string; rest: AsyncIterable<Buffer> }> {
  const chunks = file[Symbol.asyncIterator]();
  let begun = Buffer.alloc(0);
  while (!begun.includes(10)) {
    const next = await chunks.next();
    if (next.done) break;
    begun = Buffer.concat([begun, Buffer.from(next.value as Uint8Array)]);
    if (begun.length > MOST_HEAD_BYTES && !begun.includes(10)) throw new Fault('The file has no head line.');
  }
  const end = begun.indexOf(10);
  if (end < 0) throw new Fault('The file has no rows: its first line names the columns, readings follow.');
  async function* rest(): AsyncIterable<Buffer> {
    yield begun.subarray(end + 1);
    for (let next = await chunks.next(); !next.done; next = await chunks.next())
      yield Buffer.from(next.value as Uint8Array);
  }
  return { head: begun.subarray(0, end).toString('utf8'), rest: rest() };
}

class Fault extends Error {}

function columnsOf(head: string): readonly Column[] {
  const names = head
    .replace(/^\uFEFF/, '')
    .trim()
    .split(',')
    .map((name) => name.trim().replace(/^"|"$/g, '').toLowerCase());
  const known = names.map((name) => COLUMNS.find((column) => column === name));
  const strange = names.filter((_, i) => !known[i]);
  if (strange.length > 0) throw new Fault(`Unknown column “${strange[0]}”. A large file has ${COLUMNS.join(', ')}.`);
  if (new Set(names).size < names.length) throw new Fault('A column is named twice.');
  for (const needed of ['unit_number', 'read_on', 'odometer'])
    if (!names.includes(needed)) throw new Fault(`The column ${needed} is missing.`);
  return known.flatMap((column) => column ?? []);
}

/** What each line says, or why it says nothing. A vehicle's own unit holds where the line names none. */
async function read(client: PoolClient, fleetId: string, today: string): Promise<void> {
  // OFFSET 0 keeps each pattern from being tried again wherever its result is used.
  await client.query(
    `create temp table checked on commit drop as
     select line, vehicle_id, read_on,
       round(case unit when 'mi' then figure * 1.609344 else figure end, 1)
         + case when meter_replaced_on is not null and read_on >= meter_replaced_on then meter_offset_km else 0 end as km,
       odometer, unit, source,
       case when vehicle_id is null then 'no such unit'
         when read_on is null then 'the day is not one as 2026-11-02'
         when read_on > $2::date then 'the day is in the future'
         when figure is null then 'the odometer is not a plain figure such as 88412'
         when unit not in ('km', 'mi') then 'the unit is neither km nor mi'
         when length(source) > 120 then 'the source is longer than 120 characters' end as fault
     from (
       select s.line, v.id as vehicle_id, v.meter_offset_km, v.meter_replaced_on,
         case when s.read_on ~ '^\\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])$' then
           case when substr(s.read_on, 9, 2) <= '28' or substr(s.read_on, 9, 2)::int <= extract(day from
             (substr(s.read_on, 1, 7) || '-01')::date + interval '1 month' - interval '1 day') then s.read_on::date end end as read_on,
         case when s.odometer ~ '^\\d{1,7}(\\.\\d{1,3})?$' then s.odometer::numeric end as figure,
         coalesce(nullif(s.unit, ''), v.odometer_unit) as unit, s.odometer, coalesce(nullif(s.source, ''), 'import') as source
       from staged s left join vehicles v on v.fleet_id = $1 and v.unit_number = s.unit_number
       offset 0
     ) said`,
    [fleetId, today],
  );
  await client.query(`create index on checked (vehicle_id, read_on, km) where fault is null`);
  await client.query('analyze checked');
}

interface OneVehicle {
  readonly lines: readonly number[];
  readonly days: readonly number[];
  readonly kms: readonly number[];
  readonly known_days: readonly number[] | null;
  readonly known_kms: readonly number[] | null;
}

/** Each vehicle's new readings before the core, in order of day; only those it doubts come back. */
async function judge(client: PoolClient, fleetId: string, watch: Watch): Promise<void> {
  await client.query(
    'create temp table doubted (line bigint primary key, doubt text not null, suggested_km numeric) on commit drop',
  );
  await client.query(
    `declare fresh no scroll cursor for
     select n.lines, n.days, n.kms, a.days as known_days, a.kms as known_kms
     from (
       select vehicle_id, array_agg(line order by read_on, km) as lines,
         array_agg(read_on - date '1970-01-01' order by read_on, km) as days, array_agg(km::float8 order by read_on, km) as kms
       from checked where fault is null group by vehicle_id
     ) n
     left join lateral (
       select array_agg(read_on - date '1970-01-01' order by read_on, odometer_km) as days,
         array_agg(odometer_km::float8 order by read_on, odometer_km) as kms
       from odometer_readings r where r.vehicle_id = n.vehicle_id and r.fleet_id = '${fleetId}'::uuid and r.state = 'accepted'
     ) a on true`,
  );
  let judged = 0;
  for (;;) {
    const { rows } = await client.query<OneVehicle>(`fetch ${VEHICLES_AT_ONCE} from fresh`);
    if (rows.length === 0) break;
    const doubts = rows.flatMap(doubtsOf);
    judged += rows.reduce((sum, row) => sum + row.lines.length, 0);
    if (doubts.length > 0)
      await client.query('insert into doubted select * from unnest($1::bigint[], $2::text[], $3::numeric[])', [
        doubts.map((d) => d.line),
        doubts.map((d) => d.doubt),
        doubts.map((d) => d.suggestedKm),
      ]);
    await watch.now('checking', { rowsJudged: judged });
  }
  await client.query('close fresh');
}

function doubtsOf({ lines, days, kms, known_days, known_kms }: OneVehicle) {
  const accepted = (known_days ?? []).map((day, i) => ({ day, km: known_kms?.[i] ?? 0 }));
  // What is known already is not judged against itself: the merge leaves it as it is.
  const known = new Set(accepted.map(({ day, km }) => `${day} ${km}`));
  const fresh = lines.flatMap((line, i) => {
    const [day, value] = [days[i] ?? 0, kms[i] ?? 0];
    const again = i > 0 && days[i - 1] === day && kms[i - 1] === value;
    return again || known.has(`${day} ${value}`) ? [] : [{ line, day, value, unit: 'km' as const }];
  });
  return [...suspectReadings(accepted, fresh)].map(([i, { reasons, suggestion }]) => ({
    line: fresh[i]?.line ?? 0,
    doubt: reasons.join(','),
    suggestedKm: suggestion?.km ?? null,
  }));
}

/** Into the table of readings, in the order of its key. What is there already stays as it is. */
async function merge(client: PoolClient, actor: Actor) {
  const { rowCount } = await client.query(
    `insert into odometer_readings (fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state, doubt, suggested_km, entered_by)
     select $1::uuid, c.vehicle_id, c.read_on, c.km, c.odometer, c.unit, c.source,
       case when d.line is null then 'accepted' else 'suspect' end, d.doubt, d.suggested_km, $2::uuid
     from checked c left join doubted d on d.line = c.line
     where c.fault is null
     order by c.vehicle_id, c.read_on, c.km, c.line
     on conflict do nothing`,
    [actor.fleetId, actor.personId],
  );
  const added = rowCount ?? 0;
  const { rows } = await client.query<{ good: number; refused: number; suspect: number; vehicles: string[] | null }>(
    `select count(*) filter (where fault is null) as good, count(*) filter (where fault is not null) as refused,
       (select count(*) from doubted) as suspect, array_agg(distinct vehicle_id) filter (where fault is null) as vehicles
     from checked`,
  );
  const [sums] = rows;
  return {
    vehicles: sums?.vehicles ?? [],
    counts: {
      added,
      suspect: sums?.suspect ?? 0,
      known: (sums?.good ?? 0) - added,
      refused: sums?.refused ?? 0,
    },
  };
}

async function refusals(client: PoolClient) {
  // Line 1 of the file is its head.
  const { rows } = await client.query<{ line: number; text: string; why: string }>(
    `select c.line + 1 as line, concat_ws(',', s.unit_number, s.read_on, s.odometer, s.unit) as text, c.fault as why
     from checked c join staged s on s.line = c.line where c.fault is not null order by c.line limit ${REFUSALS_KEPT}`,
  );
  return rows;
}

/** What went wrong, without what only a programmer could read. */
function wordsOf(error: unknown): string {
  if (error instanceof Fault) return error.message;
  const { code, where } = error as { code?: string; where?: string };
  const line = /line (\d+)/.exec(where ?? '')?.[1];
  if (code === '22P04')
    return `Line ${line ? Number(line) + 1 : '?'} has more or fewer cells than the head line, or a quote that is never closed.`;
  if (code === '22021') return 'The file is not in UTF-8. Save it as CSV UTF-8.';
  console.error(error);
  return 'The file could not be read to its end. Send it again; if it stays so, see the server log.';
}

import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';

/* A large file as it comes, in temporary tables of one connection: its lines as text, then what each of them says. */

const COLUMNS = ['unit_number', 'read_on', 'odometer', 'unit', 'source'] as const;
type Column = (typeof COLUMNS)[number];

const REFUSALS_KEPT = 200;

/** A file that cannot be read, in words for the one who sent it. */
export class Fault extends Error {}

/**
 * The file as it stands, into a table of text that no one else sees. PostgreSQL reads the CSV.
 *
 * @param tell hears how many lines have come @returns their number
 */
export async function stage(
  client: PoolClient,
  file: Readable,
  tell: (lines: number) => Promise<void>,
): Promise<number> {
  await client.query(
    `create temp table staged (line bigint generated always as identity, ${COLUMNS.map((c) => `${c} text`).join(', ')}) on commit drop`,
  );
  const { head, rest } = await splitHead(file);
  const columns = columnsOf(head);
  let lines = 0;
  const counting = new Transform({
    transform(chunk: Buffer, _, done) {
      for (let at = chunk.indexOf(10); at >= 0; at = chunk.indexOf(10, at + 1)) lines += 1;
      tell(lines).then(() => done(null, chunk), done);
    },
  });
  await pipeline(
    rest,
    counting,
    client.query(copyFrom(`copy staged (${columns.join(', ')}) from stdin with (format csv, encoding 'UTF8')`)),
  );
  return lines;
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
export async function read(client: PoolClient, fleetId: string, today: string): Promise<void> {
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
  await client.query('analyze checked');
}

/** The lines that say nothing: how many, and the first of them with why. */
export async function refusals(client: PoolClient) {
  const { rows: counted } = await client.query<{ n: number }>(
    'select count(*) as n from checked where fault is not null',
  );
  // Line 1 of the file is its head.
  const { rows } = await client.query<{ line: number; text: string; why: string }>(
    `select c.line + 1 as line, concat_ws(',', s.unit_number, s.read_on, s.odometer, s.unit) as text, c.fault as why
     from checked c join staged s on s.line = c.line where c.fault is not null order by c.line limit ${REFUSALS_KEPT}`,
  );
  return { refused: counted[0]?.n ?? 0, refusals: rows };
}

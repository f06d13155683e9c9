import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { MAX_ODOMETER_KM } from '@/core/odometer/check';
import type { FleetId } from '@/core/shared/kinds';
import { KM_PER_MILE } from '@/core/units/unit';

/* A large file as it comes, in a temporary table of one connection: its lines as text, and a query of what each says. */

const COLUMNS = ['unit_number', 'read_on', 'odometer', 'unit', 'source'] as const;
type Column = (typeof COLUMNS)[number];

/** A file that cannot be read, in words for the one who sent it. */
export class Fault extends Error {}

/** The first day that a line may name. */
const FIRST_DAY = '1950-01-01';

/**
 * The file as it stands, into a table of text that no one else sees, `staged`, and beside it one of all the days there are,
 * `days`. PostgreSQL reads the CSV.
 *
 * @param tell hears how many lines have come @returns their number
 */
export async function stageFile(
  client: PoolClient,
  file: Readable,
  today: string,
  tell: (lines: number) => Promise<void>,
): Promise<number> {
  await client.query(
    `create temp table days on commit drop as
     select g::date as day, g::date::text as name from generate_series('${FIRST_DAY}'::timestamp, '${today}'::timestamp, '1 day') g`,
  );
  await client.query(
    `create temp table staged (line bigint generated always as identity, ${COLUMNS.map((c) => `${c} text`).join(', ')}) on commit drop`,
  );
  const { head, rest } = await splitHead(file);
  const columns = columnsOf(head);
  const lines = new LineCounter();
  const counting = new Transform({
    transform(chunk: Buffer, _, done) {
      try {
        lines.see(chunk);
      } catch (error) {
        done(error as Error);
        return;
      }
      tell(lines.count).then(() => done(null, chunk), done);
    },
  });
  await pipeline(
    rest,
    counting,
    client.query(copyFrom(`copy staged (${columns.join(', ')}) from stdin with (format csv, encoding 'UTF8')`)),
  );
  await client.query('analyze staged');
  await client.query('analyze days');
  return lines.count;
}

const [NEWLINE, RETURN, BACKSLASH, DOT] = [10, 13, 92, 46];

/** Counts lines as they pass, and stops at one that PostgreSQL would take for the end of the file: “\.” alone. */
class LineCounter {
  count = 0;
  /** The line begun so far, as much of it as can matter. */
  private begun: number[] = [];

  see(chunk: Buffer): void {
    let from = 0;
    for (let at = chunk.indexOf(NEWLINE); at >= 0; at = chunk.indexOf(NEWLINE, from)) {
      this.add(chunk, from, at);
      this.count += 1;
      const [first, second, third] = this.begun;
      const ends = this.begun.length < 3 || (third === RETURN && this.begun.length === 3);
      if (first === BACKSLASH && second === DOT && ends)
        throw new Fault(`Line ${this.count + 1} is “\\.” and nothing else, which is no reading. Delete that line.`);
      this.begun = [];
      from = at + 1;
    }
    this.add(chunk, from, chunk.length);
  }

  private add(chunk: Buffer, from: number, to: number): void {
    const room = 4 - this.begun.length;
    for (let i = from; i < Math.min(to, from + room); i++) this.begun.push(chunk[i] ?? 0);
  }
}

const MAX_HEAD_BYTES = 10_000;

/** The head line, and a stream of what follows it, both in UTF-8. */
async function splitHead(file: Readable): Promise<{ head: string; rest: AsyncIterable<Buffer> }> {
  const chunks = inUtf8(file);
  let begun = Buffer.alloc(0);
  while (!begun.includes(NEWLINE)) {
    const next = await chunks.next();
    if (next.done) break;
    begun = Buffer.concat([begun, next.value]);
    if (begun.length > MAX_HEAD_BYTES && !begun.includes(NEWLINE)) throw new Fault('The file has no head line.');
  }
  const end = begun.indexOf(NEWLINE);
  if (end < 0) throw new Fault('The file has no rows: its first line names the columns, readings follow.');
  async function* rest(): AsyncIterable<Buffer> {
    yield begun.subarray(end + 1);
    yield* chunks;
  }
  return { head: begun.subarray(0, end).toString('utf8'), rest: rest() };
}

const UTF16: readonly (readonly [string, string])[] = [
  ['fffe', 'utf-16le'],
  ['feff', 'utf-16be'],
];

/** The file in UTF-8, whichever Unicode encoding its byte order mark names. */
async function* inUtf8(file: Readable): AsyncGenerator<Buffer, void> {
  let decoder: TextDecoder | null | undefined;
  for await (const piece of file) {
    const chunk = Buffer.from(piece as Uint8Array);
    if (decoder === undefined) {
      const name = UTF16.find(([mark]) => chunk.toString('hex', 0, 2) === mark)?.[1];
      decoder = name ? new TextDecoder(name) : null;
    }
    yield decoder ? Buffer.from(decoder.decode(chunk, { stream: true })) : chunk;
  }
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

/** What a line's figure means in the life of its vehicle, km. */
const KM = `round(case unit when 'mi' then figure * ${KM_PER_MILE} else figure end, 1)
      + case when day >= meter_replaced_on then meter_offset_km else 0 end`;

/**
 * A query of what each staged line says, or why it says nothing: `vehicle_id` is null where there is a `fault`. A vehicle's
 * own unit holds where the line names none. Days are looked up, which is faster than reading each.
 *
 * @param fleetId and `today` come from us, never from the file
 */
export const saidByLines = (fleetId: FleetId, today: string): string => `
  select case when fault is null then vehicle_id end as vehicle_id, day,
    ${KM} as km,
    odometer, unit, source, line, unit_number, read_on, fault
  from (
    select *, case when vehicle_id is null then 'no such unit'
      when day is null then case when read_on ~ '^\\d{4}-\\d\\d-\\d\\d$' and read_on > '${today}' then 'the day is in the future' else 'the day is not one as 2026-11-02' end
      when figure is null then 'the odometer is not a plain figure such as 88412'
      when unit not in ('km', 'mi') then 'the unit is neither km nor mi'
      when ${KM} > ${MAX_ODOMETER_KM} then 'the odometer is over ${MAX_ODOMETER_KM.toLocaleString('en')} km'
      when length(source) > 120 then 'the source is longer than 120 characters' end as fault
    from (
      select s.line, v.id as vehicle_id, v.meter_offset_km, v.meter_replaced_on, d.day, s.unit_number, s.read_on, s.odometer,
        -- Most figures are whole: the pattern, which is slow, is for the others.
        case when length(s.odometer) <= 7 and s.odometer <> '' and translate(s.odometer, '0123456789', '') = '' then s.odometer::numeric
          when s.odometer ~ '^\\d{1,7}(\\.\\d{1,3})?$' then s.odometer::numeric end as figure,
        coalesce(nullif(s.unit, ''), v.odometer_unit) as unit, coalesce(nullif(s.source, ''), 'import') as source
      from staged s
      left join vehicles v on v.fleet_id = '${fleetId}' and v.unit_number = s.unit_number
      left join days d on d.name = s.read_on
      -- Keeps each figure from being read again wherever it is used.
      offset 0
    ) said
    offset 0
  ) judged`;

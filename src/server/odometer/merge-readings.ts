import type { Writable } from 'node:stream';
import { finished } from 'node:stream/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { suspectReadings } from '@/core/odometer/check';
import type { Actor } from '../access';

/* What a large file says, judged by the core vehicle by vehicle and written by COPY. One connection hands out the rows in
   the order of the key while another takes them in, so that reading, judging and writing go on at once. */

export interface Merged {
  readonly added: number;
  readonly suspect: number;
  readonly known: number;
  /** Those with any reading in the file. */
  readonly vehicles: readonly string[];
}

const TARGET =
  'fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state, doubt, suggested_km, entered_by';
/** So much text is gathered before it is sent. */
const SEND_AT = 64 * 1024;

/**
 * Judges the checked lines of a file against what is known of each vehicle, and adds them.
 *
 * @param staging holds the table `checked` @param client takes the rows in, within its transaction
 * @param tell hears how many lines have been judged
 * @throws the database's unique violation where somebody recorded one of the same readings meanwhile; `staging` can then
 *   be asked again
 */
export async function mergeReadings(
  staging: PoolClient,
  client: PoolClient,
  { fleetId, personId }: Actor,
  tell: (lines: number) => Promise<void>,
): Promise<Merged> {
  const into = client.query(copyFrom(`copy odometer_readings (${TARGET}) from stdin`));
  const taken = new Intake(into);
  const counts = { added: 0, suspect: 0, known: 0, vehicles: [] as string[] };
  let judged = 0;
  let text = '';
  for await (const vehicle of byVehicle(staging.query(copyTo(rowsInOrder(fleetId))))) {
    const { rows, suspect, known } = judge(vehicle);
    for (const { raw, doubt, suggestedKm } of rows)
      text += `${fleetId}\t${vehicle.id}\t${raw}\t${doubt === null ? 'accepted' : 'suspect'}\t${doubt ?? '\\N'}\t${suggestedKm ?? '\\N'}\t${personId}\n`;
    counts.added += rows.length;
    counts.suspect += suspect;
    counts.known += known;
    counts.vehicles.push(ownCopy(vehicle.id));
    judged += vehicle.fresh.length;
    if (text.length > SEND_AT) {
      await taken.write(text);
      text = '';
      await tell(judged);
    }
  }
  await taken.end(text);
  return counts;
}

/** A piece of a line keeps the whole chunk of the file alive that it was cut from; its copy does not. */
const ownCopy = (text: string): string => Buffer.from(text, 'latin1').toString('latin1');

/** What is new and what is known of the same vehicles, in the order of the key. */
const rowsInOrder = (fleetId: string): string => `copy (
  select vehicle_id, read_on - date '1970-01-01', km, state, read_on, km, as_typed, unit, source from (
    select vehicle_id, read_on, km, 'new' as state, odometer as as_typed, unit, source, line from checked where fault is null
    union all
    select vehicle_id, read_on, odometer_km, state, null, null, null, 0 from odometer_readings r
    where r.fleet_id = '${fleetId}'::uuid and r.vehicle_id in (select vehicle_id from checked where fault is null)
  ) both_ order by vehicle_id, read_on, km, line) to stdout`;

interface Fresh {
  readonly day: number;
  readonly km: number;
  /** Day, figure, text, unit and source, as COPY writes them. */
  readonly raw: string;
}

interface OneVehicle {
  readonly id: string;
  readonly known: Set<string>;
  readonly accepted: { readonly day: number; readonly km: number }[];
  readonly fresh: Fresh[];
}

/** The rows of each vehicle together. Fields are parted by tabs; a tab within one is escaped by COPY. */
async function* byVehicle(rows: AsyncIterable<Buffer>): AsyncGenerator<OneVehicle> {
  let vehicle = null as OneVehicle | null;
  for await (const line of linesOf(rows)) {
    const [id = '', day, km = '', state] = line.split('\t', 4);
    if (vehicle?.id !== id) {
      if (vehicle && vehicle.fresh.length > 0) yield vehicle;
      vehicle = { id, known: new Set(), accepted: [], fresh: [] };
    }
    const at = { day: Number(day), km: Number(km) };
    if (state === 'new') {
      // Behind the first four fields stands what is written as it is.
      let from = 0;
      for (let n = 0; n < 4; n++) from = line.indexOf('\t', from) + 1;
      vehicle.fresh.push({ ...at, raw: line.slice(from) });
      continue;
    }
    vehicle.known.add(`${at.day} ${at.km}`);
    if (state === 'accepted') vehicle.accepted.push(at);
  }
  if (vehicle && vehicle.fresh.length > 0) yield vehicle;
}

async function* linesOf(chunks: AsyncIterable<Buffer>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const chunk of chunks) {
    const lines = (rest + decoder.decode(chunk, { stream: true })).split('\n');
    rest = lines.pop() ?? '';
    yield* lines;
  }
}

/** A vehicle's new readings before the core, in order of day. What is known already is not judged against itself. */
function judge({ known, accepted, fresh }: OneVehicle) {
  const isNew = fresh.filter(({ day, km }) => {
    const key = `${day} ${km}`;
    if (known.has(key)) return false;
    known.add(key);
    return true;
  });
  const checks = suspectReadings(
    accepted,
    isNew.map(({ day, km }) => ({ day, value: km, unit: 'km' })),
  );
  return {
    rows: isNew.map(({ raw }, i) => {
      const check = checks.get(i);
      return { raw, doubt: check?.reasons.join(',') ?? null, suggestedKm: check?.suggestion?.km ?? null };
    }),
    suspect: checks.size,
    known: fresh.length - isNew.length,
  };
}

/** Feeds a COPY. Where the database refuses a row, the rest is let go, so that the side that hands out comes to its end. */
class Intake {
  private refused: unknown = null;
  private readonly over: Promise<void>;
  private wake = (): void => undefined;

  constructor(private readonly into: Writable) {
    this.over = finished(into).catch((error: unknown) => {
      this.refused = error;
      this.wake();
    });
  }

  async write(text: string): Promise<void> {
    if (this.refused !== null || this.into.write(text)) return;
    await new Promise<void>((resolve) => {
      this.wake = resolve;
      this.into.once('drain', resolve);
    });
  }

  async end(text: string): Promise<void> {
    if (this.refused === null) this.into.end(text);
    await this.over;
    if (this.refused !== null) throw this.refused;
  }
}

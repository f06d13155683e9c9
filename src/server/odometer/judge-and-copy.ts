import type { Writable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { setImmediate } from 'node:timers/promises';
import type { PoolClient } from 'pg';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { suspectReadings } from '@/core/odometer/check';
import { dashOf, type GivenReading, type KnownReadings, NOTHING_KNOWN } from '@/core/odometer/intake';
import { byDay, type Reading, WINDOW_DAYS } from '@/core/odometer/use-rate';
import type { FleetId, VehicleId } from '@/core/shared/kinds';
import type { Author } from '@/db/queries/audit';
import type { OdometerRow } from '@/db/queries/due-inputs';
import { odometerOf } from '../due/refresh-due';
import { saidByLines } from './stage-file';

/* What a large file says, judged by the core vehicle by vehicle and written by COPY. One connection hands out the rows in
   the order of the key while another takes them in, so that reading, judging and writing go on at once. */

interface Merged {
  readonly added: number;
  readonly suspect: number;
  readonly known: number;
  readonly refused: number;
  /** The first lines that say nothing, with why. */
  readonly refusals: readonly Refusal[];
  /** Where the odometer of each vehicle in the file stands by all that is known of it now. */
  readonly odometers: readonly OdometerRow[];
}

interface Refusal {
  readonly line: number;
  readonly text: string;
  readonly why: string;
}

const REFUSALS_KEPT = 200;

const TARGET =
  'fleet_id, vehicle_id, read_on, odometer_km, as_typed, unit, source, state, doubt, suggested_km, entered_by';
/** As COPY writes what is not there. */
const NULL = '\\N';
/** State, doubt and suggestion of a reading that passes. */
const ACCEPTED = `accepted\t${NULL}\t${NULL}`;
/** So much text is gathered before it is sent. */
const SEND_AT = 64 * 1024;

/**
 * Judges the staged lines of a file against what is known of each vehicle, and adds them.
 *
 * @param staging holds the table `staged` @param client takes the rows in, within its transaction
 * @param meters what is known of the vehicles of the fleet
 * @param tell hears how many lines have been judged
 * @throws the database's unique violation where somebody recorded one of the same readings meanwhile; `staging` can then
 *   be asked again
 */
export async function judgeAndCopy(
  staging: PoolClient,
  client: PoolClient,
  { fleetId, personId }: Author,
  today: string,
  meters: ReadonlyMap<string, About>,
  tell: (lines: number) => Promise<void>,
): Promise<Merged> {
  const into = client.query(copyFrom(`copy odometer_readings (${TARGET}) from stdin`));
  const taken = new Intake(into);
  const merged = { added: 0, suspect: 0, known: 0, refused: 0, refusals: [] as Refusal[] };
  const changed: Changed[] = [];
  let judged = 0;
  let text = '';
  // One large query: room to sort in, and no time spent on compiling it.
  await staging.query("set local work_mem = '96MB'; set local jit = off");
  for await (const group of byVehicle(staging.query(copyTo(rowsInOrder(fleetId, today))))) {
    if ('refusal' in group) {
      merged.refused += 1;
      if (merged.refusals.length < REFUSALS_KEPT) merged.refusals.push(group.refusal);
      continue;
    }
    const { id, fresh, known } = group;
    merged.known += known;
    judged += fresh.length + known;
    if (fresh.length > 0) {
      const { checks, changed: now } = judge(group, meters.get(id));
      fresh.forEach(({ raw }, i) => {
        const check = checks.get(i);
        const verdict = check ? `suspect\t${check.reasons.join(',')}\t${check.suggestion?.km ?? NULL}` : ACCEPTED;
        text += `${fleetId}\t${id}\t${raw}\t${verdict}\t${personId}\n`;
      });
      merged.added += fresh.length;
      merged.suspect += checks.size;
      changed.push(now);
    }
    if (text.length > SEND_AT) {
      await taken.write(text);
      text = '';
      await tell(judged);
    }
  }
  // Where the odometers stand is worked out while the database checks its keys.
  const [odometers] = await Promise.all([odometersOf(changed), taken.end(text)]);
  return { ...merged, odometers };
}

/** A vehicle with something new, as little of it as its odometer needs: fifty thousand are held at once. */
interface Changed {
  readonly vehicleId: VehicleId;
  readonly suspects: number;
  /** Day and figure by turns, of what is accepted within the window. */
  readonly recent: Float64Array;
}

/** So many are worked out before others in this process have their turn. */
const AT_ONCE = 100;

async function odometersOf(changed: readonly Changed[]): Promise<readonly OdometerRow[]> {
  const rows: OdometerRow[] = [];
  for (const { vehicleId, suspects, recent } of changed) {
    const readings: Reading[] = [];
    for (let i = 0; i < recent.length; i += 2) readings.push({ day: recent[i] ?? 0, km: recent[i + 1] ?? 0 });
    rows.push({ vehicleId, ...odometerOf({ readings, suspects }) });
    if (rows.length % AT_ONCE === 0) await setImmediate();
  }
  return rows;
}

/** A piece of a line keeps the whole chunk of the file alive that it was cut from; its copy does not. */
const ownCopy = (text: string): string => Buffer.from(text).toString();

/** What is new and what is known of the same vehicles, in the order of the key; behind them the lines that say nothing. */
const rowsInOrder = (fleetId: FleetId, today: string): string => `copy (
  select vehicle_id, day - date '1970-01-01', km, state, refused, day, km, odometer, unit, source from (
    select vehicle_id, case when fault is null then day end as day, case when fault is null then km end as km,
      coalesce(fault, 'new') as state, odometer, unit, source, line,
      -- Line 1 of the file is its head.
      case when fault is not null then concat_ws(',', line + 1, unit_number, read_on, odometer, unit) end as refused
    from (${saidByLines(fleetId, today)}) said
    union all
    select vehicle_id, read_on, odometer_km, state, null, null, null, 0, null from odometer_readings r
    where r.fleet_id = '${fleetId}'::uuid and r.vehicle_id in (
      select id from vehicles v where v.fleet_id = '${fleetId}'::uuid and unit_number in (select unit_number from staged))
  ) both_ order by vehicle_id, day, both_.km, line) to stdout`;

interface Fresh extends GivenReading {
  /** Day, figure, text, unit and source, as COPY writes them. */
  readonly raw: string;
}

interface OneVehicle {
  readonly id: string;
  readonly accepted: Reading[];
  knownSuspects: number;
  /** Not yet known, each once, in order of day and figure. */
  readonly fresh: Fresh[];
  /** Lines that say what is known already. */
  known: number;
}

/** The rows of each vehicle together, then the lines refused. Fields are separated by tabs; a tab within one is escaped by COPY. */
async function* byVehicle(rows: AsyncIterable<Buffer>): AsyncGenerator<OneVehicle | { readonly refusal: Refusal }> {
  let vehicle = null as OneVehicle | null;
  let last = { day: Number.NaN, km: Number.NaN };
  for await (const line of linesOf(rows)) {
    const afterId = line.indexOf('\t');
    const afterDay = line.indexOf('\t', afterId + 1);
    const afterKm = line.indexOf('\t', afterDay + 1);
    const afterState = line.indexOf('\t', afterKm + 1);
    const afterRefused = line.indexOf('\t', afterState + 1);
    if (!vehicle || vehicle.id.length !== afterId || !line.startsWith(vehicle.id)) {
      if (vehicle && saysSomething(vehicle)) yield vehicle;
      vehicle = { id: ownCopy(line.slice(0, afterId)), accepted: [], knownSuspects: 0, fresh: [], known: 0 };
      last = { day: Number.NaN, km: Number.NaN };
    }
    const state = line.slice(afterKm + 1, afterState);
    if (vehicle.id === NULL) {
      yield { refusal: refusalOf(line.slice(afterState + 1, afterRefused), state) };
      continue;
    }
    const day = Number(line.slice(afterId + 1, afterDay));
    const km = Number(line.slice(afterDay + 1, afterKm));
    if (state === 'new') {
      // What is known of the same day and figure stands before it, and so does its own twin.
      if (day === last.day && km === last.km) vehicle.known += 1;
      // Behind the first five fields stands what is written as it is.
      else vehicle.fresh.push({ day, km, ...writtenOf(line.slice(afterRefused + 1)) });
    } else if (state === 'accepted') vehicle.accepted.push({ day, km });
    else if (state === 'suspect') vehicle.knownSuspects += 1;
    last = { day, km };
  }
  if (vehicle && saysSomething(vehicle)) yield vehicle;
}

/** Fields of a line as COPY writes them: day, figure, text, unit, source. */
function writtenOf(raw: string): Pick<Fresh, 'raw' | 'unit'> {
  return { raw, unit: raw.split('\t', 4)[3] === 'mi' ? 'mi' : 'km' };
}

/** Whether the file speaks of it. */
const saysSomething = ({ fresh, known }: OneVehicle): boolean => fresh.length + known > 0;

function refusalOf(refused: string, why: string): Refusal {
  const comma = refused.indexOf(',');
  return { line: Number(refused.slice(0, comma)), text: ownCopy(refused.slice(comma + 1)), why: ownCopy(why) };
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

type About = Pick<KnownReadings, 'meter' | 'beginning'>;

/** A vehicle's new readings before the core, and what its odometer stands by after them. */
function judge({ id, accepted, knownSuspects, fresh }: OneVehicle, { meter, beginning }: About = NOTHING_KNOWN) {
  const checks = suspectReadings(
    accepted,
    fresh.map((reading) => dashOf(reading, meter)),
    true,
    beginning,
  );
  const all = [...accepted, ...fresh.filter((_, i) => !checks.has(i))].sort(byDay);
  // What a rate is told by: the window, or the last three.
  const since = Math.min((all.at(-1)?.day ?? 0) - WINDOW_DAYS, all.at(-3)?.day ?? 0);
  const recent = Float64Array.from(all.flatMap(({ day, km }) => (day >= since ? [day, km] : [])));
  return { checks, changed: { vehicleId: id, suspects: knownSuspects + checks.size, recent } };
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

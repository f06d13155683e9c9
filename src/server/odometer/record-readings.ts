import { and, asc, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { MAX_ODOMETER_KM } from '@/core/odometer/check';
import {
  certaintyOf,
  givenOf,
  historyOf,
  lifeKm,
  NOTHING_KNOWN,
  readingFault,
  type Taken,
  takeIn,
} from '@/core/odometer/intake';
import { byDay } from '@/core/odometer/use-rate';
import { groupBy } from '@/core/shared/group-by';
import type { Km } from '@/core/shared/kinds';
import { err, ok, type Result } from '@/core/shared/result';
import type { UnitSystem } from '@/core/units/person-units';
import { readQuantity } from '@/core/units/read-quantity';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { type History, insertReadings, loadHistories, type NewReading } from '@/db/queries/odometer';
import { vehicles } from '@/db/schema';
import { distanceText } from '@/text/format';
import { doubtText } from '@/text/odometer-words';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { odometerOf, refreshDue, saveOdometers } from '../due/refresh-due';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { HOUR_DOUBTS, isHours, judgeHours, keepJudged, type NewHours, readHours } from './record-hours';

export const readingsInput = z.object({
  readings: z
    .array(
      z.object({
        unitNumber: z.string().trim().min(1).max(60),
        on: z.string().refine(isPlainDate, 'a real day as 2031-04-18'),
        /** As read, with or without a unit; without one it is what the dash shows. */
        text: z.string().trim().min(1).max(60),
        source: z.string().trim().max(60).default('by hand'),
      }),
    )
    .min(1)
    .max(1000),
});
type ReadingsInput = z.output<typeof readingsInput>;

export interface RecordedReading {
  readonly unitNumber: string;
  readonly on: string;
  /** `known`: it was here already; `refused`: nothing was kept, and the message says why. */
  readonly state: 'accepted' | 'suspect' | 'known' | 'refused';
  readonly km: Km | null;
  /** Of an hour meter, where the text says hours. */
  readonly hours?: number;
  readonly message: string;
  /** Of one reading that was recorded alone: its id in the record, by which it is undone. */
  readonly undo?: number;
}

type Vehicle = typeof vehicles.$inferSelect;
type Ready = NewReading & { readonly unitNumber: string };

/**
 * Records readings by hand or from a feed. Each is judged on its own: a figure that cannot be one is refused, one that
 * cannot follow is kept as suspect, and one that is here already changes nothing, so that sending twice does no harm.
 *
 * @returns a result for each, in the order sent
 */
export const recordReadings = useCase({
  permission: 'record odometer readings',
  input: readingsInput,
  async run(deps, actor, { readings }): Promise<Outcome<readonly RecordedReading[]>> {
    return deps.db.transaction(async (tx) => {
      const byNumber = await lockVehicles(tx, actor, readings);
      const hours = await recordHours(
        deps,
        tx,
        actor,
        readings.filter((reading) => isHours(reading.text)),
        byNumber,
      );
      const read = readings
        .filter((reading) => !isHours(reading.text))
        .map((reading) => readOne(reading, byNumber.get(reading.unitNumber), deps.today(), actor));
      const ready = read.flatMap((result) => (result.ok ? [result.value] : []));
      const byVehicle = groupBy(ready, (row) => row.vehicleId);
      const histories = await loadHistories(tx, actor.fleetId, [...byVehicle.keys()]);
      const judged = judgeAll(byVehicle, histories);
      const added = ready
        .filter((row) => judged.get(row)?.kind !== 'known')
        .map((row) => toInsert(row, judged.get(row)));
      const undo = added.length > 0 ? await keep(deps, tx, actor, added, histories) : 0;
      const told = read.map((result) =>
        result.ok ? resultOf(result.value, judged.get(result.value), actor.unitSystem) : result.error,
      );
      const [driven, ran] = [told.values(), hours.values()];
      const results = readings.flatMap(({ text }) => (isHours(text) ? ran : driven).next().value ?? []);
      return ok(added.length === 1 && readings.length === 1 ? results.map((result) => ({ ...result, undo })) : results);
    });
  },
});

/** Those of hour meters: the text says so. @returns a result for each, in the order sent */
async function recordHours(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  readings: ReadingsInput['readings'],
  byNumber: ReadonlyMap<string, Vehicle>,
): Promise<readonly RecordedReading[]> {
  const read = readings.map((reading) => readHourMeter(reading, byNumber.get(reading.unitNumber), deps.today()));
  const judged = await judgeHours(
    tx,
    actor.fleetId,
    read.flatMap((result) => (result.ok ? [result.value] : [])),
  );
  const touched = await keepJudged(tx, actor.fleetId, actor.personId, judged);
  await refreshDue(tx, actor.fleetId, deps.today(), touched);
  const added = judged.filter((row) => row.state !== 'known');
  if (added.length > 0)
    await writeAudit(tx, actor, {
      action: 'record',
      entity: 'engine-hours',
      entityId: added.length === 1 ? (added[0]?.vehicleId ?? '') : `${added.length} readings`,
      changes: { readings: added.length, suspect: added.filter((row) => row.state === 'suspect').length },
    });
  const told = judged.values();
  return read.map((result, i): RecordedReading => {
    if (!result.ok) return result.error;
    const { unitNumber = '', on = '' } = readings[i] ?? {};
    const { state = 'known', doubt = null, hours } = told.next().value ?? {};
    const fresh = doubt ? `kept as suspect: ${HOUR_DOUBTS[doubt]}` : 'engine hours accepted';
    const message = state === 'known' ? 'already here' : fresh;
    return { unitNumber, on, state, km: null, hours, message };
  });
}

function readHourMeter(
  { unitNumber, on, text, source }: ReadingsInput['readings'][number],
  vehicle: Vehicle | undefined,
  today: string,
): Result<NewHours, RecordedReading> {
  const no = (message: string) => err<RecordedReading>({ unitNumber, on, state: 'refused', km: null, message });
  if (!vehicle) return no(`There is no unit ${unitNumber}.`);
  if (on > today) return no(`${on} is in the future.`);
  const hours = readHours(text);
  if (hours === null) return no(`“${text}” is not what an hour meter shows. Write hours such as 4210.5 h.`);
  return ok({ vehicleId: vehicle.id, readOn: on, hours, asTyped: text, source });
}

async function lockVehicles(tx: Tx, actor: Actor, readings: ReadingsInput['readings']) {
  const numbers = [...new Set(readings.map((reading) => reading.unitNumber))];
  const rows = await tx
    .select()
    .from(vehicles)
    .where(and(eq(vehicles.fleetId, actor.fleetId), inArray(vehicles.unitNumber, numbers)))
    .orderBy(asc(vehicles.id))
    .for('update');
  return new Map(rows.map((vehicle) => [vehicle.unitNumber, vehicle]));
}

/** The reading as it would be kept, or the result that says why it cannot be one. */
function readOne(
  { unitNumber, on, text, source }: ReadingsInput['readings'][number],
  vehicle: Vehicle | undefined,
  today: string,
  actor: Actor,
): Result<Ready, RecordedReading> {
  const no = (message: string) => err<RecordedReading>({ unitNumber, on, state: 'refused', km: null, message });
  if (!vehicle) return no(`There is no unit ${unitNumber}.`);
  const read = readQuantity({ kind: 'distance', text, personUnit: vehicle.odometerUnit });
  if (read.verdict !== 'ok') return no(read.message);
  const odometerKm = lifeKm(read.valueSi, on, vehicle);
  const fault = readingFault({ readOn: on, odometerKm }, today);
  if (fault === 'future') return no(`${on} is in the future.`);
  if (fault === 'too_far')
    return no(`It is over ${distanceText(MAX_ODOMETER_KM, actor.unitSystem)}: check figure and unit.`);
  return ok({
    unitNumber,
    vehicleId: vehicle.id,
    readOn: on,
    odometerKm,
    asTyped: text,
    unit: read.unit === 'mi' ? 'mi' : 'km',
    source,
    certainty: certaintyOf(read),
    state: 'accepted',
    enteredBy: actor.personId,
  });
}

/** What becomes of each reading beside what is known of its vehicle. */
function judgeAll(
  byVehicle: ReadonlyMap<string, readonly Ready[]>,
  histories: ReadonlyMap<string, History>,
): ReadonlyMap<Ready, Taken> {
  const judged = new Map<Ready, Taken>();
  for (const [vehicleId, ofVehicle] of byVehicle) {
    const taken = takeIn(histories.get(vehicleId) ?? NOTHING_KNOWN, ofVehicle.map(givenOf));
    for (const [i, row] of ofVehicle.entries()) judged.set(row, taken[i] ?? { kind: 'new' });
  }
  return judged;
}

function toInsert({ unitNumber: _, ...row }: Ready, taken: Taken | undefined): NewReading {
  if (taken?.kind !== 'suspect') return { ...row, state: 'accepted', doubt: null, suggestedKm: null };
  const { reasons, suggestion } = taken.check;
  return { ...row, state: 'suspect', doubt: reasons.join(','), suggestedKm: suggestion?.km ?? null };
}

function resultOf(row: Ready, taken: Taken | undefined, system: UnitSystem): RecordedReading {
  const { unitNumber, readOn: on, odometerKm: km } = row;
  switch (taken?.kind) {
    case 'known':
      return { unitNumber, on, km, state: 'known', message: 'already here' };
    case 'suspect': {
      const why = doubtText(taken.check.reasons, taken.check.suggestion?.km ?? null, system);
      return { unitNumber, on, km, state: 'suspect', message: `kept as suspect: ${why}` };
    }
    default:
      return { unitNumber, on, km, state: 'accepted', message: 'accepted' };
  }
}

/** The vehicles are locked, so that what was read of them is all there is: their odometers follow from it. */
async function keep(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  added: readonly NewReading[],
  histories: ReadonlyMap<string, History>,
): Promise<number> {
  await insertReadings(tx, actor.fleetId, added);
  const touched = [...groupBy(added, (row) => row.vehicleId)];
  const odometers = touched.map(([vehicleId, fresh]) => {
    const { accepted = [], suspects = 0 } = histories.get(vehicleId) ?? {};
    const passed = fresh.filter(({ state }) => state === 'accepted');
    const readings = [...accepted, ...historyOf(passed)].sort(byDay);
    return { vehicleId, ...odometerOf({ readings, suspects: suspects + fresh.length - passed.length }) };
  });
  await saveOdometers(tx, actor.fleetId, deps.today(), odometers);
  const [alone, ...others] = added;
  return writeAudit(tx, actor, {
    action: 'record',
    entity: 'odometer',
    entityId: touched.length === 1 ? (touched[0]?.[0] ?? '') : `${touched.length} vehicles`,
    changes: {
      readings: added.length,
      suspect: added.filter((row) => row.state === 'suspect').length,
      ...(alone && others.length === 0 && { reading: keyOf(alone) }),
    },
  });
}

const keyOf = ({ vehicleId, readOn, odometerKm }: NewReading) => ({ vehicleId, readOn, odometerKm });

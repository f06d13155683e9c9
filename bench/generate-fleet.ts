import { addDays } from '../src/core/calendar/plain-date';
import { seeded } from '../src/core/stats/seeded';
import { KM_PER_MILE } from '../src/core/units/unit';

/* A fleet of any size, always the same for the same seed. Invented data. */

const FAMILIES = ['AG-11T', 'AG-18', 'AG-13R', 'TV-22H', 'PW-34M', 'SX-29B', 'PW-21F'];
const DEPOTS = ['Northhaven', 'Quarry Cross', 'Eastlight', 'Machair Road'];
const GROUPS = ['meal-round vans', 'clinic vans', 'mobile libraries', 'road-gritters'];

interface FleetFiles {
  readonly vehicles: string;
  readonly odometer: string;
  readonly history: string;
}

/** CSV files of a fleet with skewed duty. @param readings a vehicle, weekly, up to the day before `today` */
export function generateFleet(count: number, readings: number, today: string, seed = 1): FleetFiles {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T;
  const vehicles = ['unit_number,name,depot,duty_group,model_year,engine_family,in_service_on,odometer_unit'];
  const odometer = ['unit_number,read_on,odometer,unit,source'];
  const history = ['unit_number,serviced_on,odometer,unit,sites,history'];
  for (let i = 0; i < count; i++) {
    const unit = `G${i + 1}`;
    vehicles.push(`${unit},generated vehicle,${pick(DEPOTS)},${pick(GROUPS)},2018,${pick(FAMILIES)},2018-01-01,km`);
    const perWeek = 40 + 800 * random() ** 3;
    let km = Math.round(20_000 + 60_000 * random());
    history.push(`${unit},${addDays(today, -7 * readings - 200)},${Math.max(0, km - 9000)},km,all,probable`);
    for (let week = readings; week > 0; week--) {
      km += Math.round(perWeek * (0.7 + 0.6 * random()));
      odometer.push(`${unit},${addDays(today, -7 * week)},${km},km,feed`);
    }
  }
  return { vehicles: vehicles.join('\n'), odometer: odometer.join('\n'), history: history.join('\n') };
}

/** Of a thousand readings so many are in the other unit, so many lack a digit. */
const PER_THOUSAND = { wrongUnit: 3, digit: 2 };

/**
 * Readings as a stream of CSV, whatever their number: skewed duty, gaps of weeks, figures in the other unit and with a
 * digit dropped. Units are those of `generateFleet`, for as many vehicles.
 */
export async function* streamReadings(
  count: number,
  readings: number,
  today: string,
  source = 'feed',
): AsyncGenerator<Buffer> {
  const random = seeded(2);
  let lines: string[] = ['unit_number,read_on,odometer,unit,source'];
  for (let i = 0; i < count; i++) {
    const everyDays = random() < 0.2 ? 1 : 3 + Math.floor(6 * random());
    const perDay = 6 + 120 * random() ** 3;
    let day = -Math.min(2600, readings * everyDays);
    let km = Math.round(90_000 + 60_000 * random());
    for (let n = 0; n < readings && day < 0; n++) {
      const gap = random() < 0.02 ? everyDays * 5 : everyDays;
      day += gap;
      km += Math.round(perDay * gap * (0.7 + 0.6 * random()));
      if (day >= 0) break;
      lines.push(`G${i + 1},${addDays(today, day)},${shown(km, random() * 1000)},km,${source}`);
    }
    if (lines.length > 20_000) {
      yield Buffer.from(`${lines.join('\n')}\n`);
      lines = [];
    }
  }
  if (lines.length > 0) yield Buffer.from(`${lines.join('\n')}\n`);
}

function shown(km: number, chance: number): string {
  if (chance < PER_THOUSAND.wrongUnit) return String(Math.round(km / KM_PER_MILE));
  const text = String(km);
  return chance < PER_THOUSAND.wrongUnit + PER_THOUSAND.digit ? text.slice(0, 1) + text.slice(2) : text;
}

import { addDays } from '../src/core/calendar/plain-date';
import { seeded } from '../src/simulators/seeded';

/* A fleet of any size, always the same for the same seed. Invented data. */

const FAMILIES = ['AG-11T', 'AG-18', 'AG-13R', 'TV-22H', 'PW-34M', 'SX-29B', 'PW-21F'];
const DEPOTS = ['Northhaven', 'Quarry Cross', 'Eastlight', 'Machair Road'];
const GROUPS = ['meal-round vans', 'clinic vans', 'mobile libraries', 'road-gritters'];

export interface FleetFiles {
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

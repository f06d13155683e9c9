import { fromDayNumber } from '../src/core/calendar/plain-date';
import { backTest, pastForecasts } from '../src/core/due/back-test';
import { due } from '../src/core/due/due';
import { ASSUMED_FORECAST } from '../src/core/due/forecast';
import { ownRateOfFew } from '../src/core/odometer/use-rate';
import { seeded } from '../src/core/stats/seeded';
import { dayOf, drive } from './drive';

/* docs/judgement.md: the same inside a fleet, where the band is scaled by forecasts of the fleet's own past. */

const VEHICLES = Number(process.env.BENCH_FLEET ?? 120);
const PAST = 900;
const AHEAD = 900;
const START = 20_000;
const share = (part: number, of: number): string => `${((100 * part) / of).toFixed(0)} %`;

const random = seeded(5);
for (const weekly of [0.2, 0.35, 0.6])
  for (const drift of [0, 0.02, 0.04])
    for (const season of [0, 0.35]) {
      const fleet = Array.from({ length: VEHICLES }, () => {
        const kmPerDay = 20 + 150 * random();
        const km = drive({ kmPerDay, weekly, drift, season }, PAST + AHEAD, random);
        const every = 5 + 30 * random();
        const days: number[] = [];
        for (let day = random() * every; day <= PAST; day += every * (0.5 + random())) days.push(Math.floor(day));
        const readings = days.map((day) => ({ day: START + day, km: km[day] ?? 0 }));
        return { km, kmPerDay, readings };
      });
      const tested = backTest(fleet.flatMap(({ readings }) => pastForecasts(readings)));
      const held = { own: 0, assumed: 0, of: 0 };
      for (const { km, kmPerDay, readings } of fleet) {
        // From several days of its last year, as a season has its own error on each.
        for (const at of [PAST - 270, PAST - 180, PAST - 90, PAST]) {
          const known = readings.filter(({ day }) => day <= START + at);
          const rate = ownRateOfFew(known);
          const last = known.at(-1);
          if (!rate || !last) continue;
          const limit = (km[at] ?? 0) + kmPerDay * (20 + 280 * random());
          const came = dayOf(km, limit);
          if (came === null) continue;
          const on = fromDayNumber(START + came);
          const dates = (forecast = ASSUMED_FORECAST) =>
            due({
              today: fromDayNumber(START + at),
              odometer: { on: fromDayNumber(last.day), km: last.km },
              rate,
              installed: { on: fromDayNumber(START), km: 0 },
              limits: { distanceKm: limit },
              forecast,
            }).due;
          const holds = (found: ReturnType<typeof dates>) => (found && found.p10 <= on && on <= found.p90 ? 1 : 0);
          held.of++;
          held.assumed += holds(dates());
          held.own += holds(dates(tested ?? ASSUMED_FORECAST));
        }
      }
      process.stdout.write(
        `| ${100 * weekly} % | ${100 * drift} % | ${100 * season} % | ${share(held.assumed, held.of)} | ${share(held.own, held.of)} | ${tested ? `${share(tested.held, tested.forecasts)} of ${tested.forecasts}` : '–'} | ${tested?.drift} | ${tested?.scale.toFixed(2)} |\n`,
      );
    }

import { daysBetween, fromDayNumber } from '../src/core/calendar/plain-date';
import { due } from '../src/core/due/due';
import { ownRateOfFew } from '../src/core/odometer/use-rate';
import { seeded } from '../src/core/stats/seeded';
import { dayOf, drive } from './drive';

/* docs/judgement.md: how often the band from P10 to P90 holds the day on which a distance is truly covered, without a fleet. */

const EACH = Number(process.env.BENCH_BANDS ?? 1000);
const START = 20_000;
const DAYS = 180;
const AHEAD = 900;

const random = seeded(11);
let heldAll = 0;
let all = 0;
for (const { name, weekly, drift } of [
  { name: '30 % a week', weekly: 0.3, drift: 0 },
  { name: '50 % a week, drifting 3 %', weekly: 0.5, drift: 0.03 },
])
  for (const n of [3, 4, 6, 9, 12, 20]) {
    let held = 0;
    let of = 0;
    let off = 0;
    while (of < EACH) {
      const kmPerDay = 20 + 180 * random();
      const km = drive({ kmPerDay, weekly, drift, season: 0 }, DAYS + AHEAD, random);
      const days = [...new Set(Array.from({ length: n }, () => Math.floor(random() * (DAYS + 1))))].sort(
        (a, b) => a - b,
      );
      const readings = days.map((day) => ({ day: START + day, km: km[day] ?? 0 }));
      const rate = ownRateOfFew(readings);
      const last = readings.at(-1);
      if (!rate || !last || days.length < n) continue;
      const limit = (km[DAYS] ?? 0) + kmPerDay * (20 + 300 * random());
      const came = dayOf(km, limit);
      const today = fromDayNumber(START + DAYS);
      const found = due({
        today,
        odometer: { on: fromDayNumber(last.day), km: last.km },
        rate,
        installed: { on: fromDayNumber(START), km: 0 },
        limits: { distanceKm: limit },
      }).due;
      if (came === null || !found) continue;
      const on = fromDayNumber(START + came);
      of++;
      if (found.p10 <= on && on <= found.p90) held++;
      off += Math.abs(daysBetween(on, found.p50)) / Math.max(1, daysBetween(today, on));
    }
    heldAll += held;
    all += of;
    process.stdout.write(
      `| ${name} | ${n} | ${((100 * held) / of).toFixed(0)} % | ${((100 * off) / of).toFixed(0)} % |\n`,
    );
  }
process.stdout.write(`| over all | | ${((100 * heldAll) / all).toFixed(1)} % | |\n`);

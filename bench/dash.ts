import { checkReading } from '../src/core/odometer/check';
import { type Random, seeded } from '../src/core/stats/seeded';
import { drive } from './drive';

/* docs/judgement.md: misreads of a dash that are found and rightly explained, and clean readings that are asked about. The truth is
   driven day by day, with holidays, seasons, vehicles that are lent and vehicles that stand. */

const EACH = Number(process.env.BENCH_DASH ?? 2000);
const MILE = 1.609344;

/** What becomes of a figure on its way from dash to record; null: it cannot happen to this one. */
const SLIPS: Readonly<Record<string, (digits: string, random: Random) => string | null>> = {
  swapped: (d, random) => {
    const i = Math.floor(random() * (d.length - 1));
    return d[i] === d[i + 1] ? null : `${d.slice(0, i)}${d[i + 1]}${d[i]}${d.slice(i + 2)}`;
  },
  'tenths as digits': (d, random) => d + Math.floor(random() * 10),
  dropped: (d, random) => {
    const i = Math.floor(random() * d.length);
    return d.slice(0, i) + d.slice(i + 1);
  },
  doubled: (d, random) => {
    const i = Math.floor(random() * d.length);
    return d.slice(0, i) + d[i] + d.slice(i);
  },
  'taken for another': (d, random) => {
    const i = Math.floor(random() * d.length);
    const other = { 1: '7', 7: '1', 3: '8', 8: '3', 5: '6', 6: '5', 0: '8', 9: '4', 4: '9', 2: '7' }[d[i] ?? ''] ?? '0';
    return d.slice(0, i) + other + d.slice(i + 1);
  },
};

/** Holidays, lent out, laid up: what a clean record may hold. */
function lived(km: Float64Array, perDay: number, random: Random): Float64Array {
  const steps = Array.from(km, (so, i) => so - (km[i - 1] ?? 0));
  const stretch = (days: number, factor: number): void => {
    const from = Math.floor(random() * steps.length);
    for (let i = from; i < Math.min(steps.length, from + days); i++) steps[i] = (steps[i] ?? 0) * factor;
  };
  for (let i = 0; i < steps.length / 120; i++) stretch(7 + 7 * random(), 1 + 3 * random());
  if (random() < 0.15) stretch(20 + 40 * random(), 1.5 + 1.5 * random());
  if (random() < 0.2) stretch(20 + 60 * random(), 0);
  let sum = 20_000 + 380_000 * random() + perDay;
  return Float64Array.from(steps, (step) => {
    sum += step;
    return sum;
  });
}

function series(random: Random) {
  const kmPerDay = 8 + 200 * random() ** 1.5;
  const days = 260;
  const duty = { kmPerDay, weekly: 0.2 + 0.4 * random(), drift: 0.02 * random(), season: 0.3 * random() };
  const km = lived(drive(duty, days, random), kmPerDay, random);
  const every = 5 + 25 * random();
  const on: number[] = [];
  for (let day = 0; day < days; day += Math.max(2, every * (0.5 + random()))) on.push(Math.floor(day));
  const unit = random() < 0.4 ? ('mi' as const) : ('km' as const);
  const dash = (day: number): number => Math.floor((km[day] ?? 0) / (unit === 'mi' ? MILE : 1));
  const toKm = (value: number): number => value * (unit === 'mi' ? MILE : 1);
  const last = on.pop() ?? 0;
  return { history: on.map((day) => ({ day, km: toKm(dash(day)) })), day: last, value: dash(last), unit, toKm };
}

const random = seeded(21);
let asked = 0;
for (let i = 0; i < EACH; i++) {
  const { history, day, value, unit } = series(random);
  if (checkReading(history, { day, value, unit }).verdict === 'suspect') asked++;
}
process.stdout.write(`| clean, asked about | ${((100 * asked) / EACH).toFixed(1)} % of ${EACH} | |\n`);
const all = { found: 0, explained: 0, of: 0 };
for (const [name, slip] of Object.entries(SLIPS)) {
  const tally = { found: 0, explained: 0, of: 0 };
  while (tally.of < EACH / 4) {
    const { history, day, value, unit, toKm } = series(random);
    const before = history.at(-1);
    const wrong = slip(String(value), random);
    if (!before || wrong === null) continue;
    const usual = Math.max(toKm(value) - before.km, 50);
    if (Math.abs(toKm(Number(wrong)) - toKm(value)) <= 2 * usual) continue;
    tally.of++;
    const { verdict, suggestion } = checkReading(history, { day, value: Number(wrong), unit });
    if (verdict === 'suspect') tally.found++;
    if (suggestion && Math.abs(suggestion.km - toKm(value)) <= Math.max(2, usual / 2)) tally.explained++;
  }
  for (const key of ['found', 'explained', 'of'] as const) all[key] += tally[key];
  process.stdout.write(
    `| ${name} | ${((100 * tally.found) / tally.of).toFixed(0)} % | ${((100 * tally.explained) / tally.of).toFixed(0)} % |\n`,
  );
}
process.stdout.write(
  `| over all | ${((100 * all.found) / all.of).toFixed(1)} % | ${((100 * all.explained) / all.of).toFixed(1)} % |\n`,
);

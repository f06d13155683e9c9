import { addDays, type PlainDate, weekdayOf } from '../src/core/calendar/plain-date';
import type { PlanBay, PlanJob, PlanPerson, PlanProblem } from '../src/core/planning/plan-problem';
import { seeded } from '../src/core/stats/seeded';

/* Invented workshops to plan: depots with bays and people, and jobs with the costs, absences, parts and needs of real ones. */

export interface Shape {
  readonly name: string;
  readonly jobs: number;
  readonly bays: number;
  readonly days: number;
  /** Minutes of work over minutes of bays. */
  readonly load: number;
  readonly depots?: number;
  readonly seed: number;
  readonly seconds?: number;
}

/** Ten of 20 to 150 jobs, 2 to 6 bays, 10 to 20 days, 0.6 to 1.4 full. */
export const SHAPES: readonly Shape[] = [
  { name: 'a small garage, half a month', jobs: 20, bays: 2, days: 10, load: 0.6, seed: 1 },
  { name: 'a small garage, full', jobs: 30, bays: 2, days: 10, load: 0.9, seed: 2 },
  { name: 'a small garage, too much', jobs: 40, bays: 2, days: 10, load: 1.3, seed: 3 },
  { name: 'three bays, some room', jobs: 50, bays: 3, days: 12, load: 0.8, seed: 4 },
  { name: 'three bays, full', jobs: 70, bays: 3, days: 15, load: 1.0, seed: 5 },
  { name: 'four bays, two depots', jobs: 80, bays: 4, days: 15, load: 0.9, depots: 2, seed: 6 },
  { name: 'four bays, too much', jobs: 100, bays: 4, days: 15, load: 1.2, seed: 7 },
  { name: 'five bays, a month, some room', jobs: 110, bays: 5, days: 20, load: 0.7, depots: 2, seed: 8 },
  { name: 'six bays, a month, full', jobs: 130, bays: 6, days: 20, load: 1.0, depots: 2, seed: 9 },
  { name: 'six bays, a month, far too much', jobs: 150, bays: 6, days: 20, load: 1.4, depots: 3, seed: 10 },
];

/** 2,000 jobs, 60 days, 40 bays. */
export const LARGE: Shape = {
  name: 'ten depots, a quarter',
  jobs: 2000,
  bays: 40,
  days: 60,
  load: 0.95,
  depots: 10,
  seed: 11,
  seconds: 60,
};

const MONDAY: PlainDate = '2027-03-01';

export function instance({ jobs: n, bays: m, days: d, load, depots: k = 1, seed, seconds = 10 }: Shape): PlanProblem {
  const random = seeded(seed);
  const between = (from: number, to: number): number => from + Math.floor(random() * (to - from + 1));
  const chance = (share: number): boolean => random() < share;
  const days = workdays(d);
  const depots = Array.from({ length: k }, (_, i) => `D${i + 1}`);
  const bays = Array.from({ length: m }, (_, i): PlanBay => {
    const open = days.filter(() => !chance(0.03)).map((day) => ({ day, fromMin: 480, toMin: chance(0.1) ? 780 : 960 }));
    return { id: `B${i + 1}`, depot: depots[i % k] ?? '', can: i < k || chance(0.4) ? ['hybrid'] : [], open };
  });
  const people = Array.from({ length: m + Math.ceil(m / 3) }, (_, i): PlanPerson => {
    const away = chance(0.3) ? between(0, d - 1) : -9;
    const early = chance(0.3);
    const shift = days
      .filter((_, at) => at < away || at > away + 4)
      .map((day) => ({ day, fromMin: early ? 420 : 480, toMin: early ? 900 : 960 }));
    const home = depots[i % k] ?? '';
    const second = k > 1 && chance(0.15) ? [depots[(i + 1) % k] ?? ''] : [];
    return { id: `P${i + 1}`, depots: [home, ...second], skills: i < k || chance(0.35) ? ['hybrid'] : [], shift };
  });
  const minutes = Array.from({ length: n }, () => between(9, 48) * 5);
  const wanted = (m * d * 480 * load) / minutes.reduce((sum, one) => sum + one, 0);
  const jobs = minutes.map((each, i): PlanJob => {
    const own = Math.min(420, Math.max(20, Math.round((each * wanted) / 5) * 5));
    const hybrid = chance(0.15);
    // Pressure that grows from a day on, life thrown away before it, and the hours it stands.
    const due = between(-10, d + 10);
    const weekly = 5 + 120 * random() ** 3;
    const lost = (20 + 60 * random()) / 60;
    const downtime = (own / 60) * between(8, 30);
    const growth = 1.02 + random() * 0.06;
    const costs = Array.from({ length: d + 20 }, (_, at) => {
      let waited = 0;
      for (let t = 0; t < at; t += 1) waited += (weekly / 5) * (t >= due ? growth ** (t - due) : 0.3);
      return Math.round((waited + Math.max(0, due - at) * lost + downtime) * 100) / 100;
    });
    const awayEvery = chance(0.2) ? between(1, 5) : 0;
    const onlyMorning = chance(0.1);
    const allowed =
      awayEvery > 0 || onlyMorning
        ? days
            .filter((day) => weekdayOf(day) !== awayEvery)
            .map((day) => ({ day, fromMin: 480, toMin: onlyMorning ? 780 : 960 }))
        : null;
    return {
      id: `J${i + 1}`,
      depot: depots[i % k] ?? '',
      minutes: own,
      needsSkills: hybrid ? ['hybrid'] : [],
      needsBay: hybrid ? ['hybrid'] : [],
      allowed,
      kitFrom: chance(0.15) ? (days[between(1, Math.min(6, d - 1))] ?? null) : null,
      coolFromMin: chance(0.3) ? 540 : null,
      costByDay: costs.slice(0, d),
      costUnplanned: costs[d + 19] ?? 0,
      pin: null,
      was: null,
    };
  });
  return { days, bays, people, jobs, moveCost: 15, seconds, seed };
}

function workdays(n: number): readonly PlainDate[] {
  const days: PlainDate[] = [];
  for (let day = MONDAY; days.length < n; day = addDays(day, 1)) if (weekdayOf(day) <= 5) days.push(day);
  return days;
}

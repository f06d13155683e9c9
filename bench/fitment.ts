import { type Candidate, match, matcher, SOURCE_RANKS } from '../src/core/catalogue/match';
import { ANY_VEHICLE, type VehicleKeys } from '../src/core/catalogue/scope';

/* Fitment of a large fleet in one process, beside asking for each vehicle anew among all sheets. */

const VEHICLES = Number(process.env.BENCH_VEHICLES ?? 50_000);
const SHEETS = Number(process.env.BENCH_SHEETS ?? 2_000);
const FAMILIES = 120;

/** A small generator of its own, so that every run has the same fleet. */
function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1_664_525 + 1_013_904_223) % 4_294_967_296;
    return state / 4_294_967_296;
  };
}
const random = randomFrom(20_261_116);
const pick = <T>(values: readonly T[]): T => values[Math.floor(random() * values.length)] as T;
const family = (i: number): string => `F${i % FAMILIES}`;
const variants = ['with', 'without'];

const sheets: Candidate[] = Array.from({ length: SHEETS }, (_, i) => ({
  id: `s${i}`,
  engineFamilyId: family(i),
  variant: pick([null, null, ...variants]),
  modelYearFrom: pick([null, 2010, 2016]),
  modelYearTo: pick([null, 2016, 2024]),
  builtFrom: pick([null, null, '2018-07-01']),
  builtTo: null,
  serialFrom: pick([null, null, null, 40_000]),
  serialTo: null,
  fuel: pick([null, null, null, 'lpg', 'petrol']),
  induction: null,
  market: null,
  sourceKind: pick(SOURCE_RANKS),
  sourceDated: pick(['2015-01-01', '2020-01-01', '2024-01-01']),
  revision: 1 + Math.floor(random() * 4),
  expired: random() < 0.1,
}));
const vehicles: VehicleKeys[] = Array.from({ length: VEHICLES }, (_, i) => ({
  ...ANY_VEHICLE,
  engineFamilyId: family(i),
  variant: pick([null, ...variants]),
  modelYear: pick([null, 2012, 2017, 2020]),
  builtOn: pick([null, '2017-01-01', '2020-01-01']),
  serial: pick([null, 20_000, 60_000]),
  fuel: pick([null, 'petrol', 'lpg']),
}));

const timed = <T>(run: () => T): { value: T; seconds: number } => {
  const began = performance.now();
  const value = run();
  return { value, seconds: (performance.now() - began) / 1000 };
};
const together = (list: readonly VehicleKeys[]): string[] => {
  const of = matcher(sheets, new Map(Array.from({ length: FAMILIES }, (_, i) => [family(i), variants])));
  return list.map((vehicle) => of(vehicle).kind);
};

together(vehicles.slice(0, 2000));
const all = timed(() => together(vehicles));
const few = vehicles.slice(0, 2000);
const [fewTogether, fewAlone] = [
  timed(() => together(few)),
  timed(() => few.map((v) => match(v, sheets, variants).kind)),
];
if (fewAlone.value.join() !== fewTogether.value.join()) throw new Error('the two ways disagree');
const count = (kind: string): number => all.value.filter((found) => found === kind).length;
process.stdout.write(
  `Fitment of ${VEHICLES.toLocaleString('en')} vehicles against ${SHEETS.toLocaleString('en')} sheets in one process: ${all.seconds.toFixed(2)} s ` +
    `(${count('match')} match, ${count('needs-answer')} ask, ${count('no-spec')} have none); ` +
    `${(fewAlone.seconds / fewTogether.seconds).toFixed(0)} times as fast as each vehicle asked anew\n`,
);

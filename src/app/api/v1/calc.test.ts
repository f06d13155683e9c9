import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine } from '@/core/engine/any-engine.fixture';
import { cases } from '@/core/shared/cases.fixture';
import { CALCULATIONS } from './calc';

const day = fc
  .integer({ min: 0, max: 4000 })
  .map((n) => new Date(Date.UTC(2018, 0, 1) + n * 86_400_000).toISOString().slice(0, 10));
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const km = fc.integer({ min: 0, max: 900_000 });
const order = fc.integer({ min: 1, max: 8 }).chain((half) => {
  const n = half * 2;
  return fc.shuffledSubarray(
    Array.from({ length: n }, (_, i) => i + 1),
    { minLength: n, maxLength: n },
  );
});

/** Any input that the schema of a calculation takes. */
const INPUTS: Readonly<Record<string, fc.Arbitrary<unknown>>> = {
  quantity: fc.record({
    kind: fc.constantFrom('gap', 'torque', 'distance'),
    text: fc.oneof(fc.string({ maxLength: 20 }), fc.constantFrom('0,8', '.030"', '17 ft-lb', '104k', '1.2.3', '')),
  }),
  'gap-check': fc.record({
    spec: fc.tuple(number(0.4, 1), number(0, 0.3)).map(([min, by]) => ({ min_mm: min, max_mm: min + by })),
    electrode: fc.constantFrom('nickel', 'fine_wire', 'multi_ground'),
    policy: fc.constantFrom('adjust', 'ground_only', 'never'),
    measured_mm: fc.array(number(0.3, 2.5), { minLength: 1, maxLength: 16 }),
  }),
  'torque-plan': fc.record({
    spec_nm: fc.tuple(number(5, 40), number(0, 10)).map(([min, by]) => ({ min, max: min + by })),
    thread: fc.constantFrom('M8', 'M10', 'M12', 'M14', 'M18'),
    seat: fc.constantFrom('gasket', 'conical'),
    gasket: fc.constantFrom('new', 'used'),
    head: fc.constantFrom('aluminium', 'iron'),
    lubricant: fc.constantFrom('dry', 'anti_seize'),
    wrench: fc.option(
      fc.record({
        unit: fc.constantFrom('N·m', 'lbf·ft', 'lbf·in'),
        min: number(0, 10),
        max: number(11, 300),
        step: fc.constantFrom(0.1, 0.5, 1),
        length_mm: number(100, 600),
        calibrated_on: day,
      }),
      { nil: undefined },
    ),
    adapter: fc.option(fc.record({ length_mm: number(0, 300), angle_deg: number(-180, 180) }), { nil: undefined }),
    on: day,
  }),
  'use-rate': fc.record({ readings: fc.array(fc.record({ on: day, km }), { minLength: 1, maxLength: 30 }) }),
  due: fc
    .record({
      today: day,
      readings: fc.array(fc.record({ on: day, km }), { minLength: 1, maxLength: 20 }),
      installed: fc.record({ on: day, km }),
      limits: fc.record({ distance_km: number(1000, 200_000), months: fc.option(number(1, 120)) }),
      borrowed_rate_km_per_day: fc.option(number(0, 900)),
    })
    // No reading is from the future.
    .map((input) => ({ ...input, today: [input.today, ...input.readings.map(({ on }) => on)].sort().at(-1) })),
  'odometer-check': fc.record({
    history: fc.array(fc.record({ on: day, km }), { maxLength: 30 }),
    reading: fc.record({ on: day, value: number(0, 2_000_000), unit: fc.constantFrom('km', 'mi') }),
  }),
  vin: fc.record({ vin: fc.oneof(fc.string({ maxLength: 30 }), fc.stringMatching(/^[0-9A-HJ-NPR-Z]{17}$/)) }),
  'spark-demand': fc.oneof(
    fc.record({
      gap_mm: number(0.1, 3),
      intake_kpa: number(10, 400),
      intake_k: number(200, 500),
      compression_ratio: number(4, 20),
    }),
    fc.record({
      standard: fc.record({
        gap_mm: number(0.1, 3),
        intake_kpa: number(10, 400),
        intake_k: number(200, 500),
        compression_ratio: number(4, 20),
      }),
      boosted_intake_kpa: number(10, 400),
    }),
  ),
  'firing-map': fc
    .tuple(
      order,
      fc.constantFrom('distributor', 'waste_spark', 'coil_on_plug'),
      fc.constantFrom('clockwise', 'counterclockwise'),
    )
    .map(([firing_order, ignition, rotation]) => ({
      cylinders: firing_order.length,
      firing_order,
      ignition,
      rotation,
      tower_of_cylinder_1: 1,
    })),
  reading: anyEngine.map((model) => ({
    layout: {
      arrangement: model.arrangement,
      mounting: model.mounting,
      ignition: model.ignition,
      plugs_per_cylinder: model.plugsPerCylinder,
      banks: model.banks,
      firing_order: model.firingOrder,
    },
    gap_limit_mm: 1.4,
    sites: [{ cylinder: 1, observations: [{ condition: 'nose black oily' }], gap_mm: 1.5, breakaway: 'loose' }],
  })),
  'coil-choice': fc.record({
    others: fc.integer({ min: 0, max: 15 }),
    price: number(0, 5000),
    labour_per_hour: number(0, 500),
    access_hours: number(0, 40),
    downtime_per_visit: number(0, 5000),
    chance_each: number(0, 1),
  }),
  'lead-match': fc.record({
    needed_mm: fc.array(number(100, 1200), { minLength: 1, maxLength: 12 }),
    new_set_mm: fc.array(number(100, 1300), { maxLength: 13 }),
  }),
  misfire: fc.integer({ min: 1, max: 4 }).chain((half) => {
    const all = Array.from({ length: half * 2 }, (_, i) => i + 1);
    const cylinder = fc.constantFrom(...all);
    const part = fc.constantFrom('coil', 'lead', 'plug', 'injector');
    return fc.record({
      layout: fc.record({
        arrangement: fc.constantFrom('inline', 'v', 'flat'),
        banks: fc.constantFrom([all], [all.slice(0, half), all.slice(half)]),
        firing_order: fc.shuffledSubarray(all, { minLength: all.length, maxLength: all.length }),
        ignition: fc.constantFrom('coil_on_plug', 'coil_per_cylinder', 'coil_rail', 'waste_spark', 'distributor'),
        plugs_per_cylinder: fc.constantFrom(1, 2),
      }),
      codes: fc.array(fc.constantFrom('P0300', 'P0301', 'P0302', 'P0351', 'P0171', 'P0201', 'p0302', 'U0100')),
      counts: fc.array(fc.record({ cylinder, per_1000: number(0, 500) }), { maxLength: 8 }),
      symptoms: fc.subarray(['idle', 'load', 'cold', 'wet', 'always']),
      lamp: fc.constantFrom('off', 'on', 'flashing'),
      recent_work: fc.array(
        fc.record({ km_ago: number(0, 900), touched: fc.subarray(['coil', 'plug']), cylinders: fc.subarray(all) }),
        { maxLength: 2 },
      ),
      tests_done: fc.array(
        fc.oneof(
          fc.shuffledSubarray(all, { minLength: 2, maxLength: 2 }).chain(([from, to]) =>
            fc.record({
              test: fc.constant('swap'),
              moved: fc.array(part, { minLength: 1, maxLength: 2 }),
              from: fc.constant(from),
              to: fc.constant(to),
              outcome: fc.constantFrom('moved', 'stayed', 'both', 'gone'),
            }),
          ),
          fc.record({ test: fc.constant('look'), component: fc.option(part), cylinder, outcome: fc.constant('found') }),
        ),
        { maxLength: 3 },
      ),
    });
  }),
};

describe('calculations', () => {
  it('are all tried here', () => {
    // A plan is solved in threads: tests/integration/plan-calculation.test.ts.
    const atOnce = Object.keys(CALCULATIONS).filter((name) => name !== 'plan');
    expect(Object.keys(INPUTS).sort()).toEqual(atOnce.sort());
  });

  it.each(Object.keys(INPUTS))('%s answers every valid input in its own shape, and the same twice', (name) => {
    const calculation = CALCULATIONS[name];
    const inputs = INPUTS[name];
    if (!calculation || !inputs) throw new Error(name);
    fc.assert(
      fc.property(inputs, (input) => {
        const parsed = calculation.input.safeParse(input);
        expect(parsed.error?.issues ?? []).toEqual([]);
        const sent = JSON.parse(JSON.stringify(calculation.run(input)));
        expect(calculation.output.safeParse(sent).error?.issues ?? []).toEqual([]);
        expect(JSON.parse(JSON.stringify(calculation.run(input)))).toEqual(sent);
      }),
      { numRuns: name === 'misfire' ? cases(300) : 300 },
    );
  });

  it.each(Object.keys(INPUTS))('%s takes nothing else', (name) => {
    const calculation = CALCULATIONS[name];
    fc.assert(
      fc.property(
        fc.oneof(fc.constant(null), fc.string(), fc.array(fc.anything(), { maxLength: 3 }), fc.constant({})),
        (input) => {
          expect(calculation?.input.safeParse(input).success).toBe(false);
        },
      ),
    );
  });

  const run = (name: string, input: unknown) => CALCULATIONS[name]?.input.safeParse(input);
  it.each([
    ['firing-map', { cylinders: 4, firing_order: [1, 3, 4, 4], ignition: 'coil_on_plug' }, 'firing_order'],
    ['firing-map', { cylinders: 3, firing_order: [1, 2, 3], ignition: 'waste_spark' }, 'cylinders'],
    [
      'due',
      {
        today: '2026-11-16',
        readings: [
          { on: '2026-11-01', km: 1000 },
          { on: '2026-11-17', km: 1100 },
        ],
        installed: { on: '2026-01-01', km: 0 },
        limits: { distance_km: 60_000 },
      },
      'readings',
    ],
    ['firing-map', { cylinders: 2, firing_order: [1, 2], ignition: 'distributor' }, 'rotation'],
    [
      'firing-map',
      { cylinders: 2, firing_order: [2, 1], ignition: 'distributor', rotation: 'clockwise', tower_of_cylinder_1: 3 },
      'tower_of_cylinder_1',
    ],
    ['gap-check', { spec: { min_mm: 2, max_mm: 1 }, electrode: 'nickel', policy: 'adjust', measured_mm: [1] }, 'spec'],
    [
      'odometer-check',
      { history: [{ on: '2026-02-30', km: 1 }], reading: { on: '2026-03-01', value: 1, unit: 'km' } },
      'history',
    ],
  ])('%s points at what is wrong in %j', (name, input, key) => {
    expect(run(name, input)?.error?.issues.map((issue) => issue.path[0])).toContain(key);
  });
});

describe('reading', () => {
  const layout = {
    arrangement: 'inline',
    banks: [{ place: 'only', cylinders: [1, 2, 3, 4] }],
    firing_order: [1, 3, 4, 2],
  };
  const trace = (cylinder: number) => ({ cylinder, observations: [{ condition: 'nose coloured trace', severity: 3 }] });
  const run = (input: object) => CALCULATIONS.reading?.run(input) as { findings: readonly { cause: string }[] };

  it('tells the cause by the place, and nothing of sites that are left out', () => {
    const sites = [trace(2), trace(3), ...[1, 4].map((cylinder) => ({ cylinder, observations: [] }))];
    expect(run({ layout, sites }).findings.map(({ cause }) => cause)).toEqual(['coolant_between']);
    expect(run({ layout, sites: [trace(2)] }).findings.map(({ cause }) => cause)).toEqual(['coolant_in_one']);
  });

  it.each([
    ['a site it does not have', { layout, sites: [trace(9)] }],
    ['a site twice', { layout, sites: [trace(2), trace(2)] }],
    ['a word nobody knows', { layout, sites: [{ cylinder: 1, observations: [{ condition: 'purple' }] }] }],
    ['banks that do not hold every cylinder', { layout: { ...layout, firing_order: [1, 2, 3] }, sites: [trace(1)] }],
    [
      'an odd number under waste spark',
      {
        layout: {
          ...layout,
          ignition: 'waste_spark',
          banks: [{ place: 'only', cylinders: [1, 2, 3] }],
          firing_order: [1, 2, 3],
        },
        sites: [trace(1)],
      },
    ],
  ])('refuses %s', (_, input) => {
    expect(CALCULATIONS.reading?.input.safeParse(input).success).toBe(false);
  });
});

describe('a number far beyond its limit', () => {
  it.each([
    ['firing-map', { cylinders: Number.MAX_SAFE_INTEGER, firing_order: [1], ignition: 'coil_on_plug' }],
    ['firing-map', { cylinders: 5e7, firing_order: [1], ignition: 'waste_spark' }],
    [
      'reading',
      {
        layout: { arrangement: 'inline', banks: [{ place: 'only', cylinders: [1e9] }], firing_order: [1e9] },
        sites: [{ cylinder: 1e9, observations: [] }],
      },
    ],
  ])('%s is refused by the limit alone, before anything is made of it', (name, input) => {
    const parsed = CALCULATIONS[name]?.input.safeParse(input);
    expect(parsed?.success).toBe(false);
    expect(parsed?.error?.issues.every(({ code }) => code === 'too_big')).toBe(true);
  });
});

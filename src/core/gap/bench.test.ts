import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gapForBoost, overlap } from './bands';
import { bendHistory } from './bends';
import { checkGaps, ELECTRODES, gaugeAdvice, REGAP_POLICIES } from './check';
import { gapOfEqualDemand, sparkDemand } from './spark-demand';

const vectors = JSON.parse(readFileSync('tests/vectors/spark_demand.json', 'utf8'));
interface Demand {
  gap_mm: number;
  intake_kpa: number;
  intake_k: number;
  compression_ratio: number;
  expect_volts: number;
}
interface Inverse {
  standard_gap_mm: number;
  standard_intake_kpa: number;
  boosted_intake_kpa: number;
  intake_k: number;
  compression_ratio: number;
  expect_gap_mm: number;
}
const breath = { intakeKpa: 100, intakeK: 310, compressionRatio: 10 };
const anyBreath = fc.record({
  intakeKpa: fc.double({ min: 30, max: 300, noNaN: true }),
  intakeK: fc.double({ min: 250, max: 400, noNaN: true }),
  compressionRatio: fc.double({ min: 6, max: 15, noNaN: true }),
});
const anyGap = fc.double({ min: 0.3, max: 2, noNaN: true });

describe('sparkDemand', () => {
  it.each(vectors.demand as Demand[])('agrees at $gap_mm mm and $intake_kpa kPa', (v) => {
    const volts = sparkDemand(v.gap_mm, {
      intakeKpa: v.intake_kpa,
      intakeK: v.intake_k,
      compressionRatio: v.compression_ratio,
    });
    expect(volts / v.expect_volts).toBeCloseTo(1, 9);
  });

  it('grows with gap and with pressure', () => {
    fc.assert(
      fc.property(anyBreath, anyGap, (b, gap) => {
        expect(sparkDemand(gap * 1.1, b)).toBeGreaterThan(sparkDemand(gap, b));
        expect(sparkDemand(gap, { ...b, intakeKpa: b.intakeKpa * 1.1 })).toBeGreaterThan(sparkDemand(gap, b));
      }),
    );
  });

  it.each([
    [0, breath],
    [0.8, { ...breath, intakeKpa: 0 }],
    [Number.NaN, breath],
  ])('refuses %j', (gap, b) => {
    expect(() => sparkDemand(gap, b)).toThrow(RangeError);
  });

  it('knows no voltage where the law ends', () => {
    expect(sparkDemand(0.0001, { ...breath, intakeKpa: 1 })).toBe(Number.POSITIVE_INFINITY);
  });
});

describe('gapOfEqualDemand', () => {
  it.each(vectors.inverse as Inverse[])('agrees at $boosted_intake_kpa kPa', (v) => {
    const standard = { intakeKpa: v.standard_intake_kpa, intakeK: v.intake_k, compressionRatio: v.compression_ratio };
    const gap = gapOfEqualDemand(v.standard_gap_mm, standard, { ...standard, intakeKpa: v.boosted_intake_kpa });
    expect(gap).toBeCloseTo(v.expect_gap_mm, 9);
  });

  it('keeps the demand, whatever the two engines', () => {
    fc.assert(
      fc.property(anyBreath, anyBreath, anyGap, (a, b, gap) => {
        const kept = gapOfEqualDemand(gap, a, b);
        expect(sparkDemand(kept, b) / sparkDemand(gap, a)).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('gapForBoost', () => {
  const bands = [
    { upToKpa: 180, minMm: 0.6, maxMm: 0.65 },
    { upToKpa: 100, minMm: 0.9, maxMm: 1.0 },
  ];
  it('takes a known pressure, asks between two, and knows nothing above', () => {
    expect(gapForBoost(bands, 180)).toMatchObject({ kind: 'in-band', band: { maxMm: 0.65 } });
    expect(gapForBoost(bands, 90)).toMatchObject({ kind: 'in-band', band: { maxMm: 1.0 } });
    expect(gapForBoost(bands, 140)).toMatchObject({ kind: 'between', needsApproval: true, band: { maxMm: 0.65 } });
    expect(gapForBoost(bands, 200)).toEqual({ kind: 'above-all' });
    expect(gapForBoost([], 100)).toEqual({ kind: 'above-all' });
  });
});

describe('overlap', () => {
  it('is where all ranges agree, or nothing', () => {
    expect(
      overlap([
        { min: 0.9, max: 1.1 },
        { min: 1.0, max: 1.2 },
      ]),
    ).toEqual({ min: 1.0, max: 1.1 });
    expect(
      overlap([
        { min: 0.8, max: 0.9 },
        { min: 1.0, max: 1.1 },
      ]),
    ).toBeNull();
    expect(overlap([])).toBeNull();
  });
});

describe('bendHistory', () => {
  it('counts changes of direction, not bends', () => {
    expect(bendHistory([0.1, 0.05, 0.02], 1)).toEqual({ changesOfDirection: 0, discard: false });
    expect(bendHistory([0.1, -0.05], 1)).toEqual({ changesOfDirection: 1, discard: false });
    expect(bendHistory([0.1, -0.05, 0, 0.02], 1)).toEqual({ changesOfDirection: 2, discard: true });
    expect(bendHistory([0.1, -0.1], 0).discard).toBe(true);
    expect(bendHistory([], 0).discard).toBe(false);
  });
});

describe('a batch of new plugs', () => {
  it('has the same verdict in whatever order they are measured', () => {
    const gaps = fc.array(
      fc.integer({ min: 60, max: 150 }).map((n) => n / 100),
      { minLength: 1, maxLength: 12 },
    );
    fc.assert(
      fc.property(
        gaps,
        fc.constantFrom(...ELECTRODES),
        fc.constantFrom(...REGAP_POLICIES),
        fc.infiniteStream(fc.nat()),
        (list, electrode, policy, keys) => {
          const spec = { minMm: 1.0, maxMm: 1.1 };
          const keyed = list.map((gap) => ({ gap, key: keys.next().value ?? 0 }));
          const turned = keyed.sort((a, b) => a.key - b.key).map(({ gap }) => gap);
          const [one, two] = [checkGaps(spec, electrode, policy, list), checkGaps(spec, electrode, policy, turned)];
          expect(two.batch.verdict).toBe(one.batch.verdict);
          expect(two.batch.spreadMm).toBeCloseTo(one.batch.spreadMm, 9);
          expect(two.batch.suspects.map((i) => turned[i]).sort()).toEqual(
            one.batch.suspects.map((i) => list[i]).sort(),
          );
        },
      ),
    );
  });

  it('is judged at the precision in which its range is written', () => {
    const spec = { minMm: 0.045 * 25.4, maxMm: 0.049 * 25.4 };
    const inches = { ...spec, written: { unit: 'in', decimals: 3 } } as const;
    expect(checkGaps(inches, 'nickel', 'adjust', [1.25]).plugs[0]?.action).toBe('accept');
    expect(checkGaps({ minMm: 1.14, maxMm: 1.24 }, 'nickel', 'adjust', [1.25]).plugs[0]?.action).toBe('close');
  });

  it('of fine wire is measured without a ramp', () => {
    expect(gaugeAdvice('fine_wire')).toContain('ramp gauge chips');
    expect(new Set(ELECTRODES.map(gaugeAdvice)).size).toBe(ELECTRODES.length);
  });
});

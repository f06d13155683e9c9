import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seeded } from '../stats/seeded';
import { adviceOn } from './advice';
import { constructed, engineAt, plainCase } from './constructed.fixture';
import { withOutcome } from './evidence';
import type { Cause, MisfireCase, MisfireEngine } from './misfire-case';
import { beliefOf, suspicions } from './posterior';
import { remedyTask } from './remedy-task';

const inline4 = engineAt(1);
const chance = (given: MisfireCase, cause: Cause, cylinder: number): number =>
  suspicions(beliefOf(given)).find((one) => one.cause === cause && one.cylinders.includes(cylinder))?.probability ?? 0;

describe('what the record says', () => {
  it('takes a cylinder that used up two coils for their victim', () => {
    const twice = plainCase({ record: [{ component: 'coil', cylinder: 2, failedHere: 2, lotFailed: 0 }] });
    const boots = (given: MisfireCase): number => chance(given, 'boot', 2) / chance(given, 'coil', 2);
    expect(boots(twice)).toBeGreaterThan(4 * boots(plainCase()));
    const once = plainCase({ record: [{ component: 'coil', cylinder: 2, failedHere: 1, lotFailed: 0 }] });
    expect(chance(once, 'coil', 2)).toBeCloseTo(chance(plainCase(), 'coil', 2), 12);
  });

  it('suspects a part of a lot in which others failed, there and nowhere else', () => {
    const lot = plainCase({ record: [{ component: 'coil', cylinder: 2, failedHere: 0, lotFailed: 3 }] });
    expect(chance(lot, 'coil', 2)).toBeGreaterThan(chance(plainCase(), 'coil', 2));
    expect(chance(lot, 'plug', 2)).toBeLessThan(chance(plainCase(), 'plug', 2));
  });

  it('suspects valves more where a cylinder rests', () => {
    const rests = plainCase({ engine: { ...inline4, resting: [2, 3] } });
    expect(chance(rests, 'mechanical', 2)).toBeGreaterThan(chance(plainCase(), 'mechanical', 2));
  });

  it('takes one of two plugs for a stumble under load rather than a dead cylinder', () => {
    const twin = { ...inline4, plugsPerCylinder: 2 as const };
    const atIdle = (engine: MisfireEngine) =>
      chance(plainCase({ engine, symptoms: ['idle'] }), 'plug', 2) / chance(plainCase({ engine }), 'plug', 2);
    expect(atIdle(twin)).toBeLessThan(0.6 * atIdle(inline4));
  });

  it('suspects more what the family is known for', () => {
    expect(chance(plainCase({ weak: ['boot'] }), 'boot', 2)).toBeGreaterThan(chance(plainCase(), 'boot', 2));
  });

  it('suspects what a visit put on crossed, where two misfire after it, and no pair whose crossing nobody notices', () => {
    const worked = (engine: MisfireEngine, codes: readonly string[]): MisfireCase =>
      plainCase({
        engine,
        codes,
        recentWork: [{ kmAgo: 20, touched: ['lead', 'plug'], cylinders: engine.banks.flat() }],
      });
    const distributor = engineAt(5);
    const [first] = adviceOn(worked(distributor, ['P0302', 'P0305'])).causes;
    expect(first).toMatchObject({ cause: 'crossed_leads', cylinders: [2, 5] });
    const pairs = suspicions(beliefOf(worked(engineAt(3), ['P0301', 'P0304']))).filter(
      ({ cause }) => cause === 'crossed_leads',
    );
    expect(pairs.map(({ cylinders }) => cylinders.join())).not.toContain('1,4');
    expect(pairs.length).toBe(4);
    expect(
      suspicions(beliefOf(plainCase({ engine: distributor }))).some(({ cylinders }) => cylinders.length === 2),
    ).toBe(false);
  });

  it('shows what was said in words against the codes, and believes neither more for it', () => {
    const { contradictions } = adviceOn(plainCase({ spoken: [3, 4] }));
    expect(contradictions).toEqual(['said in words: cylinder 3 and 4; by the codes: cylinder 2']);
    expect(adviceOn(plainCase({ spoken: [2] })).contradictions).toEqual([]);
    expect(chance(plainCase({ spoken: [3] }), 'coil', 2)).toBeCloseTo(chance(plainCase(), 'coil', 2), 12);
  });
});

describe('the way to a cylinder', () => {
  it('makes a test dearer where covers come off, once for two plugs of a bank', () => {
    const opening = [1, 2, 3, 4].map((cylinder) => ({ cylinder, minutes: 4 }));
    const minutes = (way: MisfireCase['opening']): number | undefined =>
      adviceOn(plainCase({ opening: way })).steps.find(({ test }) => test?.test === 'swap')?.minutes;
    expect(minutes([])).toBeGreaterThan(0);
    expect(minutes(opening)).toBe((minutes([]) ?? 0) + 4);
  });
});

describe('what is to be made of a case', () => {
  it('leaves nothing out: causes that are shown and all others add up to one, and so do the outcomes of a test', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const advice = adviceOn(constructed(seeded(seed + 1)).given);
        const shown = advice.causes.reduce((sum, { probability }) => sum + probability, 0);
        expect(shown + advice.others).toBeCloseTo(1, 9);
        for (const { outcomes } of advice.steps)
          if (outcomes.length > 0) expect(outcomes.reduce((sum, one) => sum + one.chance, 0)).toBeCloseTo(1, 6);
      }),
      { numRuns: 30 },
    );
  });

  it('says ahead of a test what it says after it', () => {
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const { given } = constructed(seeded(seed + 1));
        const [step] = adviceOn(given).steps;
        for (const { outcome, cause } of step?.outcomes ?? []) {
          if (!step?.test) continue;
          const after = adviceOn({ ...given, testsDone: [withOutcome(step.test, outcome)] });
          expect(after.causes[0]?.probability).toBeCloseTo(cause?.probability ?? 0, 9);
        }
      }),
      { numRuns: 15 },
    );
  });

  it('gives reasons for and against that go with the figures', () => {
    const swapStayed = plainCase({
      testsDone: [{ test: 'swap', moved: ['coil'], from: 2, to: 4, outcome: 'stayed' }],
    });
    const { causes } = adviceOn(swapStayed);
    const plug = causes.find(({ cause, cylinders }) => cause === 'plug' && cylinders.includes(2));
    expect(plug?.reasons.map(({ about, bits }) => [about.kind, bits > 0])).toContainEqual(['codes', true]);
    const boot = adviceOn(plainCase({ symptoms: ['wet'] })).causes.find(({ cause }) => cause === 'boot');
    expect(boot?.reasons.some(({ about, bits }) => about.kind === 'symptom' && bits > 0)).toBe(true);
    const old = adviceOn(plainCase({ ages: [{ component: 'plug', cylinder: 2, lifeUsed: 1.2 }] }));
    expect(
      old.causes
        .find(({ cause }) => cause === 'plug')
        ?.reasons.some(({ about, bits }) => about.kind === 'record' && about.factor === 'age' && bits > 0),
    ).toBe(true);
  });

  it('tells what a swap that is underway would mean', () => {
    const test = { test: 'swap', moved: ['coil'], from: 2, to: 4, bootsStayed: true } as const;
    const moved = adviceOn(plainCase(), test).underway?.outcomes.find(({ outcome }) => outcome === 'moved');
    expect(moved?.cause).toMatchObject({ cause: 'coil', cylinders: [2] });
    expect(moved?.next?.action).toBe('replace');
  });
});

describe('the work that cures a cause', () => {
  it('is a part of the ignition at its place, and nothing for what others look after', () => {
    expect(remedyTask({ cause: 'pack', cylinders: [1, 4] })).toEqual({
      action: 'replace',
      component: 'coil',
      cylinders: [1, 4],
    });
    expect(remedyTask({ cause: 'rotor', cylinders: [1, 2, 3, 4, 5, 6] })?.cylinders).toBeNull();
    expect(remedyTask({ cause: 'connector', cylinders: [2] })?.action).toBe('inspect');
    for (const cause of ['injector', 'mechanical', 'wiring', 'mixture_bank', 'mixture_all', 'fuel', 'relearn'] as const)
      expect(remedyTask({ cause, cylinders: [2] })).toBeNull();
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cases } from '../shared/cases.fixture';
import { seeded } from '../stats/seeded';
import { constructed, ENGINES, plainCase, tried } from './constructed.fixture';
import { diagnose } from './diagnose';
import { testKey } from './evidence';
import { cylindersOf, FOUND_WORDS, type MisfireCase, SYMPTOMS } from './misfire-case';
import { beliefOf, hypothesisKey, suspicions } from './posterior';

const chanceOf = (given: MisfireCase, cause: string, cylinder?: number): number =>
  suspicions(beliefOf(given))
    .filter((one) => one.cause === cause && (cylinder === undefined || one.cylinders.includes(cylinder)))
    .reduce((sum, { probability }) => sum + probability, 0);
const swapped = (part: 'coil' | 'plug' | 'lead', outcome: 'moved' | 'stayed' | 'both' | 'gone') => ({
  test: 'swap' as const,
  moved: [part],
  from: 2,
  to: 3,
  outcome,
});

/** Cases with all that can be told, as they come. */
const anyCase = fc.tuple(fc.nat(), fc.nat()).map(([seed, tests]): MisfireCase => {
  const random = seeded(seed + 1);
  const { given, truth } = constructed(random);
  const cylinders = cylindersOf(given.engine);
  const at = () => cylinders[Math.floor(random() * cylinders.length)] ?? 1;
  const found =
    random() < 0.5
      ? [{ cylinder: at(), word: FOUND_WORDS[Math.floor(random() * FOUND_WORDS.length)] ?? 'well_wet' }]
      : [];
  const counts =
    random() < 0.4
      ? cylinders.map((cylinder) => ({
          cylinder,
          per1000: Math.round(random() * (truth.cylinders.includes(cylinder) ? 200 : 20)),
        }))
      : [];
  const symptoms = [...new Set([...given.symptoms, SYMPTOMS[Math.floor(random() * 5)] ?? 'idle'])];
  let now: MisfireCase = { ...given, found, counts, symptoms };
  for (let i = 0; i < tests % 3; i += 1) {
    const [step] = diagnose(now, 1).steps;
    if (step?.test) now = { ...now, testsDone: [...now.testsDone, tried(step.test, truth, random)] };
  }
  return now;
});

describe('what is suspected', () => {
  it('adds up to one, whatever is told', () => {
    fc.assert(
      fc.property(anyCase, (given) => {
        const sum = suspicions(beliefOf(given)).reduce((total, { probability }) => total + probability, 0);
        expect(sum).toBeCloseTo(1, 9);
      }),
    );
  });

  it('is the same in whatever order it was told, and told twice', () => {
    fc.assert(
      fc.property(anyCase, (given) => {
        const other: MisfireCase = {
          ...given,
          codes: [...given.codes, ...given.codes].reverse(),
          symptoms: [...given.symptoms].reverse(),
          found: [...given.found, ...given.found].reverse(),
          counts: [...given.counts].reverse(),
          ages: [...given.ages].reverse(),
        };
        const [a, b] = [given, other].map(
          (one) => new Map(suspicions(beliefOf(one)).map((s) => [hypothesisKey(s), s.probability])),
        );
        for (const [key, probability] of a ?? []) expect(b?.get(key)).toBeCloseTo(probability, 9);
      }),
    );
  });

  it('does not hang on how cylinders are numbered, nor on which bank comes first', () => {
    fc.assert(
      fc.property(anyCase, fc.nat(), (given, seed) => {
        // Codes that name a bank by its place are none of this.
        const plain = { ...given, codes: given.codes.filter((code) => code.startsWith('P03')), counts: given.counts };
        const cylinders = cylindersOf(plain.engine);
        const random = seeded(seed + 1);
        const shuffled = [...cylinders]
          .map((c) => [random(), c] as const)
          .sort((a, b) => a[0] - b[0])
          .map(([, c]) => c);
        const to = new Map(cylinders.map((cylinder, i) => [cylinder, shuffled[i] ?? cylinder]));
        const map = (cylinder: number): number => to.get(cylinder) ?? cylinder;
        const code = (text: string): string => {
          const number = Number(text.slice(3));
          if (/^P030[1-9]$|^P031[0-2]$/.test(text)) return `P03${String(map(number)).padStart(2, '0')}`;
          return /^P035[1-9]$|^P036[0-2]$/.test(text) ? `P03${50 + map(number - 50)}` : text;
        };
        const renumbered: MisfireCase = {
          ...plain,
          engine: {
            ...plain.engine,
            banks: [...plain.engine.banks].reverse().map((bank) => bank.map(map)),
            firingOrder: plain.engine.firingOrder.map(map),
          },
          codes: plain.codes.map(code),
          counts: plain.counts.map((one) => ({ ...one, cylinder: map(one.cylinder) })),
          ages: plain.ages.map((one) => ({ ...one, cylinder: map(one.cylinder) })),
          recentWork: plain.recentWork.map((one) => ({ ...one, cylinders: one.cylinders.map(map) })),
          found: plain.found.map((one) => ({ ...one, cylinder: map(one.cylinder) })),
          testsDone: plain.testsDone.map((test) =>
            test.test === 'swap'
              ? { ...test, from: map(test.from), to: map(test.to) }
              : { ...test, cylinder: test.cylinder === null ? null : map(test.cylinder) },
          ),
        };
        const after = new Map(suspicions(beliefOf(renumbered)).map((one) => [hypothesisKey(one), one.probability]));
        for (const one of suspicions(beliefOf(plain))) {
          const key = hypothesisKey({ ...one, cylinders: one.cylinders.map(map).sort((a, b) => a - b) });
          expect(after.get(key)).toBeCloseTo(one.probability, 9);
        }
      }),
    );
  });

  it('goes with the part that took the misfire with it, and away from one that left it', () => {
    const moved = plainCase({ testsDone: [swapped('coil', 'moved')] });
    // A boot hangs on its coil, and goes with it.
    expect(chanceOf(moved, 'coil', 2) + chanceOf(moved, 'boot', 2)).toBeGreaterThan(0.9);
    expect(chanceOf(moved, 'coil', 2)).toBeGreaterThan(chanceOf(moved, 'boot', 2));
    const bare = { ...swapped('coil', 'moved'), bootsStayed: true };
    expect(chanceOf(plainCase({ testsDone: [bare] }), 'coil', 2)).toBeGreaterThan(0.85);
    expect(chanceOf(plainCase({ testsDone: [swapped('coil', 'stayed')] }), 'coil', 2)).toBeLessThan(0.05);
    expect(
      chanceOf(plainCase({ testsDone: [swapped('coil', 'stayed'), swapped('plug', 'stayed')] }), 'injector', 2),
    ).toBeGreaterThan(0.25);
  });

  it('never tells two parts apart that were moved together', () => {
    const per = ENGINES.find(({ ignition }) => ignition === 'coil_per_cylinder');
    if (!per) throw new Error('no engine');
    fc.assert(
      fc.property(fc.constantFrom('moved', 'stayed', 'gone' as const), (outcome) => {
        const before = plainCase({ engine: per });
        const test = {
          test: 'swap' as const,
          moved: ['coil', 'lead'] as const,
          from: 2,
          to: 4,
          outcome: outcome as 'moved',
        };
        const after = { ...before, testsDone: [test] };
        // One of each alone: two at once are a case of their own.
        const ratio = (given: MisfireCase): number => {
          const {
            space: { states },
            chances,
          } = beliefOf(given);
          const of = (cause: string): number =>
            chances[
              states.findIndex(
                ({ causes }) => causes.length === 1 && causes[0]?.cause === cause && causes[0].cylinders[0] === 2,
              )
            ] ?? 0;
          return of('coil') / of('lead');
        };
        expect(ratio(after)).toBeCloseTo(ratio(before), 6);
      }),
    );
  });

  it('knows the pair of a waste spark, the visit before, and the age', () => {
    const waste = ENGINES.find(({ ignition, banks }) => ignition === 'waste_spark' && banks.length === 1);
    if (!waste) throw new Error('no engine');
    const both = plainCase({ engine: waste, codes: ['P0301', 'P0304'] });
    expect(suspicions(beliefOf(both))[0]).toMatchObject({ cause: 'pack', cylinders: [1, 4] });
    // One of a pair alone: it is not the coil.
    expect(chanceOf(plainCase({ engine: waste, codes: ['P0301'] }), 'pack')).toBeLessThan(0.1);
    const fresh = plainCase({ symptoms: ['always'] });
    const visit = plainCase({
      symptoms: ['always'],
      recentWork: [{ kmAgo: 60, touched: ['plug', 'connector'], cylinders: [1, 2, 3, 4] }],
    });
    expect(chanceOf(visit, 'connector', 2)).toBeGreaterThan(3 * chanceOf(fresh, 'connector', 2));
    const old = plainCase({ ages: [{ component: 'plug', cylinder: 2, lifeUsed: 1.3 }] });
    expect(chanceOf(old, 'plug', 2)).toBeGreaterThan(chanceOf(plainCase(), 'plug', 2));
  });

  it('reads the mixture of a bank, and every cylinder at random, as no part', () => {
    const lean = diagnose(plainCase({ codes: ['P0300', 'P0171'], symptoms: ['idle'] }));
    expect(lean.hypotheses[0]?.cause).toMatch(/mixture/);
    expect(lean.steps.at(-1)?.action).toBe('refer');
  });
});

describe('the next step', () => {
  it('is never a test that was done, and the first costs least of all', () => {
    fc.assert(
      fc.property(anyCase, (given) => {
        const done = new Set(given.testsDone.map(testKey));
        const { steps } = diagnose(given);
        expect(steps.length).toBeGreaterThan(0);
        for (const step of steps) {
          if (step.test) expect(done.has(testKey(step.test))).toBe(false);
          expect(step.expectedCost).toBeGreaterThanOrEqual((steps[0]?.expectedCost ?? 0) - 1e-9);
          expect(step.informationBits).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: cases(100) },
    );
  });

  it('swaps with a cylinder that runs normally, near, and no companion', () => {
    for (const each of ENGINES) {
      const [first] = diagnose(plainCase({ engine: each, codes: ['P0302'] })).steps.filter(
        ({ test }) => test?.test === 'swap',
      );
      if (first?.test?.test !== 'swap') continue;
      const bank = each.banks.find((cylinders) => cylinders.includes(2)) ?? [];
      expect(first.test.from).toBe(2);
      expect(first.test.to).not.toBe(2);
      if (bank.length > 2) expect(bank).toContain(first.test.to);
    }
  });

  it('replaces what is known, and tests a dear part before it is bought', () => {
    const known = diagnose(plainCase({ testsDone: [{ ...swapped('coil', 'moved'), bootsStayed: true }] })).steps[0];
    expect(known).toMatchObject({ action: 'replace', cause: 'coil', cylinders: [2] });
    const dear = diagnose(plainCase({ prices: { coil: 400, plug: 200 } })).steps[0];
    expect(dear?.action).toBe('test');
  });

  it('stops who drives on with a flashing lamp', () => {
    expect(diagnose(plainCase({ lamp: 'flashing' })).driving).toBe('stop');
    expect(diagnose(plainCase()).driving).toBe('free');
  });
});

describe('what cannot all be so', () => {
  it('is shown: cylinders that are not there, codes against counts, tests against each other', () => {
    const said = (over: Partial<MisfireCase>): readonly string[] => diagnose(plainCase(over)).contradictions;
    expect(said({})).toEqual([]);
    expect(said({ codes: ['P0307'] })).toEqual(['code P0307: names cylinder 7, and the engine has 4']);
    expect(
      said({
        counts: [
          { cylinder: 3, per1000: 150 },
          { cylinder: 2, per1000: 4 },
        ],
      })[0],
    ).toMatch(/highest in 3/);
    expect(said({ testsDone: [swapped('coil', 'moved'), swapped('plug', 'moved')] })[0]).toMatch(
      /two causes, or one swap was misread/,
    );
    expect(said({ testsDone: [swapped('coil', 'moved'), swapped('coil', 'stayed')] })[0]).toMatch(
      /said moved and stayed/,
    );
  });
});

const CASES = cases(600);
describe('constructed engines', () => {
  it('have their cause first, or among the first two, once the proposed tests are done', () => {
    let [first, firstTwo] = [0, 0];
    for (let seed = 1; seed <= CASES; seed += 1) {
      const random = seeded(seed * 31);
      const { given, truth } = constructed(random);
      let now = given;
      for (let i = 0; i < 6; i += 1) {
        const [step] = diagnose(now, 1).steps;
        if (!step?.test) break;
        now = { ...now, testsDone: [...now.testsDone, tried(step.test, truth, random)] };
      }
      const keys = diagnose(now, 1).hypotheses.slice(0, 2).map(hypothesisKey);
      first += Number(keys[0] === hypothesisKey(truth));
      firstTwo += Number(keys.includes(hypothesisKey(truth)));
    }
    expect(first).toBeGreaterThan(0.7 * CASES);
    expect(firstTwo).toBeGreaterThan(0.8 * CASES);
  });
});

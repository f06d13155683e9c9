import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CaseEntry, storyOf } from './case-entry';
import { ENGINES, plainCase } from './constructed.fixture';
import { cheapestCure } from './cure';
import { diagnose } from './diagnose';
import { drivingOf, HARMS_CATALYST_PER_1000, OVER_EMISSIONS_PER_1000 } from './driving';
import type { DoneTest, MisfireCase, Swap } from './misfire-case';
import { withNamedParts } from './named-parts';
import { homeAt, placeOf } from './positions';
import { beliefOf, suspicions } from './posterior';

const chance = (given: MisfireCase, cause: string, at?: number): number =>
  suspicions(beliefOf(withNamedParts(given)))
    .filter((one) => one.cause === cause && (at === undefined || one.cylinders.includes(at)))
    .reduce((sum, { probability }) => sum + probability, 0);
const top = (given: MisfireCase) => diagnose(given).hypotheses[0];
const distributor = ENGINES.find(({ ignition }) => ignition === 'distributor') ?? plainCase().engine;
const replaced = (component: 'coil' | 'plug' | 'cap' | null, cylinder: number | null, outcome: 'cured' | 'not_cured') =>
  ({ test: 'replace', component, cylinder, outcome }) as const;

describe('misfire counts follow a swapped part', () => {
  const moved: DoneTest = { test: 'swap', moved: ['coil'], from: 4, to: 2, bootsStayed: true, outcome: 'moved' };
  const four = plainCase({ codes: ['P0304'], testsDone: [moved] });

  it('blame the part that came from 4 when 2 counts after it went there, and not what was in 2', () => {
    const after = { ...four, counts: [{ cylinder: 2, per1000: 140, after: 1 }] };
    expect(top(after)).toMatchObject({ cause: 'coil', cylinders: [4] });
    expect(chance(after, 'coil', 4)).toBeGreaterThan(chance(four, 'coil', 4));
    for (const cause of ['coil', 'boot', 'plug']) expect(chance(after, cause, 2)).toBeLessThan(0.02);
  });

  it('speak of what stayed when the place counts on although its coil went', () => {
    const stays = { ...four, counts: [{ cylinder: 4, per1000: 140, after: 1 }] };
    expect(chance(stays, 'coil', 4)).toBeLessThan(chance(four, 'coil', 4) / 2);
  });

  it('are of the moment at which they were taken', () => {
    const before = plainCase({ codes: [], counts: [{ cylinder: 4, per1000: 140 }], testsDone: [moved] });
    const late = plainCase({ codes: [], counts: [{ cylinder: 2, per1000: 140, after: 1 }], testsDone: [moved] });
    expect(top(before)).toMatchObject({ cause: 'coil', cylinders: [4] });
    expect(top(late)).toMatchObject({ cause: 'coil', cylinders: [4] });
  });

  it('know where every part sits after any swaps, and where it came from', () => {
    const { engine } = plainCase();
    const cylinder = fc.integer({ min: 1, max: 4 });
    const swap = fc.record({ moved: fc.constantFrom(['coil'], ['plug'], ['boot']), from: cylinder, to: cylinder });
    fc.assert(
      fc.property(fc.array(swap as fc.Arbitrary<Omit<Swap, 'test'>>, { maxLength: 6 }), cylinder, (swaps, home) => {
        for (const part of ['coil', 'plug', 'boot'] as const)
          expect(homeAt(engine, swaps, part, placeOf(engine, swaps, part, home))).toBe(home);
      }),
    );
  });

  it('follow the entries of a case: swapped, counted, put back, counted', () => {
    const swap = { moved: ['coil'] as const, from: 4, to: 2 };
    const said = (id: string, one: CaseEntry['said']): CaseEntry => ({ id, said: one });
    const story = storyOf([
      said('a', { kind: 'counts', counts: [{ cylinder: 4, misfires: 150 }] }),
      said('b', { kind: 'swapped', ...swap }),
      said('c', { kind: 'test', test: { test: 'swap', ...swap, outcome: 'moved' } }),
      said('d', { kind: 'counts', counts: [{ cylinder: 2, misfires: 150 }] }),
      said('e', { kind: 'put_back', ...swap }),
      said('f', { kind: 'found', cylinder: 4, word: 'nose_wet' }),
    ]);
    expect(story.counts.map(({ cylinder, after }) => [cylinder, after])).toEqual([
      [4, 0],
      [2, 1],
    ]);
    expect(story.testsDone.map(({ outcome }) => outcome)).toEqual(['moved', null]);
    expect(story.found).toEqual([{ cylinder: 4, word: 'nose_wet', after: 2 }]);
    expect(top({ ...plainCase(), ...story })).toMatchObject({ cylinders: [4] });
  });
});

describe('a cause that stops several cylinders at once is possible from P0300', () => {
  it('gives every shared cause of a distributor a share, with the random code and with single codes beside it', () => {
    const codes = [['P0300'], ['P0300', 'P0302'], ['P0302', 'P0305'], ['P0301', 'P0303', 'P0304', 'P0306']];
    for (const some of codes)
      for (const cause of ['cap', 'rotor', 'coil_lead', 'coil'])
        expect(chance(plainCase({ engine: distributor, codes: some }), cause)).toBeGreaterThan(0.01);
    const shared = ['cap', 'rotor', 'coil_lead', 'coil'].map((cause) =>
      chance(plainCase({ engine: distributor, codes: ['P0300'] }), cause),
    );
    expect(shared.reduce((a, b) => a + b, 0)).toBeGreaterThan(0.35);
  });
});

describe('what was mended and did not cure', () => {
  it('is evidence against, and never proposed again', () => {
    const given = plainCase({ testsDone: [replaced('coil', 2, 'not_cured')] });
    expect(chance(given, 'coil', 2)).toBeLessThan(chance(plainCase(), 'coil', 2) / 5);
    for (const { action, cause, cylinders } of diagnose(given).steps)
      expect([action, cause, cylinders]).not.toEqual(['replace', 'coil', [2]]);
  });

  it('is meant where nobody says what it was: the part that was to be replaced first', () => {
    const atRandom = plainCase({ engine: distributor, codes: ['P0300'] });
    const first = cheapestCure(atRandom, beliefOf(atRandom)).firstPart;
    const vain = plainCase({ engine: distributor, codes: ['P0300'], testsDone: [replaced(null, null, 'not_cured')] });
    expect(first?.cause).toBeTruthy();
    const [at] = first?.cylinders ?? [];
    expect(chance(vain, first?.cause ?? '', at)).toBeLessThan(chance(atRandom, first?.cause ?? '', at) / 5);
    for (const { action, cause, cylinders } of diagnose(vain).steps)
      expect([action, cause, cylinders]).not.toEqual(['replace', first?.cause, first?.cylinders]);
  });

  it('ends in a watch once it is cured, whatever was seen before, until it is counted again', () => {
    const cured = plainCase({
      lamp: 'flashing',
      symptoms: ['load', 'rich_smell'],
      testsDone: [replaced('coil', 2, 'not_cured'), replaced('plug', 2, 'cured')],
    });
    expect(diagnose(cured)).toMatchObject({ driving: 'free', steps: [{ action: 'watch' }] });
    const back = { ...cured, counts: [{ cylinder: 2, per1000: 120, after: 2 }] };
    expect(diagnose(back).driving).toBe('stop');
    expect(diagnose(back).steps[0]?.action).not.toBe('watch');
  });
});

describe('stop driving', () => {
  const driving = (over: Partial<MisfireCase>) => drivingOf(plainCase({ lamp: 'on', ...over })).driving;

  it('goes by the lamp, by counts, by what is smelt and heard, and by what was found', () => {
    expect(driving({})).toBe('free');
    expect(driving({ lamp: 'flashing' })).toBe('stop');
    expect(driving({ counts: [{ cylinder: 3, per1000: HARMS_CATALYST_PER_1000 }] })).toBe('stop');
    expect(driving({ counts: [{ cylinder: 3, per1000: HARMS_CATALYST_PER_1000 - 1 }] })).toBe('to_the_shop');
    expect(driving({ counts: [{ cylinder: 3, per1000: OVER_EMISSIONS_PER_1000 }] })).toBe('free');
    expect(driving({ symptoms: ['rich_smell'] })).toBe('stop');
    expect(driving({ symptoms: ['knocking'] })).toBe('stop');
    expect(driving({ found: [{ cylinder: 1, word: 'insulator_cracked' }] })).toBe('stop');
    expect(driving({ stoppedByFinding: true })).toBe('stop');
  });

  it('goes by the last counts: what was counted before the swap is past', () => {
    const counts = [
      { cylinder: 2, per1000: 400 },
      { cylinder: 2, per1000: 5, after: 1 },
    ];
    const gone: DoneTest = { test: 'swap', moved: ['coil'], from: 2, to: 3, outcome: 'gone' };
    expect(driving({ counts, testsDone: [gone] })).toBe('free');
  });
});

describe('after a visit within 500 km', () => {
  const visit = (kmAgo: number) =>
    plainCase({
      symptoms: ['always'],
      recentWork: [{ kmAgo, touched: ['plug', 'connector'], cylinders: [1, 2, 3, 4] }],
    });

  it('the visit is looked at before any part changes its place', () => {
    const [first] = diagnose(visit(20)).steps;
    expect(first?.test).toMatchObject({ test: 'look', cylinder: 2 });
  });

  it('its suspicion fades with the distance, and is gone at 500 km', () => {
    const at = [0, 100, 250, 400, 499].map((km) => chance(visit(km), 'connector', 2));
    expect([...at].sort((a, b) => b - a)).toEqual(at);
    expect(chance(visit(500), 'connector', 2)).toBeCloseTo(
      chance(plainCase({ symptoms: ['always'] }), 'connector', 2),
      9,
    );
  });

  it('all cylinders soon after a plug job point to the gap or part of that job', () => {
    const job = (over: object) =>
      plainCase({
        codes: ['P0300'],
        symptoms: ['load'],
        recentWork: [{ kmAgo: 30, touched: ['plug', 'connector'], cylinders: [1, 2, 3, 4], ...over }],
      });
    expect(chance(job({}), 'set')).toBeGreaterThan(0.3);
    expect(chance(job({ setInDoubt: true }), 'set')).toBeGreaterThan(0.7);
  });

  it('an idle is to be learnt anew only where the power was off', () => {
    const idle = (touched: 'battery' | 'plug') =>
      plainCase({
        codes: [],
        symptoms: ['idle'],
        recentWork: [{ kmAgo: 10, touched: [touched], cylinders: [1, 2, 3, 4] }],
      });
    expect(chance(idle('battery'), 'relearn')).toBeGreaterThan(5 * chance(idle('plug'), 'relearn'));
  });
});

describe('a compression figure', () => {
  it('of one cylinder low beside normal ones is strong evidence', () => {
    const low: DoneTest = { test: 'compression', component: null, cylinder: 2, outcome: 'low' };
    expect(chance(plainCase({ symptoms: ['idle'], testsDone: [low] }), 'mechanical', 2)).toBeGreaterThan(0.85);
  });
});

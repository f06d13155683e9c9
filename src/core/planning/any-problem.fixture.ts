import fc from 'fast-check';
import { addDays } from '../calendar/plain-date';
import type { DayWindow, PlanJob, PlanProblem } from './plan-problem';

const MONDAY = '2027-03-01';
const SKILLS = ['hybrid', 'gas'];
const DEPOTS = ['N', 'E'];

const windowOn = (day: string): fc.Arbitrary<DayWindow> =>
  fc
    .tuple(fc.integer({ min: 40, max: 60 }), fc.integer({ min: 10, max: 60 }))
    .map(([from, length]) => ({ day, fromMin: from * 10, toMin: (from + length) * 10 }));

/** When something is there: on most days, once or twice. */
const presence = (days: readonly string[]): fc.Arbitrary<readonly DayWindow[]> =>
  fc.tuple(...days.map((day) => fc.array(windowOn(day), { minLength: 0, maxLength: 2 }))).map((lists) => lists.flat());

const some = (words: readonly string[]): fc.Arbitrary<string[]> => fc.subarray([...words]);

/** A small problem with everything in it that a problem can have. @param most.hasDayRules false: without ways between depots and breaks */
export const anyProblem = (most: {
  readonly jobs: number;
  readonly days: number;
  readonly hasDayRules?: boolean;
}): fc.Arbitrary<PlanProblem> =>
  fc.integer({ min: 1, max: most.days }).chain((n) => {
    const days = Array.from({ length: n }, (_, i) => addDays(MONDAY, i));
    const money = fc.integer({ min: 0, max: 300 });
    const job = fc.record({
      depot: fc.constantFrom(...DEPOTS),
      minutes: fc.integer({ min: 2, max: 24 }).map((tens) => tens * 10),
      needsSkills: fc.oneof({ weight: 3, arbitrary: fc.constant<string[]>([]) }, some(SKILLS)),
      needsBay: fc.oneof({ weight: 3, arbitrary: fc.constant<string[]>([]) }, some(SKILLS)),
      allowed: fc.option(presence(days), { freq: 2 }),
      kitFrom: fc.option(fc.constantFrom(...days), { freq: 2 }),
      kitFromMin: fc.constantFrom(0, 0, 540, 720),
      coolFromMin: fc.option(
        fc.integer({ min: 40, max: 70 }).map((tens) => tens * 10),
        { freq: 2 },
      ),
      costByDay: fc.array(money, { minLength: n, maxLength: n }),
      costUnplanned: fc.integer({ min: 100, max: 500 }),
      pin: fc.constant(null),
      was: fc.constant(null),
    });
    const dayRules = fc.record(
      {
        travelMin: fc.integer({ min: 5, max: 120 }).map((minutes) => ({ N: { E: minutes } })),
        breaks: fc
          .tuple(fc.constantFrom(15, 30, 60), fc.integer({ min: 50, max: 70 }), fc.integer({ min: 6, max: 24 }))
          .map(([minutes, from, length]) => ({ minutes, fromMin: from * 10, toMin: (from + length) * 10 })),
      },
      { requiredKeys: [] },
    );
    const rest = fc.record({
      days: fc.constant(days),
      bays: fc
        .array(fc.record({ depot: fc.constantFrom(...DEPOTS), can: some(SKILLS), open: presence(days) }), {
          maxLength: 3,
        })
        .map((list) => list.map((bay, i) => ({ ...bay, id: `B${i + 1}` }))),
      people: fc
        .array(fc.record({ depots: fc.subarray([...DEPOTS]), skills: some(SKILLS), shift: presence(days) }), {
          maxLength: 3,
        })
        .map((list) => list.map((person, i) => ({ ...person, id: `P${i + 1}` }))),
      jobs: fc
        .array(job, { maxLength: most.jobs })
        .map((list): PlanJob[] => list.map((one, i) => ({ ...one, id: `J${i + 1}` }))),
      moveCost: fc.constantFrom(0, 20),
      seconds: fc.constant(1),
      seed: fc.integer({ min: 1, max: 1000 }),
    });
    return fc
      .tuple(rest, most.hasDayRules === false ? fc.constant({}) : dayRules)
      .map(([one, rules]) => ({ ...one, ...rules }));
  });

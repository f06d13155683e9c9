import { cheapestCure, partOf } from './cure';
import type { DoneTest, MisfireCase } from './misfire-case';
import { beliefOf } from './posterior';

/**
 * The case with a name for each replacement of which nobody said what was replaced: it was the part that was to be replaced
 * first by what was known then, in its cylinder where one is named. So what was mended in vain speaks against that part, and is not proposed again.
 */
export function withNamedParts(given: MisfireCase): MisfireCase {
  const isUnnamed = (test: DoneTest): boolean => test.test === 'replace' && test.component === null;
  if (!given.testsDone.some(isUnnamed)) return given;
  const named: DoneTest[] = [];
  for (const test of given.testsDone) {
    const before = [...named];
    if (test.test === 'swap' || !isUnnamed(test)) {
      named.push(test);
      continue;
    }
    const then = {
      ...given,
      testsDone: before,
      counts: given.counts.filter(({ after = 0 }) => after <= before.length),
    };
    const { firstPart: first } = cheapestCure(then, beliefOf(then));
    const isThere = first && (test.cylinder === null || first.cylinders.includes(test.cylinder));
    const alone = first?.cylinders.length === 1 ? (first.cylinders[0] ?? null) : null;
    named.push({
      ...test,
      component: isThere ? partOf(first.cause) : 'plug',
      cylinder: test.cylinder ?? alone,
    });
  }
  return { ...given, testsDone: named };
}

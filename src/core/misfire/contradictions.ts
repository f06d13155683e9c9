import { codedCylinder, testKey } from './evidence';
import { cylindersOf, type MisfireCase } from './misfire-case';

/** A count that is so much below the highest does not go with a code. */
const HARDLY = 0.25;

/** What was said that cannot all be so; it is shown, and swallowed nowhere. */
export function contradictionsOf(given: MisfireCase): readonly string[] {
  return [...notThere(given), ...wordsAgainstCodes(given), ...codesAgainstCounts(given), ...againstEachOther(given)];
}

/** Cylinders that the engine does not have. */
function notThere({ engine, codes, counts, spoken, found, testsDone, recentWork }: MisfireCase): readonly string[] {
  const all = cylindersOf(engine);
  const named: readonly (readonly [string, readonly number[]])[] = [
    ...codes.map((code) => [`code ${code}`, listed(codedCylinder(code))] as const),
    ['the counts', counts.map(({ cylinder }) => cylinder)],
    ['what was said', spoken],
    ['what was found', found.map(({ cylinder }) => cylinder)],
    ['the work before', recentWork.flatMap(({ cylinders }) => cylinders)],
    ...testsDone.map(
      (test) => ['a test', test.test === 'swap' ? [test.from, test.to] : listed(test.cylinder)] as const,
    ),
  ];
  return named.flatMap(([what, cylinders]) =>
    [...new Set(cylinders)]
      .filter((cylinder) => !all.includes(cylinder))
      .map((cylinder) => `${what}: names cylinder ${cylinder}, and the engine has ${all.length}`),
  );
}

const listed = (cylinder: number | null): readonly number[] => (cylinder === null ? [] : [cylinder]);

/** Cylinders named in words, of which no code knows. */
function wordsAgainstCodes({ codes, spoken }: MisfireCase): readonly string[] {
  const coded = codes.flatMap((code) => codedCylinder(code) ?? []);
  if (coded.length === 0 || spoken.length === 0 || spoken.some((cylinder) => coded.includes(cylinder))) return [];
  const list = (cylinders: readonly number[]): string => [...new Set(cylinders)].sort((a, b) => a - b).join(' and ');
  return [`said in words: cylinder ${list(spoken)}; by the codes: cylinder ${list(coded)}`];
}

function codesAgainstCounts({ codes, counts }: MisfireCase): readonly string[] {
  const most = Math.max(0, ...counts.map(({ per1000 }) => per1000));
  if (most === 0) return [];
  const highest = counts.find(({ per1000 }) => per1000 === most)?.cylinder;
  return codes.flatMap((code) => {
    const cylinder = codedCylinder(code);
    const counted = counts.find((count) => count.cylinder === cylinder)?.per1000 ?? 0;
    return cylinder !== null && cylinder !== highest && counted < most * HARDLY
      ? [`code ${code} names cylinder ${cylinder}, and the counts are highest in ${highest}`]
      : [];
  });
}

/** Tests of one thing that say different things, and two parts that both took the misfire with them. */
function againstEachOther({ testsDone }: MisfireCase): readonly string[] {
  const twice = testsDone.flatMap((test, i) =>
    testsDone
      .slice(i + 1)
      .filter((other) => testKey(other) === testKey(test) && other.outcome !== test.outcome)
      .map((other) => `the same test said ${test.outcome} and ${other.outcome}`.replaceAll('_', ' ')),
  );
  const moved = testsDone.flatMap((test) =>
    test.test === 'swap' && test.outcome === 'moved' ? [{ parts: test.moved, from: test.from }] : [],
  );
  const both = moved.flatMap((move, i) =>
    moved
      .slice(i + 1)
      .filter((other) => other.from === move.from && !other.parts.some((part) => move.parts.includes(part)))
      .map(
        (other) =>
          `the misfire of cylinder ${move.from} went with the ${move.parts.join(' and ')} and with the ${other.parts.join(' and ')}: two causes, or one swap was misread`,
      ),
  );
  return [...new Set([...twice, ...both])];
}

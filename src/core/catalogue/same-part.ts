import { partKey } from './match';
import type { SupersessionGraph } from './supersession';

/** Keys of all the numbers that are one part with this one: itself and what it was renumbered from and to. */
export const sameNumbers = (number: string, graph: SupersessionGraph): readonly string[] => [
  ...graph.sameParts(partKey(number)),
];

/**
 * Whether a number read off a part is another part than the one on record. A renumbering is the same part. Plain data in,
 * so that a device judges as the desk does.
 *
 * @param found as read; null: not read @param expected keys as `sameNumbers` gives them; null: the record names none
 * @returns null where one of the two is not known
 */
export function isAnotherPart(observed: string | null, expected: readonly string[] | null): boolean | null {
  return observed === null || expected === null ? null : !expected.includes(partKey(observed));
}

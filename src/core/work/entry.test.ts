import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Entry, type Fields, type Json, mergeEntry, sameJson, withEntries } from './entry';

const entry = (over: Partial<Entry>): Entry => ({
  id: 'e',
  target: 'site 1A',
  field: 'newGap',
  value: '1.04 mm',
  base: null,
  at: '2026-11-16T10:00:00Z',
  ...over,
});
const scalar = fc.oneof(fc.string(), fc.integer(), fc.boolean(), fc.constant(null));
const conditions = fc.dictionary(
  fc.constantFrom('nose tan', 'nose white', 'ash', 'well dry'),
  fc.constantFrom(1, 2, 3),
);

/** Puts entries into one field in the order given and tells what is left of each. */
function play(start: Json, entries: readonly Pick<Entry, 'base' | 'value'>[]) {
  let current = start;
  const differing: Json[] = [];
  for (const one of entries) {
    const merged = mergeEntry(current, one);
    if (merged.kind === 'kept') current = merged.value;
    if (merged.kind === 'differs') differing.push(one.value);
  }
  return { current, differing };
}

describe('mergeEntry', () => {
  it('keeps what the device knew the ground of, and shows what it did not', () => {
    expect(mergeEntry(null, entry({}))).toEqual({ kind: 'kept', value: '1.04 mm' });
    expect(mergeEntry('1.04 mm', entry({}))).toEqual({ kind: 'same' });
    expect(mergeEntry('1.08 mm', entry({}))).toEqual({ kind: 'differs', current: '1.08 mm' });
    expect(mergeEntry('1.08 mm', entry({ base: '1.08 mm' }))).toEqual({ kind: 'kept', value: '1.04 mm' });
  });

  it('never loses a word: after any two entries on one field both stand, in force or side by side', () => {
    fc.assert(
      fc.property(scalar, scalar, scalar, (start, a, b) => {
        for (const [first, second] of [
          [a, b],
          [b, a],
        ] as const) {
          const { current, differing } = play(start, [
            { base: start, value: first },
            { base: start, value: second },
          ]);
          for (const said of [first, second])
            if (!sameJson(said, start)) expect([current, ...differing].some((v) => sameJson(v, said))).toBe(true);
        }
      }),
    );
  });

  it('takes the same entry twice as once, at once or later', () => {
    fc.assert(
      fc.property(fc.oneof(scalar, conditions), fc.oneof(scalar, conditions), (start, value) => {
        const once = play(start, [{ base: start, value }]);
        expect(
          play(start, [
            { base: start, value },
            { base: start, value },
          ]),
        ).toEqual(once);
      }),
    );
  });

  it('lets two people add to one plug: the union, whoever comes first', () => {
    fc.assert(
      fc.property(conditions, conditions, conditions, (start, mine, theirs) => {
        const both = [
          { base: start, value: { ...start, ...mine } },
          { base: start, value: { ...start, ...theirs } },
        ];
        const [one, other] = [play(start, both), play(start, both.toReversed())];
        expect(one.differing).toEqual([]);
        const names = (json: Json): string[] => Object.keys(json as object).sort();
        expect(names(one.current)).toEqual(names({ ...start, ...mine, ...theirs }));
        expect(names(other.current)).toEqual(names(one.current));
      }),
    );
  });

  it('takes away what a person took away, and only that', () => {
    const start = { 'nose tan': 2, ash: 1 };
    const merged = mergeEntry({ ...start, 'well dry': 2 }, { base: start, value: { 'nose tan': 2 } });
    expect(merged).toEqual({ kind: 'kept', value: { 'nose tan': 2, 'well dry': 2 } });
  });
});

describe('withEntries', () => {
  it('lays over the record what is not yet sent, in its order, and touches nothing else', () => {
    const record: Record<string, Fields> = { 'site 1A': { newGap: null, remark: 'x' }, 'site 2A': { newGap: '1.1' } };
    const seen = withEntries(record, [entry({ value: '1.0' }), entry({ base: '1.0', value: '1.04' })]);
    expect(seen).toEqual({ 'site 1A': { newGap: '1.04', remark: 'x' }, 'site 2A': { newGap: '1.1' } });
    expect(record['site 1A']?.newGap).toBeNull();
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { restingCylinders, restingFromText, restingText } from './resting';

const family = { variants: ['with deactivation', 'without deactivation'], cylinders: [1, 2, 3, 4, 5, 6] };
const read = (text: string) => {
  const result = restingFromText(text, family);
  return result.ok ? result.value : result.error;
};

describe('cylinders that rest', () => {
  it('belong to a variant, or to all of them', () => {
    const list = read('with deactivation: 5 1, 3');
    expect(list).toEqual([{ variant: 'with deactivation', cylinders: [1, 3, 5] }]);
    if (typeof list === 'string') return;
    expect(restingCylinders(list, 'with deactivation')).toEqual([1, 3, 5]);
    expect(restingCylinders(list, 'without deactivation')).toEqual([]);
    expect(restingCylinders(list, null)).toEqual([]);
    expect(restingCylinders([{ variant: null, cylinders: [2, 4] }], null)).toEqual([2, 4]);
  });

  it.each([
    ['with deactivation', /cannot be read/],
    ['with deactivation:', /cannot be read/],
    ['sometimes: 1 3', /none of the variants/],
    ['1 7', /cylinder 7/],
    ['1 2 3 4 5 6', /never rests all/],
    ['1 3 | 2 4', /twice/],
  ])('refuses “%s” and says why', (text, why) => {
    expect(read(text)).toMatch(why);
  });

  it('are read back as they are written', () => {
    const cylinders = fc.subarray(family.cylinders, { minLength: 1, maxLength: 5 });
    const lists = fc
      .record({ all: fc.option(cylinders), some: fc.option(cylinders) })
      .map(({ all, some }) => [
        ...(some ? [{ variant: 'with deactivation', cylinders: some }] : []),
        ...(all ? [{ variant: null, cylinders: all }] : []),
      ]);
    fc.assert(
      fc.property(lists, (list) => {
        expect(read(restingText(list))).toEqual(list);
      }),
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isAnotherPart, sameNumbers } from './same-part';
import { SupersessionGraph } from './supersession';

const edge = (from: string, to: string, kind: 'renumbered' | 'redesigned') => ({ from, to, kind, note: null });

describe('isAnotherPart', () => {
  const graph = new SupersessionGraph([edge('EM7301', 'EM7310', 'renumbered'), edge('EM7310', 'EM7400', 'redesigned')]);
  it('takes a renumbering for the same part, however it is written, and a redesign for another', () => {
    const expected = sameNumbers('EM-7301', graph);
    expect(isAnotherPart('em 7310', expected)).toBe(false);
    expect(isAnotherPart('EM-7301', expected)).toBe(false);
    expect(isAnotherPart('EM-7400', expected)).toBe(true);
    expect(isAnotherPart('EM-73O1', expected)).toBe(true);
  });

  it('cannot tell where one of the two is not known', () => {
    expect(isAnotherPart(null, ['A'])).toBeNull();
    expect(isAnotherPart('A', null)).toBeNull();
  });

  it('is symmetric over any chain of renumberings', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 8 }), fc.nat(7), fc.nat(7), (length, i, j) => {
        const names = Array.from({ length }, (_, n) => `P${n}`);
        const chain = new SupersessionGraph(names.slice(1).map((to, n) => edge(`P${n}`, to, 'renumbered')));
        const [a, b] = [`P${i % length}`, `P${j % length}`];
        expect(isAnotherPart(a, sameNumbers(b, chain))).toBe(false);
        expect(isAnotherPart(b, sameNumbers(a, chain))).toBe(false);
      }),
    );
  });
});

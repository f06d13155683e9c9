import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WEAK_POINT_KINDS, weakPointFromText, weakPointText } from './weak-points';

describe('a weak point', () => {
  it.each([
    ['long shields seize', { kind: 'seizing', says: 'long shields seize' }],
    ['brittle intake duct', { kind: 'intake', says: 'brittle intake duct' }],
    ['brittle connector tabs', { kind: 'brittle', says: 'brittle connector tabs' }],
    ['brittle: duct of the heater', { kind: 'brittle', says: 'duct of the heater' }],
    ['other: plugs never seize', { kind: 'other', says: 'plugs never seize' }],
    ['note: nothing known', { kind: 'other', says: 'note: nothing known' }],
  ])('%j is read once, by its kind or its words', (text, expected) => {
    expect(weakPointFromText(text)).toEqual(expected);
  });

  it('comes back the same from its own text, whatever its words say', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...WEAK_POINT_KINDS),
        fc.constantFrom('seized duct', 'brittle', 'a: b'),
        (kind, says) => {
          expect(weakPointFromText(weakPointText({ kind, says }))).toEqual({ kind, says });
        },
      ),
    );
  });
});

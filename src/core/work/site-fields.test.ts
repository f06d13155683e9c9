import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Json } from './entry';
import { allNormal, isSiteField, isSiteQuantity, SITE_FIELDS, siteRecord } from './site-fields';
import { answerField, countTarget, ORDER_TARGET, readTarget, siteTarget, stepTarget } from './targets';

const json = fc.jsonValue() as fc.Arbitrary<Json>;

describe('siteRecord', () => {
  it('reads nothing out of what is no text, not even how it would print', () => {
    expect(siteRecord({ remark: { toString: '' }, newGap: [1] })).toMatchObject({ remark: '', newGap: '' });
  });

  it('is whole whatever the fields hold, and takes nothing for what it is not', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...Object.keys(SITE_FIELDS), '__proto__', 'x'), json), (fields) => {
        const record = siteRecord(fields);
        expect(Object.keys(record)).toEqual(Object.keys(SITE_FIELDS));
        expect(typeof record.newGap).toBe('string');
        expect(typeof record.done).toBe('boolean');
        expect([null, 'wrench', 'angle', 'feel']).toContain(record.torqueMethod);
        expect(Object.values(record.seen).every((severity) => [1, 2, 3].includes(severity))).toBe(true);
      }),
    );
  });

  it('gives back what was recorded', () => {
    const fields = {
      newGap: '1.05 mm',
      seen: { 'nose tan': 2, 'no such word': 2, ash: 9 },
      breakawayFeel: 'tight',
      torqueMethod: 'by moon',
      soakedAt: '2026-11-16T08:00:00Z',
      done: true,
      curve: { points: [[0, 1]], verdict: 'done', fault: null, peakNm: 17.5, contactDeg: 200, source: 'TW-1' },
    };
    expect(siteRecord(fields)).toMatchObject({
      newGap: '1.05 mm',
      seen: { 'nose tan': 2 },
      breakawayFeel: 'tight',
      torqueMethod: null,
      soakedAt: '2026-11-16T08:00:00Z',
      done: true,
      curve: { peakNm: 17.5 },
    });
    expect(siteRecord({ curve: { points: 'none' } }).curve).toBeNull();
  });
});

describe('the table of fields', () => {
  it('tells a quantity from a text, and its own fields from what every object has', () => {
    expect(['newGap', 'installedTorque', 'breakawayTorque'].every(isSiteQuantity)).toBe(true);
    expect(['newLot', 'done', 'toString', '__proto__', ''].some(isSiteQuantity)).toBe(false);
    expect(['toString', 'constructor', 'hasOwnProperty'].some(isSiteField)).toBe(false);
    expect(Object.values(SITE_FIELDS).every(({ says }) => says.length > 3)).toBe(true);
  });

  it('has no gasket on a conical seat', () => {
    expect('gasket present' in allNormal('gasket')).toBe(true);
    expect('gasket present' in allNormal('conical')).toBe(false);
  });
});

describe('readTarget', () => {
  it('reads back what the makers of targets write', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 12 }), (key) => {
        expect(readTarget(siteTarget(key))).toEqual({ kind: 'site', key });
        expect(readTarget(stepTarget(key))).toEqual({ kind: 'step', key });
        expect(readTarget(countTarget(key))).toEqual({ kind: 'count', key });
      }),
    );
    expect(readTarget(ORDER_TARGET)).toEqual({ kind: 'order', key: '' });
    expect(readTarget('cap 1').kind).toBeNull();
    expect(answerField('idle')).toBe('answer.idle');
  });
});

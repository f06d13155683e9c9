import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Json } from './entry';
import {
  allNormal,
  crackedRegion,
  hasField,
  isPlaceField,
  isPlaceQuantity,
  normalFor,
  PLACE_FIELDS,
  placeRecord,
} from './place-fields';
import {
  answerField,
  countTarget,
  ORDER_TARGET,
  placeTarget,
  readPlaceTarget,
  readTarget,
  stepTarget,
} from './targets';
import { TASK_COMPONENTS } from './task';

const json = fc.jsonValue() as fc.Arbitrary<Json>;

describe('a crack of the insulator', () => {
  it.each([
    [{ 'nose tan': 2 }, undefined],
    [{ 'nose tan': 2, 'nose cracked': 1 }, 'nose'],
    [{ 'insulator cracked': 3 }, 'insulator'],
  ] as const)('is asked about where it was seen: %j', (seen, region) => {
    expect(crackedRegion(seen)).toBe(region);
  });
});

describe('placeRecord', () => {
  it('reads nothing out of what is no text, not even how it would print', () => {
    expect(placeRecord({ remark: { toString: '' }, newGap: [1] })).toMatchObject({ remark: '', newGap: '' });
  });

  it('is whole whatever the fields hold, and takes nothing for what it is not', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...Object.keys(PLACE_FIELDS), '__proto__', 'x'), json), (fields) => {
        const record = placeRecord(fields);
        expect(Object.keys(record)).toEqual(Object.keys(PLACE_FIELDS));
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
    expect(placeRecord(fields)).toMatchObject({
      newGap: '1.05 mm',
      seen: { 'nose tan': 2 },
      breakawayFeel: 'tight',
      torqueMethod: null,
      soakedAt: '2026-11-16T08:00:00Z',
      done: true,
      curve: { peakNm: 17.5 },
    });
    expect(placeRecord({ curve: { points: 'none' } }).curve).toBeNull();
  });
});

describe('the table of fields', () => {
  it('tells a quantity from a text, and its own fields from what every object has', () => {
    expect(['newGap', 'installedTorque', 'breakawayTorque'].every(isPlaceQuantity)).toBe(true);
    expect(['newLot', 'done', 'toString', '__proto__', ''].some(isPlaceQuantity)).toBe(false);
    expect(['toString', 'constructor', 'hasOwnProperty'].some(isPlaceField)).toBe(false);
    expect(Object.values(PLACE_FIELDS).every(({ says }) => says.length > 3)).toBe(true);
  });

  it('has no gasket on a conical seat', () => {
    expect('gasket present' in allNormal('gasket', 'coil_on_plug')).toBe(true);
    expect('gasket present' in allNormal('conical', 'coil_on_plug')).toBe(false);
  });

  it('says of what stands above the plug what this engine has', () => {
    expect([...Object.keys(allNormal('gasket', 'coil_rail'))]).toContain('coil sound');
    expect([...Object.keys(allNormal('gasket', 'distributor'))]).toContain('lead sound');
  });

  it('gives each component its own fields and one press of words for a sound one', () => {
    expect([hasField('coil', 'tagIn'), hasField('cap', 'tagIn'), hasField('coil', 'newGap')]).toEqual([
      true,
      false,
      false,
    ]);
    expect(hasField('plug', 'toString')).toBe(false);
    for (const component of TASK_COMPONENTS) expect(Object.keys(normalFor(component)).length).toBeGreaterThan(0);
  });
});

describe('readTarget', () => {
  it('reads back what the makers of targets write', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 12 }), (key) => {
        for (const component of TASK_COMPONENTS) {
          expect(readTarget(placeTarget(component, key))).toEqual({ kind: 'place', key });
          expect(readPlaceTarget(placeTarget(component, key))).toEqual({ component, id: key });
        }
        expect(readPlaceTarget(stepTarget(key))).toBeNull();
        expect(readTarget(stepTarget(key))).toEqual({ kind: 'step', key });
        expect(readTarget(countTarget(key))).toEqual({ kind: 'count', key });
      }),
    );
    expect(readTarget(ORDER_TARGET)).toEqual({ kind: 'order', key: '' });
    expect(readTarget('lid 1').kind).toBeNull();
    expect(readTarget('plug 1').kind).toBeNull();
    expect(answerField('idle')).toBe('answer.idle');
  });
});

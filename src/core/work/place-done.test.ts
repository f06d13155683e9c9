import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { personUnits } from '../units/person-units';
import { plugRules as rules } from './order-model.fixture';
import { placeFaults, readPlaceQuantity } from './place-done';
import { type PlaceRecord, placeRecord } from './place-fields';

const texts = (over: Partial<PlaceRecord> = {}): PlaceRecord => ({
  ...placeRecord({ newNumber: 'em-7310', newGap: '1.05', torqueMethod: 'wrench', installedTorque: '17.5' }),
  ...over,
});
const stopped = { points: [], verdict: 'stop', fault: null, peakNm: 9, contactDeg: null, source: 'TW-1' } as const;
const nothing = { newGapMm: null, installedTorqueNm: null, primaryOhm: null, secondaryOhm: null, ohm: null };
const figures = { ...nothing, newGapMm: 1.05, installedTorqueNm: 17.5 };
const faults = (over: Partial<PlaceRecord>, figs: Partial<typeof figures> = {}, fitted: string[] = [], over2 = {}) =>
  placeFaults(texts(over), { ...figures, ...figs }, 'replace', { ...rules, ...over2 }, fitted);

describe('placeFaults at a plug', () => {
  it('is empty for the right part, gap and torque, whatever the old plug was', () => {
    expect(faults({})).toEqual({});
    expect(faults({ newNumber: 'EM 7301', observedNumber: 'FS-1', removedGap: '1.4' })).toEqual({});
  });

  it('names what is missing or wrong at its field', () => {
    expect(Object.keys(faults({ newNumber: '', newGap: '', torqueMethod: null }))).toEqual([
      'newNumber',
      'newGap',
      'torqueMethod',
    ]);
    expect(faults({ newNumber: 'KM-1' }).newNumber).toContain('This engine takes EM-7310');
    expect(faults({ installedTorque: '' }).installedTorque).toContain('Record the torque');
    expect(faults({}, { installedTorqueNm: 24 }).installedTorque).toContain('Loosen it');
    expect(faults({ torqueMethod: 'angle', installedTorque: '' })).toEqual({});
  });

  it('never mixes a redesign with what is fitted already, and takes a whole set of it', () => {
    expect(faults({ newNumber: 'EM-7311' }, {}, ['EM7310']).newNumber).toContain('never mixed');
    expect(faults({ newNumber: 'EM-7300' }, {}, ['EM7310']).newNumber).toContain('never mixed');
    expect(faults({ newNumber: 'EM-7311' }, {}, ['EM7311'])).toEqual({});
  });

  it('lets torque and compound agree', () => {
    expect(faults({ compound: 'nickel' }).compound).toContain('for dry threads');
    expect(faults({}, {}, [], { lubricant: 'anti_seize' }).compound).toContain('lowered for compound');
  });

  it('holds where the wrench said stop, until somebody says what was found', () => {
    expect(faults({ curve: stopped }).curve).toContain('said stop');
    expect(faults({ curve: stopped, remark: 'thread inserted' })).toEqual({});
  });

  it('takes every gap of the sheet and none beyond what may be bent', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 1.9, noNaN: true }), (mm) => {
        const fault = faults({}, { newGapMm: Number(mm.toFixed(2)) }).newGap;
        const rounded = Number(mm.toFixed(2));
        expect(fault === undefined).toBe(rounded >= 1 && rounded <= 1.1);
      }),
    );
  });
});

describe('readPlaceQuantity', () => {
  const metric = personUnits('metric');

  it('reads a bare figure in the person’s unit, and says what a slip may be instead', () => {
    expect(readPlaceQuantity('plug', 'newGap', '1,05', metric)).toEqual({ ok: true, value: 1.05 });
    expect(readPlaceQuantity('plug', 'newGap', '', metric)).toEqual({ ok: true, value: null });
    const slip = readPlaceQuantity('plug', 'newGap', '0.30 in', metric);
    expect(slip.ok).toBe(false);
    if (!slip.ok) expect(slip.suggestions.map(({ text }) => text)).toContain('0.030 in = 0.76 mm');
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { personUnits } from '../units/person-units';
import { plugRules as rules } from './order-model.fixture';
import { isResistanceInRange, ohmRange, type PartRules, placeFaults, readPlaceQuantity } from './place-done';
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
    expect(faults({ compound: 'nickel compound' }).compound).toContain('for dry threads');
    const greased = { lubricant: 'anti_seize' } as const;
    expect(faults({}, {}, [], greased).compound).toContain('lowered for compound');
    expect(faults({ compound: 'copper compound' }, {}, [], greased).compound).toContain('corrodes an aluminium head');
    expect(faults({ compound: 'copper compound' }, {}, [], { ...greased, head: 'iron' }).compound).toBeUndefined();
    expect(faults({ compound: 'other compound' }, {}, [], greased).compound).toContain('which compound');
    expect(faults({ compound: 'other compound', remark: 'graphite' }, {}, [], greased).compound).toBeUndefined();
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

describe('placeFaults at another part', () => {
  const coil: PartRules = {
    component: 'coil',
    partNumber: 'NL-3806',
    accepted: [['NL3806']],
    family: ['NL3806'],
    differs: {},
    torqueNm: { min: 8, max: 10 },
    primaryOhm: { min: 0.6, max: 0.8 },
    secondaryOhm: { min: 8000, max: 12_000 },
    ohm: null,
    maxOhmPerMetre: null,
    leads: [],
  };
  const done = placeRecord({ newNumber: 'nl 3806', torqueMethod: 'wrench', installedTorque: '9 N·m' });
  const at = { ...nothing, installedTorqueNm: 9 };

  it('takes the right part with the torque of its screw, and no gap', () => {
    expect(placeFaults(done, at, 'replace', coil, [])).toEqual({});
    expect(placeFaults(done, { ...at, installedTorqueNm: 22 }, 'replace', coil, []).installedTorque).toContain(
      'the torque of its screw',
    );
    expect(Object.keys(placeFaults(placeRecord({}), nothing, 'replace', coil, []))).toEqual([
      'newNumber',
      'torqueMethod',
    ]);
    expect(
      placeFaults(placeRecord({ newNumber: 'X' }), nothing, 'replace', { ...coil, partNumber: null }, []).newNumber,
    ).toContain('No sheet says which coil');
  });

  it('asks of a look what was seen, of a test what was measured, and of both what came of it', () => {
    expect(Object.keys(placeFaults(placeRecord({}), nothing, 'inspect', coil, []))).toEqual(['seen', 'result']);
    const seen = placeRecord({ seen: { 'coil sound': 2 }, result: 'good' });
    expect(placeFaults(seen, nothing, 'inspect', coil, [])).toEqual({});
    expect(Object.keys(placeFaults(placeRecord({ result: 'good' }), nothing, 'test', coil, []))).toEqual(['seen']);
    expect(placeFaults(placeRecord({ result: 'bad' }), { ...nothing, primaryOhm: 0.1 }, 'test', coil, [])).toEqual({});
    // Replaced on the spot, it is held to what any new part is.
    const spot = placeFaults(
      placeRecord({ seen: { 'coil sound': 2 }, result: 'replaced' }),
      nothing,
      'inspect',
      coil,
      [],
    );
    expect(Object.keys(spot)).toEqual(['newNumber', 'torqueMethod']);
  });

  it('asks of a plug that goes back its torque and for how much longer it is good', () => {
    const back = placeRecord({ seen: { 'nose tan': 2 }, result: 'good', torqueMethod: 'angle' });
    expect(Object.keys(placeFaults(back, nothing, 'inspect', rules, []))).toEqual(['goodFor']);
    expect(placeFaults({ ...back, goodFor: '30,000 km' }, nothing, 'inspect', rules, [])).toEqual({});
  });

  it('reads a small torque where a screw is meant, and a winding in ohms', () => {
    const metric = personUnits('metric');
    expect(readPlaceQuantity('coil', 'installedTorque', '4.5 N·m', metric)).toEqual({ ok: true, value: 4.5 });
    expect(readPlaceQuantity('cap', 'installedTorque', '44 lbf·in', metric)).toEqual({ ok: true, value: 4.97 });
    expect(readPlaceQuantity('plug', 'installedTorque', '4.5 N·m', metric).ok).toBe(false);
    expect(readPlaceQuantity('coil', 'primaryOhm', '0,7', metric)).toEqual({ ok: true, value: 0.7 });
    expect(readPlaceQuantity('coil', 'secondaryOhm', '9.8', metric)).toEqual({ ok: true, value: 9800 });
    expect(readPlaceQuantity('lead', 'ohm', 'OL', metric)).toEqual({ ok: true, value: 1e9 });
    expect(readPlaceQuantity('coil', 'primaryOhm', '700 Ω', metric).ok).toBe(false);
  });

  it('judges a resistance by its sheet, and a lead by its length', () => {
    expect([0.6, 0.8, 0.5, 1e9].map((ohm) => isResistanceInRange(ohm, coil.primaryOhm))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    expect(isResistanceInRange(0.7, null)).toBeNull();
    const lead: PartRules = { ...coil, component: 'lead', maxOhmPerMetre: 16_000 };
    expect(ohmRange(lead, 500)).toEqual({ min: 0, max: 8000 });
    expect([ohmRange(lead, null), ohmRange({ ...lead, ohm: { min: 1, max: 2 } }, 500)]).toEqual([
      null,
      { min: 1, max: 2 },
    ]);
  });
});

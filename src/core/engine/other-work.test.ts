import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Km } from '../shared/kinds';
import { BANK_PLACES } from './model';
import { hasHazard, otherWorkFromText, otherWorkText, WORK_KINDS, workKindName, workKindNamed } from './other-work';

describe('other work', () => {
  it.each([
    ['air filter: 40000 km, 24 months, 10 min', { everyKm: 40_000, everyMonths: 24, minutes: 10, behind: null }],
    ['drive belt: 60,000 mi, 45 min, front bank', { everyKm: 96_561, everyMonths: null, minutes: 45, behind: 'front' }],
    ['coolant, new: coolant, 60 months, 50 min', { everyMonths: 60, what: 'coolant, new', kind: 'coolant' }],
    ['Petrol filter: 20000 km, 20 min', { kind: 'fuel_filter', what: 'Petrol filter' }],
    ['injector rail: 90000 km, 60 min', { kind: 'injectors' }],
    ['petrol strainer: fuel filter, 20000 km, 20 min', { kind: 'fuel_filter' }],
  ])('%j is read', (text, expected) => {
    expect(otherWorkFromText(text)).toMatchObject({ ok: true, value: [expected] });
  });

  it.each([
    ['air filter: 10 min', 'no interval'],
    ['air filter: 40000 km', 'needs its minutes'],
    ['air filter: often, 10 min', '“often” cannot be read'],
    ['air filter: 40 km, 10 min', '“40 km” cannot be read'],
    ['40000 km, 10 min', 'cannot be read'],
    ['belt: 24 months, 9 min | belt: 12 months, 9 min', 'twice'],
    ['petrol strainer: 20000 km, 20 min', 'Name its kind after the colon'],
  ])('%j is refused', (text, words) => {
    const read = otherWorkFromText(text);
    expect(read.ok ? '' : read.error).toContain(words);
  });

  it('has one kind a name, and fuel work is fuel work under each of its names', () => {
    for (const kind of WORK_KINDS) expect(workKindNamed(workKindName(kind).toUpperCase())).toBe(kind);
    const fuel = ['petrol filter', 'injector rail', 'fuel hose', 'intake manifold gaskets'];
    for (const name of fuel) expect(hasHazard([{ kind: workKindNamed(name) ?? 'general' }], 'fuel')).toBe(true);
    expect(hasHazard([{ kind: 'air_filter' }, { kind: 'general' }], 'fuel')).toBe(false);
  });

  it('comes back the same from its own text', () => {
    const one = fc.record({
      what: fc.constantFrom('air filter', 'drive belt', 'coolant: both circuits'),
      kind: fc.constantFrom(...WORK_KINDS),
      everyKm: fc.option(fc.integer({ min: 100, max: 1_000_000 }).map((km) => km as Km)),
      everyMonths: fc.option(fc.integer({ min: 1, max: 240 })),
      minutes: fc.integer({ min: 1, max: 600 }),
      behind: fc.option(fc.constantFrom(...BANK_PLACES)),
    });
    const list = fc
      .uniqueArray(one, { selector: ({ what }) => what })
      .map((all) => all.filter(({ everyKm, everyMonths }) => everyKm !== null || everyMonths !== null));
    fc.assert(
      fc.property(list, (all) => {
        expect(otherWorkFromText(otherWorkText(all))).toEqual({ ok: true, value: all });
      }),
    );
  });
});

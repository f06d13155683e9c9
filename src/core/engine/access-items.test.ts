import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FASTENER_SIZES, TIGHTENING_ORDERS } from './access';
import { fieldsOfItem, itemFromFields } from './access-item-fields';
import {
  ACCESS_PARTS,
  type AccessItem,
  DRIVERS,
  itemFaults,
  itemKey,
  itemsOnTheWay,
  opensFromText,
  sayOpens,
} from './access-items';
import { anyEngine } from './any-engine.fixture';

const V6 = {
  banks: [
    { place: 'rear' as const, cylinders: [1, 3, 5] },
    { place: 'front' as const, cylinders: [2, 4, 6] },
  ],
};
const plain: AccessItem = {
  key: 'duct',
  part: 'duct',
  what: 'duct',
  opens: [1, 3, 5],
  fasteners: null,
  minutesOff: 2,
  minutesOn: 3,
  howOff: null,
  howOn: null,
  caution: null,
  breaks: null,
  seal: null,
  onlyWith: null,
  insteadOf: null,
  speaks: null,
};
const named = (what: string, over: Partial<AccessItem> = {}): AccessItem => ({
  ...plain,
  what,
  key: itemKey(what),
  ...over,
});

describe('what an item opens', () => {
  it('is said as a bank, as cylinders or as all, and read back', () => {
    expect([[1, 3, 5], [5], [2, 6], [1, 2, 3, 4, 5, 6]].map((opens) => sayOpens(V6, opens))).toEqual([
      'rear bank',
      'cylinder 5',
      'cylinders 2 6',
      'all',
    ]);
    fc.assert(
      fc.property(anyEngine, fc.nat(), (model, some) => {
        const all = model.banks.flatMap(({ cylinders }) => cylinders).sort((a, b) => a - b);
        const opens = all.filter((_, i) => ((some >> (i % 20)) & 1) === 1);
        fc.pre(opens.length > 0);
        expect(opensFromText(model, sayOpens(model, opens))).toEqual(opens);
      }),
    );
    expect([opensFromText(V6, 'left bank'), opensFromText(V6, '7'), opensFromText(V6, 'somewhere')]).toEqual([
      null,
      null,
      null,
    ]);
  });
});

describe('the items on the way', () => {
  const ways = [
    named('cowl'),
    named('servo', { opens: [5] }),
    named('air line', { onlyWith: 'air suspension' }),
    named('manifold', { part: 'intake' }),
    named('manifold raised', { part: 'intake', insteadOf: 'manifold' }),
    named('strut', { opens: [2, 4, 6] }),
  ];
  const keys = (cylinders: number[], options: string[] = [], chosen = {}) =>
    itemsOnTheWay(ways, new Set(cylinders), options, chosen).map(({ key }) => key);

  it('are those that open what is reached, in their order, each way once', () => {
    expect(keys([1])).toEqual(['cowl', 'manifold']);
    expect(keys([5, 2])).toEqual(['cowl', 'servo', 'manifold', 'strut']);
    expect(keys([])).toEqual([]);
    expect(keys([1], ['Air suspension '])).toEqual(['cowl', 'air_line', 'manifold']);
    expect(keys([1], [], { manifold: 'manifold_raised' })).toEqual(['cowl', 'manifold_raised']);
    expect(keys([1], [], { manifold: 'strut' })).toEqual(['cowl', 'manifold']);
  });
});

describe('what is wrong with a list', () => {
  it('is named at its item', () => {
    const said = (items: readonly AccessItem[]) => itemFaults(V6, items).map(({ at, says }) => `${at}: ${says}`);
    expect(said([named('cowl'), named('Cowl')])).toEqual([expect.stringMatching(/^2: .*twice/)]);
    expect(said([named('cowl', { opens: [9] })])[0]).toContain('opens no cylinder');
    expect(said([named('x', { insteadOf: 'y' })])[0]).toContain('not in the list');
    expect(said([named('a', { opens: [1, 2] }), named('b', { opens: [1], insteadOf: 'a' })])[0]).toContain(
      'does not open all',
    );
    const screw = { count: 8, size: 'M6' as const, driver: null, torqueNm: 108, order: 'any' as const, captive: false };
    expect(said([named('cover', { fasteners: screw })])[0]).toContain('Was lbf·in read as');
    expect(said([named('cowl'), named('duct')])).toEqual([]);
  });
});

describe('an item as it is typed', () => {
  const words = fc.constantFrom(null, 'from the outside inward', 'cold: warm it by hand');
  const anyItem: fc.Arbitrary<AccessItem> = fc.record({
    part: fc.constantFrom(...ACCESS_PARTS),
    what: fc.constantFrom('engine cover', 'intake manifold', 'servo line'),
    key: fc.constant(''),
    opens: fc.constantFrom([1, 3, 5], [2, 4, 6], [5], [1, 2, 3, 4, 5, 6]),
    fasteners: fc.option(
      fc.record({
        count: fc.integer({ min: 1, max: 20 }),
        size: fc.option(fc.constantFrom(...FASTENER_SIZES)),
        driver: fc.option(fc.constantFrom(...DRIVERS)),
        torqueNm: fc.option(fc.integer({ min: 2, max: 60 })),
        order: fc.constantFrom(...TIGHTENING_ORDERS),
        captive: fc.boolean(),
      }),
    ),
    minutesOff: fc.integer({ min: 0, max: 90 }),
    minutesOn: fc.integer({ min: 0, max: 90 }),
    howOff: words,
    howOn: words,
    caution: words,
    breaks: fc.option(
      fc.record({
        what: fc.constant('clip'),
        number: fc.option(fc.constant('PM-1')),
        chance: fc.constantFrom(0, 0.05, 0.25),
      }),
    ),
    seal: fc.option(
      fc.record({
        what: fc.constant('gasket'),
        number: fc.option(fc.constant('PM-2')),
        rule: fc.constantFrom('new' as const, 'if_sound' as const),
      }),
    ),
    onlyWith: fc.constantFrom(null, 'air suspension'),
    insteadOf: fc.constant(null),
    speaks: words,
  });

  it('is read back as it was', () => {
    fc.assert(
      fc.property(anyItem, (drawn) => {
        const item = { ...drawn, key: itemKey(drawn.what) };
        expect(itemFromFields(V6, fieldsOfItem(V6, item, [item]))).toEqual({ item, faults: {} });
      }),
    );
  });

  it('says at each field what is wrong, and how it is written', () => {
    const { faults } = itemFromFields(V6, {
      part: 'flap',
      what: '',
      opens: 'left bank',
      size: 'M6',
      torque: '9 mm',
      minutes_off: '-2',
      breaks_number: 'PM-1',
    });
    expect(Object.keys(faults).sort()).toEqual([
      'breaks',
      'count',
      'minutes_off',
      'minutes_on',
      'opens',
      'part',
      'torque',
      'what',
    ]);
    expect(faults.part).toContain('cover, cowl');
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, engine } from './any-engine.fixture';
import {
  coilOf,
  coilsFromText,
  coilsText,
  companions,
  cylindersOf,
  standardCoils,
  terminalOf,
  terminalWords,
} from './coils';
import { layoutOf, modelFaults } from './layout';
import { siteId } from './model';
import { type COMPONENTS, quantityOf } from './quantities';

const six = {
  arrangement: 'inline',
  mounting: 'longitudinal',
  ignition: 'distributor',
  plugsPerCylinder: 1,
  banks: [{ place: 'only', cylinders: [1, 2, 3, 4, 5, 6] }],
  firingOrder: [1, 5, 3, 6, 2, 4],
} as const;
const v8Twin = {
  arrangement: 'v',
  mounting: 'longitudinal',
  ignition: 'coil_on_plug',
  plugsPerCylinder: 2,
  banks: [
    { place: 'right', cylinders: [1, 2, 3, 4] },
    { place: 'left', cylinders: [5, 6, 7, 8] },
  ],
  firingOrder: [1, 8, 4, 3, 6, 5, 7, 2],
} as const;

describe('companions', () => {
  it('pairs cylinders half a firing order apart', () => {
    expect(companions([1, 5, 3, 6, 2, 4])).toEqual([
      [1, 6],
      [5, 2],
      [3, 4],
    ]);
    expect(companions([1, 3, 4, 2])).toEqual([
      [1, 4],
      [3, 2],
    ]);
  });

  it('has none for an odd number', () => {
    expect(companions([1, 2, 3])).toEqual([]);
  });

  it('holds every cylinder once, and does not depend on which fires first', () => {
    fc.assert(
      fc.property(anyEngine, fc.nat(), ({ firingOrder }, turn) => {
        if (firingOrder.length % 2) return;
        const pairs = companions(firingOrder);
        expect(pairs.flat().sort((a, b) => a - b)).toEqual([...firingOrder].sort((a, b) => a - b));
        const from = turn % firingOrder.length;
        const turned = companions([...firingOrder.slice(from), ...firingOrder.slice(0, from)]);
        const asSets = (list: typeof pairs): string[] =>
          list.map((pair) => [...pair].sort((a, b) => a - b).join('+')).sort();
        expect(asSets(turned)).toEqual(asSets(pairs));
      }),
    );
  });
});

describe('coils of any valid engine', () => {
  it('fire every plug site exactly once, and the model has no faults', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        expect(modelFaults(model)).toEqual([]);
        const { sites } = layoutOf(model);
        const fired = model.coils.flatMap((coil) => coil.fires.map(siteId));
        expect(fired.sort()).toEqual(sites.map(siteId).sort());
        for (const site of sites) expect(coilOf(model, site)?.fires.map(siteId)).toContain(siteId(site));
      }),
    );
  });

  it('come back the same from the text that a person edits', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const read = coilsFromText(model, coilsText(model));
        expect(read?.map((coil) => coil.fires)).toEqual(model.coils.map((coil) => coil.fires));
      }),
    );
  });

  it('with waste spark fire companions together', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        if (model.ignition !== 'waste_spark') return;
        for (const coil of model.coils) {
          const [a = 0, b = 0] = cylindersOf(coil).map((cylinder) => model.firingOrder.indexOf(cylinder));
          expect(Math.abs(a - b)).toBe(model.firingOrder.length / 2);
        }
      }),
    );
  });
});

describe('modelFaults on ignition', () => {
  const faultsOf = (text: string, over = {}): string =>
    modelFaults(engine({ ...v8Twin, coils: coilsFromText(v8Twin, text) ?? [], ...over })).join('; ');
  it.each([
    ['1, 2, 3, 4, 5, 6, 7', 'no coil fires plug 8A, 8B'],
    ['1, 2, 3, 4, 5, 6, 7, 8, 8B', 'plug 8B is fired by more than one coil'],
    ['1, 2, 3, 4, 5, 6, 7, 8, 9', 'a coil fires plug 9A, 9B, which this engine does not have'],
  ])('explains the coils %j', (text, words) => {
    expect(faultsOf(text)).toContain(words);
  });

  it('accepts a coil for each plug or one over two', () => {
    expect(faultsOf('1A, 1B, 2, 3, 4, 5, 6, 7, 8')).toBe('');
  });

  it('names the companions where others are paired', () => {
    const waste = { ...six, ignition: 'waste_spark' } as const;
    const wrong = engine({ ...waste, coils: coilsFromText(waste, '1 2, 3 4, 5 6') ?? [] });
    expect(modelFaults(wrong).join()).toContain('1+6, 5+2, 3+4');
    expect(modelFaults(engine({ ...waste, coils: coilsFromText(waste, '6 1, 2 5, 4 3') ?? [] }))).toEqual([]);
  });

  it('takes a pack as one unit or as several, and never parts a pair', () => {
    const waste = { ...six, ignition: 'waste_spark' } as const;
    const pack = engine({ ...waste, coils: coilsFromText(waste, '1 6 5 2 3 4') ?? [] });
    expect(modelFaults(pack)).toEqual([]);
    expect(pack.coils.map(({ name }) => name)).toEqual(['pack']);
    expect(quantityOf(layoutOf(pack), 'coil')).toBe(1);
    expect(modelFaults(engine({ ...waste, coils: coilsFromText(waste, '1 6 5 2, 3 4') ?? [] }))).toEqual([]);
    const parted = engine({ ...waste, coils: coilsFromText(waste, '1 6 5, 2 3 4') ?? [] });
    expect(modelFaults(parted).join()).toContain('parts a pair');
  });

  it('gives each plug of a coil a terminal of its own, or none', () => {
    const coils = coilsFromText(v8Twin, '1A upper 1B lower, 2, 3, 4, 5, 6, 7, 8') ?? [];
    const model = engine({ ...v8Twin, coils });
    expect(modelFaults(model)).toEqual([]);
    expect(terminalOf(model, { cylinder: 1, position: 'B' })).toBe('lower');
    expect(terminalWords(model, { cylinder: 1, position: 'A' })).toBe('upper terminal of coil 1');
    expect(terminalWords(model, { cylinder: 2, position: 'A' })).toBe('');
    expect(coilsText(model)).toContain('1A upper 1B lower, 2A 2B');
    expect(faultsOf('1A upper 1B, 2, 3, 4, 5, 6, 7, 8')).toBe('');
    expect(faultsOf('1A upper 1B upper, 2, 3, 4, 5, 6, 7, 8')).toContain('each another');
  });

  it('knows a connector rail over separate coils only', () => {
    expect(modelFaults(engine({ ...six, ignition: 'coil_on_plug', connectorRail: true }))).toEqual([]);
    expect(modelFaults(engine({ ...six, connectorRail: true })).join()).toContain('only separate coils');
  });

  it('wants a distributor to say how it turns, and nothing else to have one', () => {
    expect(modelFaults({ ...engine(six), distributor: null }).join()).toContain('which way the rotor turns');
    const tower = { rotation: 'clockwise', towerOfCylinder1: 7 } as const;
    expect(modelFaults({ ...engine(six), distributor: tower }).join()).toContain('between 1 and 6, got 7');
    expect(modelFaults({ ...engine(v8Twin), distributor: tower }).join()).toContain('only distributor ignition');
  });

  it('knows no waste spark with three cylinders', () => {
    const three = { ...six, ignition: 'waste_spark', banks: [{ place: 'only', cylinders: [1, 2, 3] }] } as const;
    expect(modelFaults(engine({ ...three, firingOrder: [1, 2, 3] })).join('; ')).toContain('must be even');
  });
});

describe('coilsFromText', () => {
  it.each(['', '1,,2', 'one', '1C', '1-3'])('%j is no list of coils', (text) => {
    expect(coilsFromText(six, text)).toBeNull();
  });
});

describe('quantityOf', () => {
  type Expected = Partial<Record<(typeof COMPONENTS)[number], number>>;
  const cases: readonly (readonly [string, Parameters<typeof engine>[0], Expected])[] = [
    ['a distributor six', six, { plug: 6, coil: 1, rail: 0, boot: 6, lead: 7, lead_set: 1, cap: 1, rotor: 1, seal: 6 }],
    ['a twin-plug V8', v8Twin, { plug: 16, coil: 8, boot: 16, lead: 0, lead_set: 0, cap: 0, seal: 8 }],
    ['a waste-spark six', { ...six, ignition: 'waste_spark' }, { plug: 6, coil: 3, lead: 6, lead_set: 1, cap: 0 }],
    ['a rail', { ...six, ignition: 'coil_rail' }, { plug: 6, coil: 0, rail: 1, boot: 6, lead: 0 }],
    ['coil leads A and B', { ...v8Twin, ignition: 'coil_per_cylinder' }, { plug: 16, coil: 8, lead: 16, rotor: 0 }],
  ];
  it.each(cases)('counts by the layout of %s', (_, model, expected) => {
    const layout = layoutOf(engine(model));
    const counted = Object.fromEntries(
      Object.keys(expected).map((c) => [c, quantityOf(layout, c as (typeof COMPONENTS)[number])]),
    );
    expect(counted).toEqual(expected);
  });

  it('names the rails of a V apart', () => {
    expect(standardCoils({ ...v8Twin, ignition: 'coil_rail' }).map((coil) => coil.name)).toEqual([
      'right rail',
      'left rail',
    ]);
  });
});

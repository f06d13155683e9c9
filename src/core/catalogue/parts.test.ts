import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareParts, type PartAttributes, renumberingFault } from './equivalent';
import { partKey } from './match';
import { nearestNumbers } from './nearest-number';
import { mixing, type Supersession, SupersessionGraph } from './supersession';
import { plainVin, readVin, yearContradiction } from './vin';

const edge = (from: string, to: string, kind: Supersession['kind'] = 'renumbered'): Supersession => ({
  from,
  to,
  kind,
  note: null,
});

describe('SupersessionGraph', () => {
  const graph = new SupersessionGraph([
    edge('A', 'B'),
    edge('B', 'C', 'redesigned'),
    edge('X', 'C'),
    edge('C', 'D'),
    edge('S', 'T'),
    edge('S', 'U'),
  ]);

  it('follows a number to the one sold today', () => {
    expect(graph.current('A')).toMatchObject({ kind: 'current', part: 'D' });
    expect(graph.current('D')).toEqual({ kind: 'current', part: 'D', path: [] });
    expect(graph.current('never seen')).toMatchObject({ kind: 'current', part: 'never seen' });
  });

  it('asks where two successors are open', () => {
    expect(graph.current('S')).toEqual({ kind: 'needs-answer', at: 'S', successors: ['T', 'U'] });
  });

  it('mixes a renumbered part and never a redesigned one', () => {
    expect(mixing(graph, 'A', 'B')).toBe('same-part');
    expect(mixing(graph, 'A', 'D')).toBe('never-mix');
    expect(mixing(graph, 'X', 'D')).toBe('same-part');
    expect(mixing(graph, 'B', 'X')).toBe('never-mix');
    expect(mixing(graph, 'A', 'S')).toBe('unrelated');
    expect(mixing(graph, 'A', 'A')).toBe('same-part');
  });

  it('shows a history oldest first', () => {
    expect(graph.family('C')).toEqual(['A', 'X', 'B', 'C', 'D']);
    expect(
      graph
        .edgesAmong(graph.family('T'))
        .map((e) => e.to)
        .sort(),
    ).toEqual(['T', 'U']);
  });

  it.each([
    ['D', 'A', 'a circle: A → B → C → D → A'],
    ['A', 'A', 'cannot replace itself'],
    ['A', 'B', 'already replaces'],
  ])('refuses %s → %s', (from, to, words) => {
    expect(graph.refusalOf({ from, to })).toContain(words);
    expect(() => new SupersessionGraph([...graph.edges, edge(from, to)])).toThrow(RangeError);
  });

  const parts = ['A', 'B', 'C', 'D', 'E', 'F', 'G'];
  const someEdges = fc.array(
    fc.tuple(
      fc.constantFrom(...parts),
      fc.constantFrom(...parts),
      fc.constantFrom('renumbered' as const, 'redesigned' as const),
    ),
    { maxLength: 14 },
  );
  const accept = (wanted: readonly (readonly [string, string, Supersession['kind']])[]): SupersessionGraph =>
    wanted.reduce((g, [from, to, kind]) => {
      return g.refusalOf({ from, to }) ? g : new SupersessionGraph([...g.edges, edge(from, to, kind)]);
    }, new SupersessionGraph([]));

  it('never loops and never loses a part, whatever edges are tried', () => {
    fc.assert(
      fc.property(someEdges, (wanted) => {
        const g = accept(wanted);
        for (const part of parts) {
          const end = g.current(part);
          if (end.kind === 'current') expect(g.current(end.part)).toMatchObject({ kind: 'current', part: end.part });
          expect(g.family(part)).toContain(part);
          for (const other of g.family(part)) expect([...g.family(other)].sort()).toEqual([...g.family(part)].sort());
        }
        expect(new Set(parts.flatMap((part) => g.family(part)))).toEqual(new Set(parts));
      }),
    );
  });

  it('mixes both ways alike, and a same part with whatever its twin mixes with', () => {
    fc.assert(
      fc.property(
        someEdges,
        fc.constantFrom(...parts),
        fc.constantFrom(...parts),
        fc.constantFrom(...parts),
        (wanted, a, b, c) => {
          const g = accept(wanted);
          expect(mixing(g, a, b)).toBe(mixing(g, b, a));
          if (mixing(g, a, b) === 'same-part') expect(mixing(g, b, c)).toBe(mixing(g, a, c));
        },
      ),
    );
  });

  it('orders a history so that no part stands before the one it replaces', () => {
    fc.assert(
      fc.property(someEdges, fc.constantFrom(...parts), (wanted, part) => {
        const g = accept(wanted);
        const order = g.family(part);
        for (const { from, to } of g.edgesAmong(order)) expect(order.indexOf(from)).toBeLessThan(order.indexOf(to));
      }),
    );
  });
});

const plug: PartAttributes = {
  kind: 'plug',
  maker: 'Emberline',
  thread: 'M14',
  pitchMm: 1.25,
  reachMm: 19,
  seat: 'gasket',
  projectionMm: 3,
  resistor: true,
  terminal: 'solid',
  hexMm: 16,
  heatRange: 6,
  electrode: 'nickel',
  preGapMm: 1.1,
};

describe('a renumbering', () => {
  it.each([
    ['a longer reach', { reachMm: 26.5 }, 'reach (19 mm, then 26.5 mm)'],
    ['another thread', { thread: 'M12' }, 'thread (M14, then M12)'],
    ['another seat', { seat: 'conical' }, 'seat (gasket, then conical)'],
    ['no resistor', { resistor: false }, 'resistor (with, then without)'],
    ['another terminal', { terminal: 'threaded' }, 'terminal (solid, then threaded)'],
  ] as const)('is none with %s', (_, over, words) => {
    expect(renumberingFault(plug, { ...plug, ...over })).toContain(words);
  });

  it('may change electrode and gap as sold, and what is not recorded speaks against nothing', () => {
    expect(renumberingFault(plug, { ...plug, electrode: 'fine_wire', preGapMm: 0.9 })).toBeNull();
    expect(renumberingFault(plug, { ...plug, reachMm: null })).toBeNull();
  });
});

describe('compareParts', () => {
  it('names another electrode and another gap as sold, and refuses for neither', () => {
    const { verdict, attributes } = compareParts(plug, { ...plug, electrode: 'fine_wire', preGapMm: 0.9 }, []);
    expect(verdict).toBe('equivalent');
    expect(attributes.filter((one) => one.verdict === 'allowed')).toMatchObject([
      { attribute: 'Electrode', ours: 'nickel', theirs: 'fine wire' },
      { attribute: 'Gap as sold', ours: '1.1 mm', theirs: '0.9 mm' },
    ]);
  });

  const verdictOf = (over: Partial<PartAttributes>, crosses: Parameters<typeof compareParts>[2] = []) =>
    compareParts(plug, { ...plug, ...over }, crosses);
  const why = (over: Partial<PartAttributes>): string =>
    verdictOf(over)
      .attributes.filter((a) => a.verdict === 'differs')
      .map((a) => a.why)
      .join();

  it.each([
    [{ thread: 'M12' }, 'tears the thread'],
    [{ pitchMm: 1 }, 'cross-threads'],
    [{ reachMm: 26.5 }, 'strike the piston'],
    [{ reachMm: 12.7 }, 'carbon fills'],
    [{ seat: 'conical' as const }, 'leaks'],
    [{ projectionMm: 5 }, 'touch or glow'],
    [{ projectionMm: 1 }, 'fouls'],
    [{ resistor: false }, 'engine computer'],
    [{ terminal: 'threaded' }, 'does not hold'],
    [{ heatRange: 7 }, 'lights the mixture early'],
    [{ kind: 'coil' as const }, 'another component'],
  ])('refuses %j and says why it matters', (over, words) => {
    expect(verdictOf(over).verdict).toBe('refused');
    expect(why(over)).toContain(words);
  });

  it('lets the hexagon differ and changes the tool', () => {
    const other = verdictOf({ hexMm: 14 });
    expect(other.verdict).toBe('equivalent');
    expect(other.attributes.find((a) => a.attribute === 'Hexagon')?.why).toContain('14 mm socket');
  });

  it('compares heat of two makers only through a cross table', () => {
    const theirs = { maker: 'Kilnmark', heatRange: 24 };
    const cross = { makerA: 'Kilnmark', heatA: 24, makerB: 'Emberline', heatB: 6, source: 'Kilnmark cross table' };
    expect(verdictOf(theirs).verdict).toBe('cannot-tell');
    expect(verdictOf(theirs, [cross]).verdict).toBe('equivalent');
    expect(verdictOf(theirs, [{ ...cross, heatA: 22 }]).verdict).toBe('refused');
    expect(verdictOf(theirs, [{ ...cross, heatA: 22, heatB: 5 }]).verdict).toBe('cannot-tell');
    const turned = { ...cross, makerA: 'Emberline', heatA: 6, makerB: 'Kilnmark', heatB: 24 };
    expect(verdictOf(theirs, [turned]).verdict).toBe('equivalent');
  });

  it('never takes what is unknown for agreement', () => {
    for (const key of [
      'thread',
      'pitchMm',
      'reachMm',
      'seat',
      'projectionMm',
      'resistor',
      'terminal',
      'heatRange',
    ] as const)
      expect(verdictOf({ [key]: null }).verdict).toBe('cannot-tell');
  });

  it('is symmetric in its verdict, and finds every part equivalent to itself', () => {
    const other = fc.record({
      reachMm: fc.constantFrom(null, 19, 26.5),
      seat: fc.constantFrom(null, 'gasket' as const, 'conical' as const),
      resistor: fc.constantFrom(null, true, false),
      heatRange: fc.constantFrom(null, 6, 7),
    });
    fc.assert(
      fc.property(other, (over) => {
        const theirs = { ...plug, ...over };
        expect(compareParts(theirs, plug, []).verdict).toBe(compareParts(plug, theirs, []).verdict);
      }),
    );
    expect(compareParts(plug, plug, []).verdict).toBe('equivalent');
  });
});

describe('nearestNumbers', () => {
  const known = ['EM-7310', 'EM-7205', 'KM-4180', 'FS-3812', 'FS-3807'];
  it.each([
    ['EM-7301', 'EM-7310', '1 and 0 swapped'],
    ['EM-731O', 'EM-7310', 'O read for 0'],
    ['EM7S10', 'EM-7310', 'S in place of 3'],
    ['KM418', 'KM-4180', 'missing: 0'],
    ['KM-41800', 'KM-4180', 'too many'],
    ['FS-38I2', 'FS-3812', 'I read for 1'],
  ])('offers for %s the number %s', (typed, number, why) => {
    expect(nearestNumbers(typed, known)).toContainEqual({ number, why: expect.stringContaining(why) });
  });

  it('offers nothing for a number that is known, too short or far off', () => {
    expect(nearestNumbers('EM 7310', known).map((n) => n.number)).not.toContain('EM-7310');
    expect(nearestNumbers('E', known)).toEqual([]);
    expect(nearestNumbers('QQ-9999', known)).toEqual([]);
  });

  it('finds any number back after one slip', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...known),
        fc.nat(),
        fc.constantFrom('swap', 'drop', 'double'),
        (number, at, slip) => {
          const key = partKey(number);
          const i = at % (key.length - 1);
          const typed = {
            drop: key.slice(0, i) + key.slice(i + 1),
            double: key.slice(0, i) + key[i] + key.slice(i),
            swap: key.slice(0, i) + key[i + 1] + key[i] + key.slice(i + 2),
          }[slip];
          if (partKey(typed) === key) return;
          expect(nearestNumbers(typed, known).map((n) => n.number)).toContain(number);
        },
      ),
    );
  });
});

describe('readVin', () => {
  it('checks the digit, the year and the serial', () => {
    expect(readVin('11111111111111111')).toEqual({
      valid: true,
      checkDigitOk: true,
      modelYears: [2001, 2031],
      serial: 111_111,
      reasons: [],
    });
    expect(readVin('11111111111111112')).toMatchObject({ valid: true, checkDigitOk: false });
    expect(readVin('1111 1111 1111-11111').valid).toBe(true);
  });

  it.each([
    ['', '17 characters, this has 0'],
    ['1111111111111111', 'this has 16'],
    ['1111111O111111111', 'no I, O or Q'],
    ['11111111-?1111111', '17 characters'],
  ])('explains %j', (text, words) => {
    const reading = readVin(text);
    expect(reading.valid).toBe(false);
    expect(reading.reasons.join('; ')).toContain(words);
  });

  it('says when the year code means none', () => {
    expect(readVin('111111111U1111111').reasons.join()).toContain('no model year');
    expect(readVin('111111111U1111111').modelYears).toEqual([]);
  });

  it('catches any one wrong digit and any two neighbours swapped', () => {
    const digits = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 17, maxLength: 17 });
    fc.assert(
      fc.property(digits, fc.integer({ min: 0, max: 16 }), fc.integer({ min: 1, max: 9 }), (list, at, by) => {
        const typed = list.join('');
        const good = [...'0123456789X']
          .map((c) => typed.slice(0, 8) + c + typed.slice(9))
          .filter((v) => readVin(v).checkDigitOk);
        expect(good).toHaveLength(1);
        const vin = good[0] ?? '';
        if (at === 8) return;
        const wrong = vin.slice(0, at) + ((Number(vin[at]) + by) % 10) + vin.slice(at + 1);
        expect(readVin(wrong).checkDigitOk).toBe(false);
      }),
    );
  });

  it('notes a model year that the VIN cannot mean', () => {
    expect(yearContradiction('11111111111111111', 2001)).toBeNull();
    expect(yearContradiction('11111111111111111', 2019)).toContain('2001 or 2031');
    expect(yearContradiction('short', 2019)).toBeNull();
    expect(plainVin(' ab-12 ')).toBe('AB12');
  });
});

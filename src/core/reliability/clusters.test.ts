import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clusters, type Placed } from './clusters';

const crowd = (n: number, x: number, y: number, names: readonly string[]): Placed[] =>
  Array.from({ length: n }, (_, i) => ({ id: `${names[0]}${x}${i}`, x: x + i * 0.001, y, names }));

describe('clusters', () => {
  it('names a crowd by what most of it shares, and leaves loners alone', () => {
    const found = clusters([
      ...crowd(12, 0.3, 0.31, ['clinic vans', 'AG-18']),
      ...crowd(1, 0.9, 0.9, ['road-gritters', 'TV-28']),
      ...crowd(1, 0.1, 0.9, ['old machines', 'TV-46D']),
    ]);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ name: '12 clinic vans' });
    expect(found[0]?.x).toBeCloseTo(0.3055, 4);
  });

  it('falls back on the second name, and goes unnamed where nothing is shared', () => {
    const mixed = (names: (i: number) => string[]) =>
      crowd(9, 0.5, 0.5, ['']).map((p, i) => ({ ...p, id: `${i}`, names: names(i) }));
    const loner = crowd(1, 0.05, 0.05, ['x', 'y']);
    expect(clusters([...mixed((i) => [`g${i % 3}`, 'AG-18']), ...loner])[0]?.name).toBe('9 AG-18');
    expect(clusters([...mixed((i) => [`g${i % 3}`, `e${i % 4}`]), ...loner])).toEqual([]);
  });

  it('puts no vehicle into two crowds, and is the same in any order', () => {
    const point = fc.record({
      x: fc.double({ min: -0.2, max: 1.2, noNaN: true }),
      y: fc.double({ min: 0, max: 1, noNaN: true }),
      group: fc.constantFrom('a', 'b'),
    });
    fc.assert(
      fc.property(fc.array(point, { maxLength: 120 }), (list) => {
        const points = list.map(({ x, y, group }, i) => ({ id: String(i), x, y, names: [group] }));
        const found = clusters(points);
        const ids = found.flatMap((c) => c.ids);
        expect(new Set(ids).size).toBe(ids.length);
        const turned = clusters([...points].reverse());
        expect(turned.map((c) => [...c.ids].sort()).sort()).toEqual(found.map((c) => [...c.ids].sort()).sort());
      }),
    );
  });
});

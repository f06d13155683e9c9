import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { socketsFor } from '../engine/tools';
import { type CoilStay, coilHistory } from './coil-history';

const stay = (tag: string, cylinder: number, from: string, until: string | null = null): CoilStay => ({
  tag,
  cylinder,
  from,
  until,
});

describe('coilHistory', () => {
  it('follows a coil from cylinder to cylinder', () => {
    const { coils, repeatFailures } = coilHistory([
      stay('C2', 1, '2024-05-01'),
      stay('C1', 2, '2024-05-01'),
      stay('C1', 1, '2020-01-01', '2024-05-01'),
      stay('C2', 2, '2020-01-01', '2024-05-01'),
    ]);
    expect(coils.map(({ tag, stays }) => [tag, stays.map((s) => s.cylinder)])).toEqual([
      ['C1', [1, 2]],
      ['C2', [2, 1]],
    ]);
    expect(repeatFailures).toEqual([]);
  });

  it('names the cylinder that has lost two coils, not the one that lost one', () => {
    const found = coilHistory([
      stay('A', 3, '2019-01-01', '2023-01-01'),
      stay('B', 3, '2023-01-01', '2025-01-01'),
      stay('C', 3, '2025-01-01'),
      stay('D', 1, '2019-01-01', '2024-01-01'),
      stay('E', 1, '2024-01-01'),
    ]);
    expect(found.repeatFailures).toEqual([{ cylinder: 3, lost: 2 }]);
  });

  it('keeps every stay once, and never counts more lost than there are coils gone', () => {
    const any = fc.record({
      tag: fc.constantFrom('A', 'B', 'C', 'D'),
      cylinder: fc.integer({ min: 1, max: 4 }),
      from: fc.constantFrom('2019-01-01', '2021-01-01', '2023-01-01'),
      until: fc.constantFrom(null, '2024-01-01', '2025-01-01'),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 10 }), (stays) => {
        const { coils, repeatFailures } = coilHistory(stays);
        expect(coils.flatMap((c) => c.stays)).toHaveLength(stays.length);
        expect(repeatFailures.reduce((sum, e) => sum + e.lost, 0)).toBeLessThanOrEqual(coils.length);
      }),
    );
  });
});

describe('socketsFor', () => {
  it.each([
    [16, '16 mm, or 5/8 in (15.88 mm)'],
    [14, '14 mm, or 9/16 in (14.29 mm)'],
    [20.8, '20.8 mm, or 13/16 in (20.64 mm)'],
    [18, '18 mm'],
    [12, '12 mm'],
  ])('%d mm hexagon takes %s', (hex, words) => {
    expect(socketsFor(hex)).toBe(words);
  });
});

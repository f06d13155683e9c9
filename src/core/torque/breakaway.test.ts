import { describe, expect, it } from 'vitest';
import { breakawayFelt, expectedBreakaway } from './breakaway';

describe('breakaway', () => {
  const torque = { min: 20, max: 25 };
  it.each([
    [10, 'easy'],
    [22, 'expected'],
    [40, 'hard'],
    [51, 'seized'],
  ])('of %d N·m beside 20 to 25 N·m is %s', (nm, felt) => {
    expect(breakawayFelt(nm, torque)).toBe(felt);
  });
  it('is expected round the torque, not at it', () => {
    const { min, max } = expectedBreakaway(torque);
    expect([min, max]).toEqual([14, 35]);
  });
});

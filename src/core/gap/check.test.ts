import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkGaps, gapGrowth } from './check';

const spec = { minMm: 1.0, maxMm: 1.1 };
const actions = (
  gaps: number[],
  electrode: 'nickel' | 'fine_wire' | 'multi_ground' = 'nickel',
  policy: 'adjust' | 'ground_only' | 'never' = 'adjust',
) => checkGaps(spec, electrode, policy, gaps).plugs.map((p) => p.action);
const verdict = (gaps: number[]) => checkGaps(spec, 'nickel', 'adjust', gaps).batch.verdict;

describe('checkGaps', () => {
  it('accepts, opens and closes towards the target', () => {
    const { plugs, batch } = checkGaps(spec, 'nickel', 'adjust', [1.05, 0.95, 1.15, 1.0]);
    expect(plugs.map((p) => p.action)).toEqual(['accept', 'open', 'close', 'accept']);
    expect(plugs[1]?.byMm).toBeCloseTo(0.1, 9);
    expect(batch.spreadMm).toBeCloseTo(0.2, 9);
  });

  it('takes the edges of the range as in range', () => {
    expect(actions([1.0, 1.1, 0.1 + 0.9])).toEqual(['accept', 'accept', 'accept']);
  });

  it('bends fine wire only within 0.20 mm, several ground electrodes never, and nothing by policy never', () => {
    expect(actions([0.9, 0.8], 'fine_wire', 'ground_only')).toEqual(['open', 'reject']);
    expect(actions([0.9], 'fine_wire', 'never')).toEqual(['reject']);
    expect(actions([0.9], 'multi_ground')).toEqual(['reject']);
    expect(actions([0.8], 'nickel')).toEqual(['open']);
  });

  it('tells a box gapped for another engine from a dropped plug', () => {
    expect(verdict([0.8, 0.82, 0.81, 0.79])).toBe('wrong_application');
    expect(verdict([1.05, 1.06, 0.8, 1.04])).toBe('handling_damage');
    expect(checkGaps(spec, 'nickel', 'adjust', [1.05, 1.06, 0.8, 1.04]).batch.suspects).toEqual([2]);
    expect(verdict([1.05, 1.02, 1.08])).toBe('good');
    expect(verdict([0.8, 1.2, 1.05, 1.3])).toBe('adjust_individually');
  });

  it('gives the same batch verdict and the same plug verdicts in any order', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.4, max: 2, noNaN: true }), { minLength: 1, maxLength: 12 }), (gaps) => {
        const a = checkGaps(spec, 'nickel', 'adjust', gaps);
        const b = checkGaps(spec, 'nickel', 'adjust', [...gaps].reverse());
        expect(b.batch.verdict).toBe(a.batch.verdict);
        expect([...b.plugs].reverse()).toEqual(a.plugs);
        expect(b.batch.suspects.length).toBe(a.batch.suspects.length);
      }),
    );
  });

  it('holds a range that was written in inches to the precision of its inches', () => {
    // 0.039 to 0.043 in, of 1.0 to 1.1 mm: 1.1 mm is 0.0433 in, and nobody has to close it.
    const inches = { minMm: 0.9906, maxMm: 1.0922 };
    const action = (gap: number) => checkGaps(inches, 'nickel', 'adjust', [gap]).plugs[0]?.action;
    expect([0.99, 1.1, 1.12, 0.97].map(action)).toEqual(['accept', 'accept', 'close', 'open']);
    expect(actions([1.105])).toEqual(['close']);
  });

  it('refuses to judge nothing', () => {
    expect(() => checkGaps(spec, 'nickel', 'adjust', [])).toThrow(RangeError);
  });
});

describe('gapGrowth', () => {
  it('is micrometres per 1,000 km, and unknown without a distance', () => {
    expect(gapGrowth(1.05, 1.31, 92_400)).toBeCloseTo(2.8139, 3);
    expect(gapGrowth(1.05, 1.31, 0)).toBeNull();
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bendFault, bendHistory, checkReachable, gapsFromText, sayBends } from './bends';

describe('bendFault', () => {
  it('lets a nickel electrode go 0.25 mm in all, and no farther', () => {
    expect(bendFault([0.85, 1.05], 'nickel', 1)).toBeNull();
    expect(bendFault([0.8, 1.1], 'nickel', 1)).toContain('more than 0.25 mm');
    // Up and down again adds up.
    expect(bendFault([0.9, 1.1, 1.0], 'nickel', 1)).toContain('in all');
  });

  it('scraps a plug at one change of direction more than is allowed', () => {
    expect(bendFault([1.0, 1.08, 1.04], 'nickel', 1)).toBeNull();
    expect(bendFault([1.0, 1.08, 1.04, 1.08], 'nickel', 1)).toContain('tired');
    expect(bendFault([1.0, 1.08, 1.04], 'fine_wire', 0)).toContain('tired');
  });

  it('takes a second measurement of the same gap for no bend, and lets none bend a plug with several electrodes', () => {
    expect(bendFault([1.0, 1.01, 1.0, 1.01], 'fine_wire', 0)).toBeNull();
    expect(bendFault([1.0, 1.1], 'multi_ground', 0)).not.toBeNull();
  });

  it('never forgives: more bends never make it right again', () => {
    const gaps = fc.array(
      fc.integer({ min: 60, max: 140 }).map((n) => n / 100),
      { minLength: 2, maxLength: 6 },
    );
    fc.assert(
      fc.property(gaps, fc.integer({ min: 60, max: 140 }), (list, next) => {
        if (bendFault(list, 'nickel', 1) !== null) expect(bendFault([...list, next / 100], 'nickel', 1)).not.toBeNull();
      }),
    );
  });
});

describe('bends', () => {
  it('are told with their direction, from the gaps as kept', () => {
    expect(sayBends([...gapsFromText('0.9 1.15'), 1.05])).toMatch(/^opened by 0\.25 mm .*, then closed by 0\.10 mm /);
    expect(sayBends(gapsFromText(''))).toBe('');
    expect(bendHistory([0.1, -0.05, 0, 0.02], 1)).toEqual({ changesOfDirection: 2, discard: true });
  });
});

describe('checkReachable', () => {
  const spec = { minMm: 1.0, maxMm: 1.1 };
  const judged = (gaps: readonly number[]) =>
    checkReachable(spec, 'nickel', 'adjust', gaps).plugs.map(({ action, reason }) => reason ?? action);

  it('offers no bend that the electrode does not take in all, and else says what checkGaps says', () => {
    // To 1.05 mm: by 0.15 mm, by 0.35 mm, by 0.40 mm.
    expect(judged([0.9, 1.05, 0.7, 1.45])).toEqual(['open', 'accept', 'bend_too_far', 'bend_too_far']);
    expect(checkReachable(spec, 'nickel', 'never', [0.9]).plugs[0]?.reason).toBe('policy_never');
    expect(checkReachable(spec, 'nickel', 'adjust', [0.7, 0.71]).batch.verdict).toBe('wrong_application');
  });
});

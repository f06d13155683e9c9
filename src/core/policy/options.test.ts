import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dueShare, kmPerHour } from './apply';
import { optionInForce, optionsInForce, POLICIES, POLICY_IDS, type PolicyChoice, policyOf } from './policies';

const anyChoice: fc.Arbitrary<PolicyChoice> = fc.constantFrom(...POLICIES).chain((policy) =>
  fc.record({
    policy: fc.constant(policy.id),
    scope: fc.constantFrom('shop' as const, 'sheet' as const, 'group' as const, 'vehicle' as const),
    scopeKey: fc.constant(null),
    option: fc.constantFrom(...policy.options.map(({ id }) => id), 'by moon'),
    why: fc.constant('said'),
  }),
);

describe('the options in force', () => {
  it('are one of each policy, whatever has been chosen', () => {
    fc.assert(
      fc.property(fc.array(anyChoice, { maxLength: 12 }), (choices) => {
        const all = optionsInForce(choices);
        expect(Object.keys(all).sort()).toEqual([...POLICY_IDS].sort());
        for (const id of POLICY_IDS) {
          expect(all[id]).toBe(optionInForce(id, choices));
          expect(policyOf(id).options.map((option) => option.id)).toContain(all[id]);
        }
      }),
    );
  });

  it('of one policy change nothing of another', () => {
    fc.assert(
      fc.property(anyChoice, (choice) => {
        const [before, after] = [optionsInForce([]), optionsInForce([choice])];
        for (const id of POLICY_IDS) if (id !== choice.policy) expect(after[id]).toBe(before[id]);
      }),
    );
  });

  it('have each an effect where they are counted with', () => {
    expect(policyOf('interval').options.map(({ id }) => dueShare(id))).toEqual([1, 0.75, 1]);
    expect(policyOf('engine_hours').options.map(({ id }) => kmPerHour(id))).toEqual([40, 60, 0]);
  });
});

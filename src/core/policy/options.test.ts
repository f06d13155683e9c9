import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  chosenCompound,
  compoundAdvice,
  dueShare,
  kmPerHour,
  SHEET_LUBRICANTS,
  SHELLS,
  TORQUE_CONDITIONS,
} from './apply';
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

describe('what goes on the threads', () => {
  const asked = fc.record({
    option: fc.constantFrom(...policyOf('thread_compound').options.map(({ id }) => id)),
    shell: fc.constantFrom(...SHELLS, null),
    head: fc.constantFrom('aluminium' as const, 'iron' as const),
    lubricant: fc.constantFrom(...SHEET_LUBRICANTS, null),
    torqueFor: fc.constantFrom(...TORQUE_CONDITIONS, null),
  });

  it('lowers the torque where there is compound and the sheet means dry threads, and nowhere else', () => {
    fc.assert(
      fc.property(asked, ({ option, shell, head, lubricant, torqueFor }) => {
        const advice = compoundAdvice(option, shell, head, { lubricant, torqueFor });
        const greased = advice.lubricant === 'anti_seize';
        expect(advice.compound !== null).toBe(greased);
        expect(advice.reduction > 0).toBe(greased && torqueFor !== 'greased');
        // Dry threads at a torque for greased ones clamp too little: that is never passed over.
        if (!greased && torqueFor === 'greased') expect(advice.doubt).toContain('clamps too little');
      }),
    );
  });

  it('says both where the shop overrides the sheet and the torque then does not fit the threads', () => {
    const { doubt } = compoundAdvice('dry', 'plated', 'aluminium', { lubricant: 'nickel', torqueFor: 'greased' });
    expect(doubt).toMatch(/overrides it.*clamps too little/);
  });

  it('is never copper in an aluminium head without a doubt', () => {
    fc.assert(
      fc.property(asked, ({ option, shell, lubricant, torqueFor }) => {
        const advice = compoundAdvice(option, shell, 'aluminium', { lubricant, torqueFor });
        if (advice.compound === 'copper') expect(advice.doubt).toContain('corrodes');
      }),
    );
  });
});

describe('a compound chosen at the bench', () => {
  const sheet = { lubricant: 'dry', torqueFor: 'dry' } as const;

  it('warns of a plated shell, and names what it overrides; what is said agrees with what is reckoned', () => {
    const inForce = compoundAdvice('by_sheet', 'plated', 'aluminium', sheet);
    const chosen = chosenCompound('anti_seize', inForce, 'plated', sheet);
    expect(chosen).toMatchObject({ lubricant: 'anti_seize', compound: 'nickel', reduction: 0.3 });
    expect(chosen.doubt).toContain('The spec sheet says dry');
    expect(chosen.doubt).toContain('plated');
    expect(chosen.says).not.toContain('Dry');
    expect(compoundAdvice('nickel_always', 'plated', 'aluminium', sheet).doubt).toContain('plated');
  });

  it('is what is in force where nothing else is chosen', () => {
    const inForce = compoundAdvice('by_sheet', 'bare', 'aluminium', { lubricant: null, torqueFor: null });
    expect(chosenCompound(inForce.lubricant, inForce, 'bare', { lubricant: null, torqueFor: null })).toBe(inForce);
  });
});

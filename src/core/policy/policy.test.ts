import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  allowedReversals,
  compoundAdvice,
  dueShare,
  regapPolicy,
  type SheetLubricant,
  type TorqueCondition,
} from './apply';
import { POLICIES, POLICY_IDS, POLICY_SCOPES, type PolicyChoice, policyInForce } from './policies';

const choice = (scope: PolicyChoice['scope'], option: string): PolicyChoice => ({
  policy: 'interval',
  scope,
  scopeKey: null,
  option,
  why: `said for the ${scope}`,
});

describe('POLICIES', () => {
  it('give every choice at least two options with reasons, and a default among them', () => {
    expect(POLICIES.map((policy) => policy.id).sort()).toEqual([...POLICY_IDS].sort());
    for (const policy of POLICIES) {
      expect(policy.options.length).toBeGreaterThan(1);
      expect(policy.options.map((s) => s.id)).toContain(policy.byDefault);
      expect(new Set(policy.options.map((s) => s.id)).size).toBe(policy.options.length);
      for (const option of policy.options) expect(option.reason && option.changes).toBeTruthy();
    }
  });
});

describe('policyInForce', () => {
  it('is the default until someone chooses', () => {
    expect(policyInForce('interval', [])).toMatchObject({
      scope: 'default',
      option: { id: 'to_the_limit' },
      overrides: [],
    });
  });

  it('takes vehicle before group before sheet before shop, and shows what is overridden', () => {
    const all = [
      choice('shop', 'early'),
      choice('sheet', 'to_the_limit'),
      choice('group', 'evidence'),
      choice('vehicle', 'early'),
    ];
    const found = policyInForce('interval', all);
    expect(found).toMatchObject({ scope: 'vehicle', why: 'said for the vehicle', option: { id: 'early' } });
    expect(found.overrides.map((o) => o.scope)).toEqual(['group', 'sheet', 'shop', 'default']);
    expect(policyInForce('interval', all.slice(0, 2))).toMatchObject({ scope: 'sheet' });
  });

  it('passes over an option that it does not know and choices of other policies', () => {
    expect(policyInForce('interval', [choice('shop', 'by moon')]).scope).toBe('default');
    expect(policyInForce('battery', [choice('shop', 'early')]).scope).toBe('default');
  });

  it('does not depend on the order of choices', () => {
    const some = fc.uniqueArray(fc.constantFrom(...POLICY_SCOPES.slice(1)), { maxLength: 4 });
    fc.assert(
      fc.property(some, (scopes) => {
        const list = scopes.map((scope) => choice(scope as PolicyChoice['scope'], 'early'));
        expect(policyInForce('interval', [...list].reverse())).toEqual(policyInForce('interval', list));
      }),
    );
  });
});

const sheet = (lubricant: SheetLubricant | null, torqueFor: TorqueCondition | null = null) => ({
  lubricant,
  torqueFor,
});

describe('what an option changes', () => {
  it('is the share of the interval', () => {
    expect([dueShare('early'), dueShare('to_the_limit'), dueShare('evidence')]).toEqual([0.75, 1, 1]);
  });

  it('is whether a gap may be bent, but never several ground electrodes', () => {
    expect(regapPolicy('measure_adjust', 'nickel', null)).toBe('adjust');
    expect(regapPolicy('measure_adjust', 'fine_wire', null)).toBe('ground_only');
    expect(regapPolicy('return', 'nickel', null)).toBe('never');
    expect(regapPolicy('return', 'nickel', 'adjust')).toBe('adjust');
    expect(regapPolicy('measure_adjust', 'multi_ground', 'adjust')).toBe('never');
  });

  it('is how often a bend may turn', () => {
    expect(allowedReversals('once', 'nickel')).toBe(1);
    expect(allowedReversals('once', 'fine_wire')).toBe(0);
    expect(allowedReversals('never', 'nickel')).toBe(0);
    expect(allowedReversals('allowed', 'fine_wire')).toBe(Number.POSITIVE_INFINITY);
  });

  it('is what goes on the threads, and the torque follows', () => {
    expect(compoundAdvice('by_sheet', 'plated', 'aluminium', sheet(null))).toMatchObject({
      lubricant: 'dry',
      reduction: 0,
    });
    expect(compoundAdvice('by_sheet', 'bare', 'aluminium', sheet(null))).toMatchObject({
      lubricant: 'anti_seize',
      reduction: 0.3,
    });
    expect(compoundAdvice('by_sheet', 'bare', 'iron', sheet(null)).lubricant).toBe('dry');
    expect(compoundAdvice('by_sheet', 'bare', 'aluminium', sheet('dry')).lubricant).toBe('dry');
    expect(compoundAdvice('dry', 'bare', 'aluminium', sheet('nickel'))).toMatchObject({
      lubricant: 'dry',
      doubt: expect.stringContaining('overrides'),
    });
    expect(compoundAdvice('nickel_always', 'plated', 'iron', sheet(null)).lubricant).toBe('anti_seize');
    expect(compoundAdvice('nickel_bare', null, 'aluminium', sheet(null)).lubricant).toBe('dry');
    expect(compoundAdvice('by_sheet', 'bare', 'aluminium', sheet('copper')).doubt).toContain('corrodes');
  });

  it('never lowers a torque that is given for greased threads already', () => {
    expect(compoundAdvice('by_sheet', null, 'iron', sheet('nickel', 'greased'))).toMatchObject({
      lubricant: 'anti_seize',
      reduction: 0,
    });
    expect(compoundAdvice('nickel_always', null, 'iron', sheet(null, 'greased')).reduction).toBe(0);
    expect(compoundAdvice('by_sheet', null, 'iron', sheet('nickel', 'dry')).reduction).toBe(0.3);
    expect(compoundAdvice('by_sheet', null, 'iron', sheet('nickel')).doubt).toContain('taken as dry');
    expect(compoundAdvice('dry', null, 'iron', sheet(null, 'greased')).doubt).toContain('clamps too little');
  });
});

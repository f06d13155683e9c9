import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toSi } from '../units/unit';
import { planTorque, type TorqueInput } from './plan';

const wrench = { unit: 'N·m' as const, min: 5, max: 25, step: 0.5, lengthMm: 300, calibratedOn: '2026-03-01' };
const input = (over: Partial<TorqueInput> = {}): TorqueInput => ({
  specNm: { min: 16, max: 19 },
  thread: 'M12',
  seat: 'gasket',
  gasket: 'new',
  head: 'aluminium',
  lubricant: 'dry',
  wrench,
  on: '2026-11-16',
  ...over,
});
const codes = (over: Partial<TorqueInput>) => planTorque(input(over)).warnings.map((w) => w.code);

describe('planTorque', () => {
  it('aims at the middle of the dry spec in the steps of the wrench', () => {
    expect(planTorque(input())).toMatchObject({
      targetNm: 17.5,
      setting: { value: 17.5, unit: 'N·m' },
      wrenchOk: true,
      warnings: [],
    });
    expect(planTorque(input({ wrench: { ...wrench, unit: 'lbf·ft', min: 4, max: 20, step: 1 } })).setting).toEqual({
      value: 13,
      unit: 'lbf·ft',
    });
  });

  it('takes a single figure with the shop’s default tolerance: a step within that is good', () => {
    const feet = { ...wrench, unit: 'lbf·ft' as const, min: 4, max: 30, step: 1 };
    const point = { specNm: { min: 28, max: 28 }, thread: 'M14' as const, wrench: feet };
    expect(planTorque(input(point))).toMatchObject({ targetNm: 28, setting: { value: 21 }, wrenchOk: true });
    const coarse = { ...feet, step: 8 };
    expect(codes({ ...point, wrench: coarse })).toContain('step_misses_range');
  });

  it('lowers the torque for anti-seize', () => {
    expect(planTorque(input({ lubricant: 'anti_seize' })).targetNm).toBeCloseTo(12.25, 9);
    expect(planTorque(input({ lubricant: 'anti_seize', reduction: 0.2 })).targetNm).toBeCloseTo(14, 9);
    expect(codes({ lubricant: 'anti_seize', reduction: 0.5 })).toContain('reduction_outside_range');
  });

  it('corrects for an adapter in line and not for one at right angles', () => {
    expect(planTorque(input({ adapter: { lengthMm: 50, angleDeg: 0 } })).setting?.value).toBe(15);
    expect(planTorque(input({ adapter: { lengthMm: 50, angleDeg: 90 } })).setting?.value).toBe(17.5);
    expect(codes({ adapter: { lengthMm: 300, angleDeg: 180 } })).toContain('adapter_impossible');
    expect(codes({ wrench: undefined, adapter: { lengthMm: 50, angleDeg: 0 } })).toContain('adapter_without_wrench');
  });

  it('refuses a wrench below a fifth of its range, above its range, or out of calibration', () => {
    expect(codes({ wrench: { ...wrench, min: 5, max: 120 } })).toEqual(['wrench_too_large']);
    expect(codes({ wrench: { ...wrench, max: 15 } })).toEqual(['wrench_too_small']);
    expect(codes({ wrench: { ...wrench, calibratedOn: '2025-11-15' } })).toEqual(['wrench_not_calibrated']);
    expect(codes({ wrench: { ...wrench, calibratedOn: '2025-11-16' } })).toEqual([]);
    expect(codes({ wrench: { ...wrench, step: 10 } })).toEqual(['step_misses_range']);
  });

  it('offers the turn angle by seat and gasket', () => {
    expect(planTorque(input({ wrench: undefined }))).toMatchObject({
      setting: null,
      wrenchOk: false,
      angleDeg: { min: 180, max: 240 },
    });
    expect(planTorque(input({ gasket: 'used' })).angleDeg).toEqual({ min: 30, max: 45 });
    expect(planTorque(input({ seat: 'conical', thread: 'M14', specNm: { min: 12, max: 18 } })).angleDeg).toEqual({
      min: 22.5,
      max: 22.5,
    });
  });

  it('names the unit slip behind a doubtful spec', () => {
    const [warning] = planTorque(input({ specNm: { min: 150, max: 170 } })).warnings;
    expect(warning?.code).toBe('spec_outside_band');
    expect(warning?.message).toContain('lbf·in');
    expect(planTorque(input({ specNm: { min: 10, max: 11 } })).warnings[0]?.message).toContain('lbf·ft');
  });

  it('gives the plug its target through any adapter, wrench unit and fine step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 8, max: 35, noNaN: true }),
        fc.integer({ min: 0, max: 80 }),
        fc.integer({ min: 0, max: 120 }),
        fc.constantFrom('N·m', 'lbf·ft', 'lbf·in'),
        (target, length, angle, unit) => {
          const plan = planTorque(
            input({
              specNm: { min: target, max: target },
              wrench: { ...wrench, unit, step: 0.001, max: 1000 },
              adapter: { lengthMm: length, angleDeg: angle },
            }),
          );
          const atPlug =
            toSi(plan.setting?.value ?? 0, unit) * (1 + (length * Math.cos((angle * Math.PI) / 180)) / wrench.lengthMm);
          expect(atPlug).toBeCloseTo(plan.targetNm, 1);
        },
      ),
    );
  });
});

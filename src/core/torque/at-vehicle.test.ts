import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readAdapterMm, type ShopWrench, wrenchesFor, wrenchFaults } from './at-vehicle';

const ON = '2026-11-16';
const wrench = (over: Partial<ShopWrench>): ShopWrench => ({
  name: 'small',
  unit: 'N·m',
  min: 5,
  max: 25,
  step: 0.1,
  lengthMm: 250,
  calibratedOn: '2026-05-02',
  ...over,
});
const shop = [
  wrench({ name: 'large', min: 40, max: 200, step: 1, lengthMm: 500 }),
  wrench({}),
  wrench({ name: 'old', calibratedOn: '2024-01-01' }),
];
const range = { min: 16, max: 19 };
const hand = { wrench: '', adapter: '', settingNm: null, remark: '' };
const faults = (over: Partial<Omit<typeof hand, 'settingNm'>> & { settingNm?: number }) =>
  wrenchFaults(shop, range, { ...hand, ...over }, ON);

describe('the wrench in hand', () => {
  it('is chosen from those that may be used, and says why another may not', () => {
    const [first, ...others] = wrenchesFor(shop, range, null, ON);
    expect([first?.wrench.name, first?.ok, first?.setting]).toEqual(['small', true, { value: 17.5, unit: 'N·m' }]);
    expect(others.every(({ ok, says }) => !ok && says.length > 0)).toBe(true);
    expect(faults({ wrench: 'small' })).toEqual({});
    expect(faults({ wrench: 'large' }).wrench).toContain('too low for this wrench');
    expect(faults({ wrench: 'old' }).wrench).toContain('calibrat');
    expect(faults({ wrench: 'large', remark: 'the small one is at the laboratory' })).toEqual({});
  });

  it('is set as the torque says, less where an adapter makes it longer', () => {
    expect(faults({ settingNm: 17.5 })).toEqual({});
    expect(faults({ settingNm: 24 }).wrenchSetting).toContain('16 to 19 N·m');
    expect(faults({ settingNm: 17.5, adapter: '60 mm', wrench: 'small' }).wrenchSetting).toContain('adapter of 60 mm');
    expect(faults({ settingNm: 14.1, adapter: '60 mm', wrench: 'small' })).toEqual({});
    expect(faults({ settingNm: 14.1, adapter: '60' }).wrench).toContain('choose which wrench');
    expect(faults({ adapter: 'long' }).adapter).toContain('Write it like');
  });

  it('lets every setting that it names itself stand, with any adapter', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 8, max: 20, noNaN: true }),
        fc.option(fc.integer({ min: 5, max: 120 })),
        (middle, adapterMm) => {
          const wanted = { min: middle * 0.93, max: middle * 1.07 };
          const [best] = wrenchesFor(shop, wanted, adapterMm, ON);
          fc.pre(best?.ok === true && best.setting !== null);
          const adapter = adapterMm === null ? '' : `${adapterMm} mm`;
          const settingNm = best?.setting?.value ?? null;
          expect(wrenchFaults(shop, wanted, { wrench: 'small', adapter, settingNm, remark: '' }, ON)).toEqual({});
        },
      ),
    );
  });

  it('reads the length of an adapter and nothing else', () => {
    expect(['60', '60 mm', '6,5', 'a', '900', ''].map(readAdapterMm)).toEqual([60, 60, 6, null, null, null]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { disputed } from './dispute';
import { withOthersInForce } from './others-in-force';

type Sheet = Parameters<typeof withOthersInForce>[0];

const sheet = (id: string, over: Partial<Sheet & Record<string, unknown>> = {}): Sheet => ({
  id,
  partId: 'FS-2210',
  engineFamilyId: 'TV-22H',
  variant: null,
  modelYearFrom: null,
  modelYearTo: null,
  builtFrom: null,
  builtTo: null,
  serialFrom: null,
  serialTo: null,
  fuel: null,
  induction: null,
  market: null,
  sourceKind: 'service_information',
  sourceDocument: `document ${id}`,
  sourceDated: '2020-01-01',
  revision: 1,
  expired: false,
  checkedBy: 'M. Vane',
  gapMinMm: 1.0,
  gapMaxMm: 1.1,
  torqueMinNm: 20,
  torqueMaxNm: 25,
  primaryMinOhm: null,
  primaryMaxOhm: null,
  secondaryMinOhm: null,
  secondaryMaxOhm: null,
  minOhm: null,
  maxOhm: null,
  engineTemperature: null,
  lubricant: null,
  regap: null,
  method: null,
  ...over,
});

const maker = (over: Partial<Sheet> = {}): Sheet =>
  sheet('maker', {
    sourceKind: 'part_maker',
    gapMinMm: 1.05,
    gapMaxMm: 1.15,
    torqueMinNm: 18,
    torqueMaxNm: 23,
    ...over,
  });
const bulletin = (over: Partial<Sheet> = {}): Sheet =>
  sheet('bulletin', { sourceKind: 'bulletin', sourceDated: '2024-03-01', engineTemperature: 'cold', ...over });

describe('the makers of vehicle and part together', () => {
  const own = sheet('own');

  it('are worked by where both agree', () => {
    const both = withOthersInForce(own, [own, maker()]);
    expect(both).toMatchObject({ gapMinMm: 1.05, gapMaxMm: 1.1, torqueMinNm: 20, torqueMaxNm: 23 });
    expect(both.others.map(({ document, for: what }) => [document, what])).toEqual([
      ['document maker', 'gap'],
      ['document maker', 'torque'],
    ]);
  });

  it('stop where they leave nothing in common', () => {
    const far = maker({ torqueMinNm: 28, torqueMaxNm: 32 });
    expect(disputed(own, [own, far])).toBe(true);
    expect(withOthersInForce(own, [own, far])).toMatchObject({ torqueMinNm: 20, torqueMaxNm: 25 });
  });

  it.each([
    ['nobody checked', { checkedBy: null }],
    ['has expired', { expired: true }],
    ['is for another part', { partId: 'KM-9' }],
    ['is for fewer vehicles', { fuel: 'lpg' }],
    ['is the print on a box', { sourceKind: 'box' as const }],
  ])('leave alone what %s', (_, over) => {
    expect(withOthersInForce(own, [own, maker(over)])).toMatchObject({ gapMinMm: 1.0, others: [] });
  });

  it('never widen a range, and always lie in it', () => {
    const range = fc
      .tuple(fc.integer({ min: 60, max: 120 }), fc.integer({ min: 1, max: 30 }))
      .map(([min, width]) => ({ gapMinMm: min / 100, gapMaxMm: (min + width) / 100 }));
    fc.assert(
      fc.property(range, fc.array(range, { maxLength: 4 }), (mine, others) => {
        const first = sheet('own', mine);
        const all = [first, ...others.map((over, i) => sheet(`m${i}`, { sourceKind: 'part_maker', ...over }))];
        const { gapMinMm, gapMaxMm } = withOthersInForce(first, all);
        expect(gapMinMm).toBeGreaterThanOrEqual(mine.gapMinMm);
        expect(gapMaxMm).toBeLessThanOrEqual(mine.gapMaxMm);
      }),
    );
  });
});

describe('a bulletin', () => {
  const old = sheet('own', { engineTemperature: 'warm', lubricant: 'nickel' });

  it('that is newer stands above the sheet for what it speaks of, and for nothing else', () => {
    expect(withOthersInForce(old, [old, bulletin()])).toMatchObject({ engineTemperature: 'cold', lubricant: 'nickel' });
    expect(withOthersInForce(old, [old, bulletin({ gapMinMm: 0.5, gapMaxMm: 0.6 })])).toMatchObject({ gapMinMm: 1.0 });
  });

  it.each([
    ['is older', { sourceDated: '2019-01-01' }],
    ['has expired', { expired: true }],
    ['nobody checked', { checkedBy: null }],
    ['is for other vehicles', { serialFrom: 42000 }],
  ])('that %s does not', (_, over) => {
    expect(withOthersInForce(old, [old, bulletin(over)])).toMatchObject({ engineTemperature: 'warm', others: [] });
  });

  it('yields to a newer one', () => {
    const newest = bulletin({ id: 'newest', sourceDated: '2025-01-01', engineTemperature: 'warm', lubricant: 'dry' });
    const both = withOthersInForce(sheet('own'), [newest, bulletin({ method: 'soak first' })]);
    expect(both).toMatchObject({ engineTemperature: 'warm', lubricant: 'dry', method: 'soak first' });
  });
});

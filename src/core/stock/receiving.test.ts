import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDelivery, type Delivered, type Ordered, SAMPLE_DIFFERENCES } from './receiving';

const ordered: Ordered = {
  number: 'EM-7310',
  quantity: 12,
  approvedSources: ['Ferry Parts Store'],
  referencePrices: [9.8, 10.2, 10.0],
  gaps: [{ minMm: 1.0, maxMm: 1.1, electrode: 'fine_wire' }],
  sellerBanned: null,
  lotHistory: { fitted: 0, early: 0 },
};
const delivered: Delivered = {
  number: 'EM-7310',
  quantity: 12,
  source: 'Ferry Parts Store',
  price: 9.9,
  lot: 'L-204',
  gapsMm: [1.04, 1.05, 1.06],
  samePart: true,
  differsFromSample: [],
};
const verdictOf = (over: Partial<Delivered>) => checkDelivery(ordered, { ...delivered, ...over });
const codes = (over: Partial<Delivered>): string[] => verdictOf(over).reasons.map((r) => r.code);

describe('checkDelivery', () => {
  it('accepts what was ordered', () => {
    expect(verdictOf({})).toMatchObject({ verdict: 'accepted', reasons: [] });
  });

  it('tells one reason and accepts', () => {
    expect(verdictOf({ lot: null })).toMatchObject({ verdict: 'accepted', reasons: [{ code: 'no_lot' }] });
    expect(verdictOf({ price: 5.9 })).toMatchObject({
      verdict: 'accepted',
      reasons: [{ message: 'The price is 59 % of the usual one.' }],
    });
    expect(codes({ price: 6 })).toEqual([]);
  });

  it('sets aside on two reasons, on gaps all off, and on another boot or core', () => {
    expect(verdictOf({ lot: null, source: 'Market stall' }).verdict).toBe('quarantined');
    expect(verdictOf({ gapsMm: [0.79, 0.8, 0.81, 0.8] })).toMatchObject({
      verdict: 'quarantined',
      reasons: [{ code: 'gaps_off', message: expect.stringContaining('0.25 mm (0.010 in) narrow') }],
    });
    expect(verdictOf({ differsFromSample: ['core'] }).verdict).toBe('quarantined');
    expect(verdictOf({ differsFromSample: ['marking'] }).verdict).toBe('accepted');
  });

  it('sends a wrong number back, whatever else is right', () => {
    expect(verdictOf({ number: 'EM-7205', samePart: false })).toMatchObject({
      verdict: 'back_to_supplier',
      reasons: [{ message: 'Ordered EM-7310, the box says EM-7205.' }],
    });
  });

  it('holds a batch whose gaps no engine takes, one dropped among them or not', () => {
    const wide = [1.17, 1.18, 1.19, 1.17, 1.18, 1.19, 1.18];
    for (const gapsMm of [wide, [...wide, 0.7], [...wide, 1.05]])
      expect(verdictOf({ gapsMm })).toMatchObject({ verdict: 'quarantined', setAside: 0 });
    expect(codes({ gapsMm: [...wide, 0.7] })).toContain('gaps_off');
  });

  it('sets single plugs aside that no engine takes: they are no stock', () => {
    expect(verdictOf({ gapsMm: [1.05, 1.04, 1.06, 1.14] })).toMatchObject({
      verdict: 'accepted',
      setAside: 1,
      reasons: [{ code: 'gaps_damaged', message: expect.stringContaining('Plug 4 is outside') }],
    });
    const two = { ...ordered, gaps: [...ordered.gaps, { minMm: 1.12, maxMm: 1.2, electrode: 'fine_wire' as const }] };
    const other = checkDelivery(two, { ...delivered, gapsMm: [1.05, 1.04, 1.06, 1.14] });
    expect(other).toMatchObject({ verdict: 'accepted', setAside: 0 });
  });

  it('names the dropped plug of a good set, and counts', () => {
    expect(verdictOf({ gapsMm: [1.05, 1.05, 0.7, 1.06] }).reasons).toEqual([
      { code: 'gaps_damaged', message: expect.stringContaining('Plug 3') },
    ]);
    expect(codes({ quantity: 10 })).toEqual(['short_count']);
    expect(codes({ quantity: 13 })).toEqual(['over_count']);
  });

  it('judges no gap that was not measured, and no price without a reference', () => {
    expect(verdictOf({ gapsMm: [] }).batch).toBeNull();
    expect(checkDelivery({ ...ordered, referencePrices: [] }, { ...delivered, price: 0.01 }).reasons).toEqual([]);
    expect(checkDelivery({ ...ordered, approvedSources: [] }, { ...delivered, source: 'anyone' }).reasons).toEqual([]);
  });

  it('sets aside whatever comes from a banned seller, and says why', () => {
    const judged = checkDelivery({ ...ordered, sellerBanned: 'two forged batches' }, delivered);
    expect(judged).toMatchObject({ verdict: 'quarantined', suspicion: 3 });
    expect(judged.reasons[0]?.message).toContain('two forged batches');
  });

  it('weighs a lot that failed before: once is told, twice sets aside', () => {
    const outcome = (early: number) => checkDelivery({ ...ordered, lotHistory: { fitted: 12, early } }, delivered);
    expect(outcome(0)).toMatchObject({ verdict: 'accepted', suspicion: 0 });
    expect(outcome(1)).toMatchObject({ verdict: 'accepted', suspicion: 2 });
    expect(outcome(2)).toMatchObject({ verdict: 'quarantined', suspicion: 4 });
  });

  it('adds up what speaks for a counterfeit, and counts neither a short box nor a wrong gap', () => {
    expect(verdictOf({ price: 3, source: 'Market stall', differsFromSample: ['texture'] }).suspicion).toBe(6);
    expect(verdictOf({ quantity: 3 }).suspicion).toBe(0);
    expect(verdictOf({ gapsMm: [0.79, 0.8, 0.81, 0.8] }).suspicion).toBe(0);
  });

  it('never becomes milder by one more reason', () => {
    const order = ['accepted', 'quarantined', 'back_to_supplier'];
    const some = fc.record({
      lot: fc.constantFrom(null, 'L-1'),
      source: fc.constantFrom('Ferry Parts Store', 'Market stall'),
      price: fc.constantFrom(null, 2, 10),
      samePart: fc.boolean(),
      differsFromSample: fc.uniqueArray(fc.constantFrom(...SAMPLE_DIFFERENCES), { maxLength: 3 }),
    });
    fc.assert(
      fc.property(some, (over) => {
        const before = order.indexOf(verdictOf(over).verdict);
        expect(order.indexOf(verdictOf({ ...over, lot: null }).verdict)).toBeGreaterThanOrEqual(before);
        expect(order.indexOf(verdictOf({ ...over, source: 'Market stall' }).verdict)).toBeGreaterThanOrEqual(before);
      }),
    );
  });
});

import { describe, expect, it } from 'vitest';
import { personUnits } from '../units/person-units';
import type { Fields, JobRecord } from './entry';
import type { OrderModel, StepModel } from './order-model';
import { plugRules, plugService, untouched } from './order-model.fixture';
import { stepFaultsIn } from './order-rules';

const metric = personUnits('metric');
const lay: StepModel = {
  key: 'parts',
  kind: 'parts',
  title: 'Lay out the new plugs',
  perSite: false,
  asks: [{ key: 'parts', what: 'number and gap', kind: 'parts' }],
};
const model: OrderModel = { ...plugService, steps: [lay, ...plugService.steps] };

/** The four new plugs on the bench, some of them otherwise. */
const bench = (over: Readonly<Record<string, Fields>> = {}): JobRecord => ({
  ...untouched,
  ...Object.fromEntries(
    plugService.places.map(({ target, name }) => [
      target,
      { done: false, seen: {}, newNumber: 'EM-7310', newGap: '1.05', ...over[name] },
    ]),
  ),
});
const faults = (record: JobRecord, order = model): string => stepFaultsIn(order, record, 'parts', 0, metric).join(' ');

describe('the parts gate judges what is laid out', () => {
  it('opens for the right number, renumbered boxes among them, each gap in its range', () => {
    expect(faults(bench())).toBe('');
    expect(faults(bench({ 2: { newNumber: 'em 7301', newGap: '.041 in' } }))).toBe('');
  });

  it('names the place, the number that is wrong, how that part differs, and what to do', () => {
    const wrong = faults(bench({ 3: { newNumber: 'EM-7250' } }));
    expect(wrong).toContain('Cylinder 3: This engine takes EM-7310; EM-7250 has reach 19 mm instead of 26.5 mm');
    expect(wrong).toContain('set the plug aside');
    expect(faults(bench({ 3: { newNumber: 'EM-7300' } }))).toContain('another design of it, never mixed');
  });

  it('stays shut for a gap outside its range, and for designs that are mixed', () => {
    expect(faults(bench({ 4: { newGap: '0.65' } }))).toMatch(/^Cylinder 4: 0\.65 mm.* is outside 1\.00 to 1\.10 mm/);
    expect(faults(bench({ 1: { newNumber: 'EM-7311' } }))).toContain('never mixed within one engine');
    const whole = { newNumber: 'EM-7311' };
    expect(faults(bench({ 1: whole, 2: whole, 3: whole, 4: whole }))).toBe('');
  });

  it('names what is missing beside what is wrong', () => {
    const both = faults(bench({ 1: { newNumber: '' }, 2: { newGap: '0.5' } }));
    expect(both).toContain('Cylinder 2: 0.50 mm');
    expect(both).toContain('Missing: Cylinder 1');
  });

  it('bends an approved part as its own electrode takes it', () => {
    const nickel = { electrode: 'nickel', regap: 'adjust', reversals: 1 } as const;
    const rules = {
      ...plugRules,
      accepted: [...plugRules.accepted, ['KM9']],
      bendsOf: { KM9: nickel },
    };
    const approved: OrderModel = { ...model, tasks: [{ id: 'plugs', action: 'replace', component: 'plug', rules }] };
    const gap = (newNumber: string) => faults(bench({ 2: { newNumber, newGap: '0.84' } }), approved);
    expect(gap('KM-9')).toContain('open it by');
    expect(gap('EM-7310')).toContain('Set the plug aside and return it');
  });
});

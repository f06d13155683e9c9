import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { personUnits } from '../units/person-units';
import { applyEntry } from './apply-entry';
import { type Entry, type JobRecord, type Json, withEntries } from './entry';
import { countsIn, fieldsOf, placeIn, quantityIn, stepStateIn, stopsIn } from './order-model';
import { cold, plugService, untouched } from './order-model.fixture';
import { stepFaultsIn } from './order-rules';

/* What a device shows before it has sent, and what the desk makes of the same entries, are the same record. */

const metric = personUnits('metric');
let made = 0;
const entry = (target: string, field: string, value: Json, base: Json): Entry => ({
  id: `e${++made}`,
  target,
  field,
  value,
  base,
  at: '2026-11-16T08:30:00Z',
});

/** Something that one person at one device may press, with what the device knew. */
const anyPress = fc.oneof(
  fc.record({
    target: fc.constantFrom('site 1A', 'site 2A', 'site 3A', 'site 4A'),
    field: fc.constantFrom('observedNumber', 'newNumber', 'remark', 'newLot'),
    value: fc.constantFrom<Json>('EM-7310', 'em 7301', '', 'KM-1'),
  }),
  fc.record({
    target: fc.constantFrom('site 1A', 'site 2A', 'site 3A', 'site 4A'),
    field: fc.constantFrom('newGap', 'removedGap'),
    value: fc.constantFrom<Json>('1.05', '1,02 mm', '.041 in', ''),
  }),
  fc.record({
    target: fc.constantFrom('site 1A', 'site 2A'),
    field: fc.constant('seen'),
    value: fc.constantFrom<Json>({ 'nose tan': 2 }, { 'nose tan': 2, 'well dry': 2 }, { 'electrodes melted': 3 }),
  }),
  fc.record({
    target: fc.constantFrom('count tools', 'count screws_1'),
    field: fc.constantFrom('out', 'back'),
    value: fc.constantFrom<Json>(4, 7, null),
  }),
  fc.record({
    target: fc.constant('order'),
    field: fc.constant('trayFirst'),
    value: fc.constantFrom<Json>('1A', '4A'),
  }),
);

describe('one person at one device', () => {
  it('sees the record that the desk will have, press by press', () => {
    fc.assert(
      fc.property(fc.array(anyPress, { maxLength: 25 }), (presses) => {
        let desk: JobRecord = cold;
        const waiting: Entry[] = [];
        for (const { target, field, value } of presses) {
          const device = withEntries(cold, waiting);
          const one = entry(target, field, value, fieldsOf(device, target)[field] ?? null);
          waiting.push(one);
          const applied = applyEntry(plugService, desk, one, metric);
          expect(['kept', 'same']).toContain(applied.outcome);
          desk = applied.record;
        }
        const device = withEntries(cold, waiting);
        for (const { target } of plugService.places)
          for (const field of ['newGap', 'removedGap'] as const) {
            const [shown, kept] = [device, desk].map((at) =>
              quantityIn(plugService, target, field, placeIn(at, target)[field], metric),
            );
            // The same gap in other words is the same gap.
            expect(shown).toEqual(kept);
          }
        expect(countsIn(plugService, device)).toEqual(countsIn(plugService, desk));
        expect(stopsIn(plugService.layout, device, [])).toEqual(stopsIn(plugService.layout, desk, []));
        expect(stepFaultsIn(plugService, device, 'start', 0, personUnits('metric'))).toEqual(
          stepFaultsIn(plugService, desk, 'start', 0, personUnits('metric')),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('and another at a second device lose nothing to each other: each word stands, or stands beside', () => {
    fc.assert(
      fc.property(anyPress, anyPress, (mine, theirs) => {
        const base = (press: typeof mine): Json => fieldsOf(cold, press.target)[press.field] ?? null;
        const first = applyEntry(plugService, cold, entry(mine.target, mine.field, mine.value, base(mine)), metric);
        const second = applyEntry(
          plugService,
          first.record,
          entry(theirs.target, theirs.field, theirs.value, base(theirs)),
          metric,
        );
        if (second.outcome !== 'differs') return;
        expect([mine.target, mine.field]).toEqual([theirs.target, theirs.field]);
        expect(fieldsOf(second.record, mine.target)).toEqual(fieldsOf(first.record, mine.target));
      }),
    );
  });
});

describe('an order that nobody has touched', () => {
  it('is open in every step, has no count, and nothing that stops it', () => {
    for (const { key } of plugService.steps) expect(stepStateIn(untouched, key)).toBe('open');
    expect(stepStateIn(untouched, 'no such step')).toBe('open');
    expect(countsIn(plugService, untouched).every(({ out, back }) => out === null && back === null)).toBe(true);
    expect(stopsIn(plugService.layout, untouched, [])).toEqual([]);
    expect(fieldsOf(untouched, 'toString')).toEqual({});
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { personUnits } from '../units/person-units';
import { applyEntry, changesBetween } from './apply-entry';
import type { Entry, JobRecord, Json } from './entry';
import { fieldsOf, placeIn, quantityIn } from './order-model';
import { cold, plugService, untouched } from './order-model.fixture';
import { placeFaultsIn, stepFaultsIn } from './order-rules';

const metric = personUnits('metric');
const entry = (target: string, field: string, value: Json, base: Json = null): Entry => ({
  id: `${target} ${field}`,
  target,
  field,
  value,
  base,
  at: '2026-11-16T08:30:00Z',
});
const apply = (record: JobRecord, one: Entry, model = plugService) => applyEntry(model, record, one, metric);
/** Lays entries in one after the other; all are expected to be kept. */
const play = (record: JobRecord, entries: readonly Entry[]): JobRecord =>
  entries.reduce((at, one) => {
    const { outcome, message, record: next } = apply(at, one);
    expect(message ?? outcome).toBe('kept');
    return next;
  }, record);

const fitted = (id: string): readonly Entry[] => [
  entry(`site ${id}`, 'newNumber', 'EM-7310'),
  entry(`site ${id}`, 'newGap', '1.05'),
  entry(`site ${id}`, 'hole', 'sound'),
  entry(`site ${id}`, 'start', 'by hand'),
  entry(`site ${id}`, 'torqueMethod', 'wrench'),
  entry(`site ${id}`, 'installedTorque', '17.5'),
  entry(`site ${id}`, 'done', true, false),
];

describe('applyEntry at a site', () => {
  it('lets it be done with the right part, gap and torque, and tells what is missing before', () => {
    const early = apply(cold, entry('site 1A', 'done', true, false));
    expect(early).toMatchObject({ outcome: 'refused', record: cold });
    expect(early.message).toContain('Read the number off the new plug.');
    expect(placeIn(play(cold, fitted('1A')), 'site 1A').done).toBe(true);
  });

  it('opens a site again that no longer holds what it has to', () => {
    const done = play(cold, fitted('1A'));
    const { outcome, message, record } = apply(done, entry('site 1A', 'installedTorque', '24', '17.5'));
    expect([outcome, placeIn(record, 'site 1A').done]).toEqual(['kept', false]);
    expect(message).toContain('Cylinder 1 is open again.');
    expect(changesBetween(done, record)).toEqual([
      { target: 'site 1A', from: { installedTorque: '17.5', done: true }, to: { installedTorque: '24', done: false } },
    ]);
  });

  it('never mixes a redesign with what is fitted at another site', () => {
    const one = play(cold, fitted('1A'));
    const other = apply(
      play(one, [entry('site 2A', 'newNumber', 'EM-7311'), ...fitted('2A').slice(1, 6)]),
      entry('site 2A', 'done', true, false),
    );
    expect(other.message).toContain('never mixed');
  });

  it('takes the same quantity in other words as the same, and refuses what cannot be read', () => {
    const record = play(cold, [entry('site 1A', 'newGap', '1.05')]);
    expect(apply(record, entry('site 1A', 'newGap', '1,05 mm')).outcome).toBe('same');
    expect(apply(record, entry('site 1A', 'newGap', '1.05 N·m', '1.05'))).toMatchObject({ outcome: 'refused' });
    expect(apply(record, entry('site 1A', 'newGap', '1.08')).outcome).toBe('differs');
  });

  it('does not read a bare figure of one person in the units of another', () => {
    const typed = { text: '1.05', si: 1.05 };
    const known = {
      ...plugService,
      places: plugService.places.map((place) => ({ ...place, measured: { newGap: typed } })),
    };
    const us = personUnits('us');
    expect(quantityIn(plugService, 'site 1A', 'newGap', '1.05', us)).toBeNull();
    expect(quantityIn(known, 'site 1A', 'newGap', '1.05', us)).toBe(1.05);
    const record = play(cold, fitted('1A').slice(0, 6));
    expect(placeFaultsIn(known, record, 'site 1A', us).newGap).toBeUndefined();
  });

  it('knows its own fields and sites alone', () => {
    for (const [target, field] of [
      ['site 1A', '__proto__'],
      ['site 1A', 'toString'],
      ['site 9A', 'newGap'],
      ['cap 1', 'newGap'],
    ] as const)
      expect(apply(untouched, entry(target, field, 'x')).outcome).toBe('refused');
  });
});

describe('applyEntry elsewhere', () => {
  it('ticks a step only with what it asks for', () => {
    const early = apply(untouched, entry('step cold', 'state', 'done', 'open'));
    expect(early.message).toContain('engine temperature');
    const hot = play(untouched, [entry('step cold', 'answer.temperature', 'hot')]);
    expect(apply(hot, entry('step cold', 'state', 'done', 'open')).outcome).toBe('refused');
    const felt = play(untouched, [entry('step cold', 'answer.temperature', 'cold')]);
    expect(apply(felt, entry('step cold', 'state', 'done', 'open')).outcome).toBe('kept');
    expect(apply(felt, entry('step cold', 'answer.mood', 'good')).outcome).toBe('refused');
    expect(apply(felt, entry('step sites', 'state', 'done')).outcome).toBe('refused');
  });

  it('marks a step as not done only with a reason', () => {
    const notDone = entry('step cold', 'state', 'not_done', 'open');
    expect(apply(untouched, notDone).message).toContain('Say why');
    const why = play(untouched, [entry('step cold', 'answer.why', 'no thermometer')]);
    expect(apply(why, notDone).outcome).toBe('kept');
  });

  it('keeps the engine from being started while a site is open or something is not counted back', () => {
    expect(stepFaultsIn(plugService, cold, 'start', 0, metric).join(' ')).toMatch(
      /Cylinders 1, 2, 3, 4 not done yet.*tools/,
    );
    const whole = play(cold, [
      ...plugService.places.flatMap(({ id }) => fitted(id)),
      entry('count tools', 'out', 7),
      entry('count tools', 'back', 7),
    ]);
    // The screws of a cover that goes on after the first start are counted then.
    expect(stepFaultsIn(plugService, whole, 'start', 0, metric)).toEqual([]);
    const soaked = play(whole, [entry('site 1A', 'soakedAt', '2026-11-16T08:00:00Z')]);
    expect(stepFaultsIn(plugService, soaked, 'start', 0, metric).join(' ')).toContain('Penetrant was used');
  });

  it('takes the direction of the tray from a site that there is', () => {
    expect(apply(untouched, entry('order', 'trayFirst', '4A')).outcome).toBe('kept');
    expect(apply(untouched, entry('order', 'trayFirst', '9A')).outcome).toBe('refused');
    expect(apply(untouched, entry('order', 'state', 'closed')).outcome).toBe('refused');
    expect(apply(untouched, entry('count tools', 'lost', 1)).outcome).toBe('refused');
  });
});

describe('applyEntry whatever comes', () => {
  const anyEntry = fc
    .tuple(
      fc.constantFrom('site 1A', 'site 2A', 'step cold', 'count tools', 'order', 'site 7B', 'x'),
      fc.constantFrom(
        'newGap',
        'remark',
        'done',
        'seen',
        'state',
        'answer.temperature',
        'out',
        'trayFirst',
        '__proto__',
      ),
      fc.constantFrom<Json>('1.05', '', null, true, 3, 'cold', 'done', { 'nose tan': 2 }),
    )
    .map(([target, field, value]) => entry(target, field, value));

  it('changes what it keeps, at its own target alone, and nothing that it refuses', () => {
    fc.assert(
      fc.property(fc.array(anyEntry, { maxLength: 12 }), (entries) => {
        let record = untouched;
        for (const one of entries) {
          const applied = apply(record, one);
          const changed = changesBetween(record, applied.record).map(({ target }) => target);
          if (applied.outcome === 'kept') expect(changed.every((target) => target === one.target)).toBe(true);
          else expect(changed).toEqual([]);
          record = applied.record;
        }
        expect(Object.keys(record).sort()).toEqual(Object.keys(untouched).sort());
      }),
    );
  });

  it('takes an entry twice as once', () => {
    fc.assert(
      fc.property(anyEntry, (one) => {
        const first = apply(untouched, one);
        const again = apply(first.record, one);
        expect(fieldsOf(again.record, one.target)).toEqual(fieldsOf(first.record, one.target));
        if (first.outcome === 'kept') expect(again.outcome).toBe('same');
      }),
    );
  });
});

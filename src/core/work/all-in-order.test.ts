import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACCESS_CLASSES } from '../engine/access';
import { anyEngine } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { personUnits } from '../units/person-units';
import { phaseInOrder } from './all-in-order';
import { applyEntry } from './apply-entry';
import type { JobRecord } from './entry';
import type { FloorStep } from './job-record';
import { countsIn, fieldsOf, type OrderModel, stepStateIn } from './order-model';
import { plugService } from './order-model.fixture';
import { plainEngine } from './procedure/engine.fixture';
import { replaceTasks, visitProcedure } from './procedure/generate';
import { answerField, countTarget, stepTarget } from './targets';

const METRIC = personUnits('metric');

/** An order of any engine as it is opened, its new parts read. */
const anyOrder = fc
  .record({
    model: anyEngine,
    access: fc.array(fc.constantFrom(...ACCESS_CLASSES), { minLength: 2, maxLength: 2 }),
    hybrid: fc.boolean(),
    fuel: fc.constantFrom('petrol', 'lpg'),
  })
  .map(({ model, access, hybrid, fuel }) => {
    const engine = plainEngine(layoutOf(model), {
      access: access.slice(0, model.banks.length).map((one) => ({ access: one, minutes: 60 })),
      hybrid,
      fuel,
    });
    const { steps, counts } = visitProcedure({
      ...engine,
      tasks: replaceTasks(engine, ['plug']),
      plug: null,
      otherWork: [],
    });
    return {
      ...plugService,
      places: [],
      steps: steps as readonly FloorStep[],
      counts: counts.map(({ key, kind, what, count, out, back }) => ({
        key,
        kind,
        what,
        expected: count,
        outStep: out,
        backStep: back,
      })),
    };
  });
type Order = Omit<OrderModel, 'steps'> & { readonly steps: readonly FloorStep[] };

/** Before anybody has said anything. */
const untouched = ({ steps, counts }: Order): JobRecord =>
  Object.fromEntries([
    ...steps.map(({ key }) => [stepTarget(key), { state: 'open' }] as const),
    ...counts.map(({ key }) => [countTarget(key), { out: null, back: null }] as const),
  ]);

/** Presses for a phase, by the rules of the desk. @returns the record, and what was refused */
function press(model: Order, record: JobRecord, phase: Parameters<typeof phaseInOrder>[2]) {
  const { fields } = phaseInOrder(model, record, phase, METRIC);
  return fields.reduce(
    (at, { target, field, value }) => {
      const entry = {
        id: field,
        target,
        field,
        value,
        base: fieldsOf(at.record, target)[field] ?? null,
        at: '2026-11-16T08:00:00Z',
      };
      const applied = applyEntry(model, at.record, entry, personUnits('metric'));
      return { record: applied.record, refused: applied.outcome === 'refused' ? applied.message : at.refused };
    },
    { record, refused: null as string | null },
  );
}

describe('one press for a phase in order', () => {
  it('is taken by the rules of the desk, whatever the engine, and does what it says', () => {
    fc.assert(
      fc.property(anyOrder, (model) => {
        const said = phaseInOrder(model, {}, 'prepare', METRIC);
        const { record, refused } = press(model, untouched(model), 'prepare');
        expect(refused).toBeNull();
        for (const step of said.steps) expect(stepStateIn(record, step.key)).toBe('done');
        expect(said.says.length).toBeGreaterThanOrEqual(said.steps.length);
        expect(phaseInOrder(model, record, 'prepare', METRIC).steps).toEqual([]);
      }),
    );
  });

  it('says nothing that has to be read off, photographed, waited for or signed', () => {
    fc.assert(
      fc.property(anyOrder, (model) => {
        const steps = (['prepare', 'open', 'close', 'prove'] as const).flatMap(
          (phase) => phaseInOrder(model, {}, phase, METRIC).steps,
        );
        const kinds = steps.flatMap(({ asks }) => asks.flatMap(({ kind, optional }) => (optional ? [] : [kind])));
        for (const kind of ['text', 'codes', 'photo', 'wait', 'odometer']) expect(kinds).not.toContain(kind);
      }),
    );
  });

  it('counts back as many as went out, and says nothing over what was said otherwise', () => {
    fc.assert(
      fc.property(anyOrder, (model) => {
        const opened = press(model, press(model, untouched(model), 'prepare').record, 'open').record;
        const closed = press(model, opened, 'close').record;
        for (const { out, back, backStep } of countsIn(model, closed))
          if (stepStateIn(closed, backStep) === 'done') expect(back).toBe(out);
        const hot = { [stepTarget('cold')]: { [answerField('temperature')]: 'hot' } };
        expect(phaseInOrder(model, hot, 'prepare', METRIC).steps.some(({ kind }) => kind === 'cold')).toBe(false);
      }),
    );
  });

  it('leaves the new parts to be read', () => {
    const model = {
      ...plugService,
      steps: [
        {
          ...plugService.steps[0],
          key: 'parts',
          kind: 'parts',
          phase: 'prepare',
          asks: [{ key: 'parts', what: 'parts', kind: 'parts' }],
        },
      ],
    };
    expect(phaseInOrder(model as unknown as Order, {}, 'prepare', METRIC).steps).toEqual([]);
    expect(phaseInOrder({ ...model, places: [] } as unknown as Order, {}, 'prepare', METRIC).says).toEqual([
      'every new part read and measured, right number, gap in range',
    ]);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACCESS_CLASSES, type BankAccess } from '../../engine/access';
import { itemFromFields } from '../../engine/access-item-fields';
import { COIL_CONNECTORS } from '../../engine/access-items';
import { anyEngine } from '../../engine/any-engine.fixture';
import { layoutOf } from '../../engine/layout';
import { WORK_KIND_TABLE, WORK_KINDS, type WorkKind } from '../../engine/other-work';
import { allPlaces } from '../../engine/places';
import { TASK_COMPONENTS } from '../task';
import { visitProcedure } from './generate';
import { pipelineMinutes, soakPipeline } from './soak';
import { PHASES, type ProcedureInput, type Step } from './step';
import { banksOpened, type VisitTask } from './visit';

const any: fc.Arbitrary<ProcedureInput> = fc
  .record({
    model: anyEngine,
    access: fc.array(fc.constantFrom(...ACCESS_CLASSES), { minLength: 2, maxLength: 2 }),
    hybrid: fc.boolean(),
    fuel: fc.constantFrom(null, 'petrol', 'lpg'),
    seat: fc.constantFrom('gasket' as const, 'conical' as const),
    captive: fc.boolean(),
    opening: fc.constantFrom('bank' as const, 'one' as const),
    connectors: fc.constantFrom('unplug' as const, 'leave' as const),
    first: fc.constantFrom('before_covers' as const, 'after_covers' as const),
    battery: fc.constantFrom('by_class' as const, 'always' as const),
    seizes: fc.boolean(),
    seized: fc.boolean(),
    minutes: fc.integer({ min: 30, max: 400 }),
    otherWork: fc.constantFrom([], [{ what: 'air filter', kind: 'air_filter' as const, minutes: 10 }]),
  })
  .map((of) => ({
    layout: layoutOf(of.model),
    access: of.access.slice(0, of.model.banks.length).map((access): BankAccess => ({ access, minutes: 60 })),
    items: null,
    coolingMinutes: null,
    notes: [],
    options: [],
    ways: {},
    correction: 1,
    fasteners: [
      { what: 'coil bolt', holds: 'coil', size: 'M6', count: 4, torqueNm: 9, order: 'any', captive: of.captive },
    ],
    hybrid: of.hybrid,
    fuel: of.fuel,
    otherWork: of.otherWork,
    headMaterial: 'aluminium',
    tasks: [
      {
        action: 'replace' as const,
        component: 'plug' as const,
        places: layoutOf(of.model).sites,
        partNumber: 'EM-7310',
        torqueNm: null,
      },
    ],
    plug: {
      number: 'EM-7310',
      seat: of.seat,
      socket: '14 mm',
      method: null,
      gapMm: { min: 1, max: 1.1 },
      torqueNm: { min: 16, max: 19 },
      threads: { says: 'Dry as supplied: no compound on the threads.', compound: null },
    },
    weakPoints: of.seizes ? [{ kind: 'seizing', says: 'long shields seize' }] : [],
    earlier: of.seized ? { on: '2023-05-02', feel: 'seized', compound: null } : null,
    policies: {
      opening: of.opening,
      coil_connectors: of.connectors,
      first_start: of.first,
      battery: of.battery,
    },
    minutes: of.minutes,
  }));

const place = (steps: readonly Step[], key: string): number => steps.findIndex((step) => step.key === key);
const check = (rule: (input: ProcedureInput, steps: readonly Step[]) => void): void =>
  fc.assert(fc.property(any, (input) => rule(input, visitProcedure(input).steps)));

describe('visitProcedure', () => {
  it('goes from phase to phase, each step once, with a reason and its minutes', () => {
    check((input, steps) => {
      const { minutes } = visitProcedure(input);
      const phases = steps.map(({ phase }) => PHASES.indexOf(phase));
      expect(phases).toEqual([...phases].sort((a, b) => a - b));
      expect(new Set(steps.map(({ key }) => key)).size).toBe(steps.length);
      for (const step of steps) expect([step.why.length > 10, step.minutes > 0]).toEqual([true, true]);
      expect(steps.reduce((total, step) => total + step.minutes, 0)).toBe(minutes);
    });
  });

  it('takes what somebody stated for a service of all plugs, where nobody wrote what is on the way', () => {
    fc.assert(
      fc.property(any, (input) => {
        fc.pre(input.minutes > 200);
        const plain = { ...input, earlier: null, weakPoints: [], otherWork: [], fuel: 'petrol' };
        expect(Math.abs(visitProcedure(plain).minutes - input.minutes)).toBeLessThanOrEqual(20);
      }),
    );
  });

  it('soaks before it loosens where the engine seizes or did so the last time', () => {
    check((input, steps) => {
      const long = input.weakPoints.length > 0 || input.earlier !== null;
      expect(steps.some(({ kind }) => kind === 'loosen_long')).toBe(long);
      if (long) expect(place(steps, 'loosen_long')).toBe(place(steps, 'sites') - 1);
    });
  });

  it('isolates and cleans before a plug comes out, and counts before the engine is started', () => {
    check((_, steps) => {
      for (const before of ['safe', 'parts', 'cold', 'isolate', 'clean', 'leads', 'wells'])
        expect(place(steps, before)).toBeLessThan(place(steps, 'sites'));
      expect(place(steps, 'sites')).toBeLessThan(place(steps, 'count'));
      expect(place(steps, 'count')).toBeLessThan(place(steps, 'start'));
      expect(place(steps, 'codes_before')).toBeLessThan(place(steps, 'codes_after'));
    });
  });

  it('puts back what it took off in exactly the reverse order, covers after the first start where that is the rule', () => {
    check(({ policies }, steps) => {
      const keys = (kinds: readonly string[], prefix: RegExp) =>
        steps.filter(({ kind }) => kinds.includes(kind)).map(({ key }) => key.replace(prefix, ''));
      expect(keys(['close', 'lids'], /^(close|lids)_/)).toEqual(keys(['open'], /^open_/).reverse());
      const start = place(steps, 'start');
      for (const [i, step] of steps.entries())
        if (step.kind === 'lids') expect([policies.first_start, i > start]).toEqual(['before_covers', true]);
      for (const rags of steps.filter(({ kind }) => kind === 'rags')) {
        expect(steps.indexOf(rags)).toBeLessThan(place(steps, 'sites'));
        expect(steps.find(({ key }) => key === rags.key.replace('rags', 'close'))?.title).toContain('Rags out');
      }
    });
  });

  it('names the hazard where it is: traction, gas, open ports, hand start', () => {
    check(({ hybrid, fuel, access, plug }, steps) => {
      const caution = (key: string): string => steps.find((step) => step.key === key)?.caution ?? '';
      expect(caution('isolate').includes('traction voltage kills')).toBe(hybrid);
      expect(steps.some(({ key }) => key === 'gas')).toBe(fuel === 'lpg');
      expect(caution('sites')).toMatch(/by hand/);
      expect(caution('sites').includes('no gasket')).toBe(plug?.seat === 'conical');
      if (access.some((bank) => bank.access === 'under_intake'))
        expect(steps.map((step) => step.caution).join(' ')).toContain('a rag left in a port');
    });
  });

  it('says of the coils’ connectors what the chosen way does with them, off and on', () => {
    const harness = itemFromFields(null, { part: 'harness', what: 'coil harness', minutes_off: '3', minutes_on: '4' });
    expect(harness.faults).toEqual({});
    fc.assert(
      fc.property(any, fc.constantFrom(...COIL_CONNECTORS), (input, coilConnectors) => {
        const cylinders = input.layout.sites.map(({ cylinder }) => cylinder);
        const items = [{ ...harness.item, coilConnectors, opens: [...new Set(cylinders)] }];
        const titles = visitProcedure({ ...input, items }).steps.map(({ title }) => title);
        const lift = titles.find((title) => title.includes('then lift each'));
        const { connectorRail } = input.layout.model;
        if (!lift || connectorRail) return;
        expect(lift).not.toContain('Unplug each connector');
        expect(lift).toContain(coilConnectors === 'stay' ? 'stay plugged' : 'are off with the harness');
        const refit = titles.find((title) => title.includes('boot home')) ?? '';
        expect(refit).toContain(coilConnectors === 'stay' ? 'still home' : 'when the harness is back');
      }),
    );
  });

  it('counts what can be left behind, and no screw that stays in its part', () => {
    fc.assert(
      fc.property(any, (input) => {
        const { counts } = visitProcedure(input);
        const of = (what: string): number | null | undefined => counts.find((row) => row.what.includes(what))?.count;
        expect(of('coil bolt')).toBe(input.fasteners[0]?.captive ? undefined : 4);
        expect(of('gaskets')).toBe(input.plug?.seat === 'gasket' ? input.layout.sites.length : undefined);
        const ports = input.layout.model.banks.flatMap((bank, i) =>
          input.access[i]?.access === 'under_intake' ? bank.cylinders : [],
        ).length;
        const rags = counts.filter(({ key }) => key.startsWith('rags_'));
        expect(rags.reduce((sum, { count }) => sum + (count ?? 0), 0)).toBe(ports);
        const keys = new Set(visitProcedure(input).steps.map(({ key }) => key));
        for (const { out, back } of counts) expect([keys.has(out), keys.has(back)]).toEqual([true, true]);
      }),
    );
  });
});

describe('a visit of other tasks', () => {
  /** Any one or two tasks at some of the places that this engine has. */
  const anyVisit = fc
    .record({
      base: any,
      first: fc.constantFrom(...TASK_COMPONENTS),
      second: fc.constantFrom(...TASK_COMPONENTS),
      action: fc.constantFrom('replace' as const, 'inspect' as const, 'test' as const),
      some: fc.nat(),
    })
    .map(({ base, first, second, action, some }) => {
      const tasks = [...new Set([first, second])].flatMap((component): readonly VisitTask[] => {
        const all = allPlaces(base.layout, component);
        const places = all.filter((_, i) => ((some >> (i % 20)) & 1) === 1 || i === some % all.length);
        return places.length === 0 ? [] : [{ action, component, places, partNumber: 'X-1', torqueNm: null }];
      });
      return { ...base, tasks, plug: tasks.some(({ component }) => component === 'plug') ? base.plug : null };
    })
    .filter(({ tasks }) => tasks.length > 0);

  it('opens the banks that it reaches and no others, and closes what it opens', () => {
    fc.assert(
      fc.property(anyVisit, (input) => {
        const { steps, counts, minutes } = visitProcedure(input);
        const opened = banksOpened(input);
        const keys = new Set(steps.map(({ key }) => key));
        expect(keys.size).toBe(steps.length);
        for (const n of [1, 2].filter((bank) => !opened.has(bank))) expect(keys.has(`reach_${n}`)).toBe(false);
        for (const { out, back } of counts) expect([keys.has(out), keys.has(back)]).toEqual([true, true]);
        expect(steps.some(({ perSite }) => perSite)).toBe(true);
        expect(steps.some(({ kind }) => kind.startsWith('loosen'))).toBe(
          input.plug !== null && (input.weakPoints.length > 0 || input.earlier !== null),
        );
        expect(minutes).toBeGreaterThan(0);
      }),
    );
  });

  it('takes no more time than one with a task more', () => {
    fc.assert(
      fc.property(anyVisit, (input) => {
        const [first, ...others] = input.tasks;
        fc.pre(others.length > 0 && first !== undefined);
        const less = {
          ...input,
          tasks: others,
          plug: others.some(({ component }) => component === 'plug') ? input.plug : null,
        };
        expect(visitProcedure(less).minutes).toBeLessThanOrEqual(visitProcedure(input).minutes);
      }),
    );
  });
});

describe('the fuel gate goes by the kind of work, not by a word', () => {
  const fuelSteps = (input: ProcedureInput, what: string, kind: WorkKind) =>
    visitProcedure({ ...input, otherWork: [{ what, kind, minutes: 20 }] }).steps.filter((step) => step.kind === 'fuel');

  it('stands before petrol filters, injector rails and intake gaskets under any name', () => {
    fc.assert(
      fc.property(any, fc.string({ maxLength: 20 }), fc.constantFrom(...WORK_KINDS), (input, what, kind) => {
        const isFuel = WORK_KIND_TABLE[kind].hazards.includes('fuel');
        if (isFuel) expect(fuelSteps(input, what, kind)).toHaveLength(1);
        else expect(fuelSteps(input, what, kind)).toHaveLength(fuelSteps(input, 'air filter', 'air_filter').length);
      }),
    );
  });
});

describe('soakPipeline', () => {
  const times = fc.record({
    prepare: fc.integer({ min: 1, max: 20 }),
    soak: fc.integer({ min: 1, max: 120 }),
    remove: fc.integer({ min: 1, max: 30 }),
  });

  it('is done as soon as one person can be, and never later than one plug after the other', () => {
    expect(pipelineMinutes(soakPipeline(['1', '2', '3'], { prepare: 5, soak: 30, remove: 10 }))).toBe(65);
    fc.assert(
      fc.property(times, fc.integer({ min: 1, max: 16 }), (t, n) => {
        const slots = soakPipeline(
          Array.from({ length: n }, (_, i) => String(i)),
          t,
        );
        const end = pipelineMinutes(slots);
        expect(end).toBeLessThanOrEqual(n * (t.prepare + t.soak + t.remove));
        expect(end).toBe(Math.max(n * t.prepare, t.prepare + t.soak) + n * t.remove - idle(slots, t));
        for (const { soakedAt, removeAt, prepareAt } of slots) {
          expect(removeAt).toBeGreaterThanOrEqual(soakedAt);
          expect(soakedAt - prepareAt).toBe(t.prepare + t.soak);
        }
        for (const [i, slot] of slots.entries())
          if (i > 0) expect(slot.removeAt).toBeGreaterThanOrEqual(slots[i - 1]?.doneAt ?? 0);
      }),
    );
  });

  /** Waiting between two plugs makes the end later than the first removal and the work alone: negative idle. */
  function idle(slots: ReturnType<typeof soakPipeline>, { remove }: { remove: number }): number {
    let waited = 0;
    for (const [i, slot] of slots.entries())
      if (i > 0) waited += slot.removeAt - (slots[i - 1]?.removeAt ?? 0) - remove;
    return -waited;
  }

  it('takes no time for none, and refuses times that are none', () => {
    expect(pipelineMinutes(soakPipeline([], { prepare: 5, soak: 30, remove: 10 }))).toBe(0);
    expect(() => soakPipeline(['1'], { prepare: 0, soak: 30, remove: 10 })).toThrow(RangeError);
  });
});

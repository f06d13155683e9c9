import { and, eq, isNull } from 'drizzle-orm';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { closeForm } from '../../src/contracts/forms/work-orders';
import type { Fields } from '../../src/core/work/entry';
import { plugRulesOf } from '../../src/core/work/order-model';
import { fittedComponents, taskPlaces, workOrderSteps } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { approvePart } from '../../src/server/work-orders/approve-part';
import { addTasks, splitVisit, takeOffTask } from '../../src/server/work-orders/change-tasks';
import { cancelWorkOrder, closeWorkOrder, reopenWorkOrder } from '../../src/server/work-orders/close-work-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import type { TaskInput } from '../../src/server/work-orders/plan-tasks';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSteps, enter, floorOf } from '../builders/floor';
import { demoWorkspace, idOfUnit, inRole, value, type Workspace } from '../builders/workspace';

/* One stay of one vehicle: several tasks, closed place by place, split, taken off. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const idOf = (unit: string) => idOfUnit(w.deps, unit);
const view = async (id: string) => value(await viewWorkOrder(w.deps, actor, id));
type Asked = Partial<TaskInput> & Pick<TaskInput, 'component'>;
const task = (asked: Asked) => ({ action: 'replace' as const, why: 'reported' as const, note: '', ...asked });
const open = async (unit: string, ...tasks: readonly Asked[]) =>
  openWorkOrder(w.deps, actor, { vehicleId: await idOf(unit), tasks: tasks.map(task) });

const fitted = async (unit: string, component: 'plug' | 'coil') =>
  w.deps.db
    .select()
    .from(fittedComponents)
    .where(
      and(
        eq(fittedComponents.vehicleId, await idOf(unit)),
        eq(fittedComponents.component, component),
        isNull(fittedComponents.removedOn),
      ),
    );

/** Does one place with what a good one takes, and says what was refused. */
async function doPlace(orderId: string, target: string, over: Fields = {}): Promise<string | null> {
  const job = await floorOf(w.deps, actor, orderId);
  const place = job.places.find((one) => one.target === target);
  const own = job.tasks.find(({ id }) => id === place?.task);
  const plug = place?.component === 'plug' ? plugRulesOf(job) : null;
  const torqueNm = own?.rules.torqueNm ?? null;
  const results = await enter(w.deps, actor, orderId, target, {
    newNumber: own?.rules.partNumber ?? '',
    ...(torqueNm ? { torqueMethod: 'wrench', installedTorque: `${torqueNm.min} N·m` } : {}),
    ...(plug ? { newGap: `${plug.gap.minMm} mm`, compound: plug.lubricant === 'dry' ? null : 'nickel compound' } : {}),
    ...over,
    done: true,
  });
  return results.flatMap(({ message }) => message ?? []).join(' ') || null;
}

async function close(orderId: string, over: object = {}) {
  const { order, vehicle } = await view(orderId);
  const km = value(await viewVehicle(w.deps, actor, vehicle.id)).due.odometerNowKm ?? 0;
  const input = { workOrderId: orderId, version: order.version, odometer: `${Math.round(km + 1)} km`, ...over };
  return closeWorkOrder(w.deps, actor, closeForm.schema.parse(input));
}

describe('one coil in one cylinder', () => {
  let id: string;

  it('is a visit of its own, with the procedure of a coil and none of a plug', async () => {
    id = value(await open('37', { component: 'coil', places: ['3'] })).workOrderId;
    const { tasks, kit, plug, steps, order } = await view(id);
    expect(tasks.map(({ row, places }) => [row.action, row.component, places.map((place) => place.target)])).toEqual([
      ['replace', 'coil', ['coil 3A']],
    ]);
    expect(plug).toBeNull();
    expect(kit).toEqual([{ partNumber: 'NL-3806', component: 'coil', quantity: 1 }]);
    const kinds = steps.map(({ kind }) => kind);
    expect(kinds).toContain('sites');
    expect(kinds).not.toContain('loosen_long');
    expect(steps.find(({ kind }) => kind === 'parts')?.title).toContain('1 × NL-3806');
    // A whole plug service of this engine takes far longer.
    expect(order.minutes).toBeLessThan(165);
  });

  it('takes its part, its screw and its serial, and refuses another part and another torque', async () => {
    expect(await doPlace(id, 'coil 3A', { newNumber: 'NL-1104' })).toContain('This engine takes NL-3806');
    expect(await doPlace(id, 'coil 3A', { installedTorque: '22 N·m' })).toContain('the torque of its screw');
    expect(await doPlace(id, 'coil 3A', { tagIn: 'NC-900', seen: { 'coil body cracked': 3 } })).toBeNull();
    expect((await view(id)).findings.map(({ cause }) => cause)).toContain('coil_cracked');
    expect(await doPlace(id, 'coil 1A')).toContain('There is no');
  });

  it('closes with that coil moved, the plugs left as they were, and the reason of its task', async () => {
    const plugs = await fitted('37', 'plug');
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
    expect(await fitted('37', 'plug')).toEqual(plugs);
    const coils = await fitted('37', 'coil');
    expect(coils.find(({ cylinder }) => cylinder === 3)).toMatchObject({ tag: 'NC-900', workOrderId: id });
    const [out] = await w.deps.db.select().from(fittedComponents).where(eq(fittedComponents.removedByWorkOrderId, id));
    expect(out?.removalReason ?? 'failed').toBe('failed');
  });

  it('opens again with the record as it stood before', async () => {
    value(await reopenWorkOrder(w.deps, actor, { workOrderId: id, reason: 'the wrong cylinder' }));
    expect((await fitted('37', 'coil')).some(({ tag }) => tag === 'NC-900')).toBe(false);
    expect((await view(id)).tasks[0]?.places[0]?.state).toBe('done');
    value(await close(id));
  });
});

describe('one place', () => {
  it('is never in two open tasks, whichever way it is asked for', async () => {
    const first = value(await open('34', { component: 'plug', places: { bank: 'front' } })).workOrderId;
    expect(await open('34', { component: 'plug', places: 'all' })).toMatchObject({ error: { kind: 'conflict' } });
    const again = await addTasks(w.deps, actor, {
      workOrderId: first,
      tasks: [task({ component: 'plug', places: ['1'] })],
    });
    expect(again.ok).toBe(true);
    expect(await open('34', { component: 'coil', places: ['1'] }, { component: 'coil', places: 'all' })).toMatchObject({
      error: { message: expect.stringContaining('in two of these tasks') },
    });
    const [place] = await w.deps.db.select().from(taskPlaces).where(eq(taskPlaces.workOrderId, first));
    if (!place) throw new Error('no place');
    const { id: _, ...same } = place;
    const other = value(await open('34', { component: 'coil', places: ['2'] })).workOrderId;
    // The database itself says so.
    await expect(w.deps.db.insert(taskPlaces).values({ ...same, workOrderId: other })).rejects.toThrow();
    value(await cancelWorkOrder(w.deps, actor, { workOrderId: first, reason: 'to try' }));
    value(await cancelWorkOrder(w.deps, actor, { workOrderId: other, reason: 'to try' }));
    expect((await open('34', { component: 'plug', places: 'all' })).ok).toBe(true);
  });

  it('that this engine does not have is refused in words', async () => {
    expect(await open('11', { component: 'cap' })).toMatchObject({
      error: { message: 'This engine has no cap.' },
    });
    expect(await open('11', { component: 'coil', places: ['9'] })).toMatchObject({
      error: { message: expect.stringContaining('no coil at 9') },
    });
    expect(await open('11', { component: 'coil', places: { bank: 'rear' } })).toMatchObject({
      error: { message: 'This engine has no rear bank.' },
    });
  });
});

describe('a visit that is split', () => {
  let id: string;
  let friday: string;
  const rear = async () => {
    const { layout } = await view(id);
    return layout.model.banks.find(({ place }) => place === 'rear')?.cylinders ?? [];
  };

  it('takes what was recorded with it, and keeps its own clocks bank by bank', async () => {
    id = value(await open('33', { component: 'plug', why: 'due' }, { component: 'coil', places: ['2'] })).workOrderId;
    const back = await rear();
    const targets = back.map((cylinder) => `site ${cylinder}A`);
    await enter(w.deps, actor, id, targets[0] ?? '', { newNumber: 'EM-7310', newGap: '1.05 mm' });
    const done = value(
      await splitVisit(w.deps, actor, { workOrderId: id, places: targets, reason: 'rear bank on Friday' }),
    );
    friday = done.workOrderId;
    const [here, there] = [await view(id), await view(friday)];
    expect(here.tasks[0]?.places.filter(({ state }) => state === 'moved').map(({ target }) => target)).toEqual(targets);
    expect(there.sites.map(({ cylinder, newGapAsTyped }) => [cylinder, newGapAsTyped])).toEqual(
      back.map((cylinder, i) => [cylinder, i === 0 ? '1.05 mm' : null]),
    );
    // Nobody opens the rear bank today.
    expect(here.steps.some(({ kind }) => kind === 'rags')).toBe(false);
    expect(there.steps.some(({ kind }) => kind === 'rags')).toBe(true);
    expect(here.order.minutes + there.order.minutes).toBeGreaterThan(here.order.minutes);
  });

  it('refuses to record what went away, and to move what is done or everything', async () => {
    const [cylinder] = await rear();
    expect((await enter(w.deps, actor, id, `site ${cylinder}A`, { remark: 'x' }))[0]?.message).toContain(
      'another visit',
    );
    const { tasks } = await view(id);
    const left = tasks.flatMap(({ places }) =>
      places.filter(({ state }) => state === 'open').map(({ target }) => target),
    );
    expect(await splitVisit(w.deps, actor, { workOrderId: id, places: left, reason: 'all of it' })).toMatchObject({
      error: { kind: 'conflict' },
    });
    expect(await doPlace(id, left[0] ?? '')).toBeNull();
    const again = { workOrderId: id, places: left.slice(0, 1), reason: 'done already' };
    expect(await splitVisit(w.deps, actor, again)).toMatchObject({ error: { kind: 'conflict' } });
  });

  it('closes each by itself: the front bank counts from today, the rear bank as before', async () => {
    const back = await rear();
    for (const { places } of (await view(id)).tasks)
      for (const { target, state } of places) if (state === 'open') expect(await doPlace(id, target)).toBeNull();
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
    const plugs = await fitted('33', 'plug');
    for (const { cylinder, workOrderId } of plugs)
      expect([cylinder, workOrderId === id]).toEqual([cylinder, !back.includes(cylinder)]);
    expect((await view(friday)).order.state).not.toBe('closed');
    for (const cylinder of back) expect(await doPlace(friday, `site ${cylinder}A`)).toBeNull();
    expect(await doSteps(w.deps, actor, friday)).toEqual([]);
    value(await close(friday));
    expect((await fitted('33', 'plug')).every(({ workOrderId }) => workOrderId === id || workOrderId === friday)).toBe(
      true,
    );
  });
});

describe('any part of a set, in any order', () => {
  /** Vehicles of one engine with four plugs each, so that every trial has two of its own. */
  const spare = ['101', '103', '104', '106', '107', '108', '109', '110', '121', '122', '123', '102'];
  /** What went in, place by place, whichever order it came with. */
  const outcome = async (unit: string) =>
    (await fitted(unit, 'plug'))
      .sort((a, b) => a.cylinder - b.cylinder)
      .map(({ cylinder, installedOn, gapMm, installedKmCertainty, partId, history }) => ({
        cylinder,
        installedOn,
        gapMm,
        installedKmCertainty,
        partId,
        history,
      }));
  const finish = async (id: string) => {
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
  };

  it('split into two visits records what one visit would, and leaves one plug at each place', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.subarray([1, 2, 3, 4], { minLength: 1, maxLength: 3 }),
        fc.shuffledSubarray([1, 2, 3, 4], { minLength: 4 }),
        fc.boolean(),
        async (moved, order, secondFirst) => {
          const [whole = '', parted = ''] = spare.splice(0, 2);
          const one = value(await open(whole, { component: 'plug', why: 'due' })).workOrderId;
          for (const cylinder of order) expect(await doPlace(one, `site ${cylinder}A`)).toBeNull();
          await finish(one);

          const first = value(await open(parted, { component: 'plug', why: 'due' })).workOrderId;
          const places = moved.map((cylinder) => `site ${cylinder}A`);
          const split = value(await splitVisit(w.deps, actor, { workOrderId: first, places, reason: 'another day' }));
          const visits = [first, split.workOrderId];
          for (const id of secondFirst ? visits.reverse() : visits) {
            const own = order.filter((cylinder) => moved.includes(cylinder) === (id !== first));
            for (const cylinder of own) expect(await doPlace(id, `site ${cylinder}A`)).toBeNull();
            await finish(id);
          }
          expect(await outcome(parted)).toEqual(await outcome(whole));
          expect((await fitted(parted, 'plug')).map(({ cylinder }) => cylinder).sort()).toEqual([1, 2, 3, 4]);
        },
      ),
      { numRuns: process.env.TEST_DEEP ? 6 : 2, endOnFailure: true },
    );
  });
});

describe('tasks that come and go', () => {
  let id: string;

  it('are put on: the procedure grows, and a step that now says more is open again', async () => {
    id = value(await open('35', { component: 'plug', why: 'due' })).workOrderId;
    const stepOf = async (kind: 'parts' | 'cold') =>
      (
        await w.deps.db
          .select()
          .from(workOrderSteps)
          .where(and(eq(workOrderSteps.workOrderId, id), eq(workOrderSteps.kind, kind)))
      )[0];
    await w.deps.db.update(workOrderSteps).set({ state: 'done' }).where(eq(workOrderSteps.workOrderId, id));
    const before = (await view(id)).order.minutes;
    const added = { workOrderId: id, tasks: [task({ component: 'coil', places: ['2'], why: 'finding' })] };
    expect(await addTasks(w.deps, inRole(actor, 'technician'), added)).toMatchObject({ error: { kind: 'forbidden' } });
    value(await addTasks(w.deps, actor, added));
    expect((await view(id)).order.minutes).toBeGreaterThan(before);
    expect([(await stepOf('parts'))?.state, (await stepOf('cold'))?.state]).toEqual(['open', 'done']);
  });

  it('are taken off with a reason as long as nothing is done under them, and never the last', async () => {
    const { tasks } = await view(id);
    const [plugs, coil] = tasks.map(({ row }) => row.id);
    value(await takeOffTask(w.deps, actor, { workOrderId: id, taskId: coil ?? '', reason: 'it was the boot' }));
    expect((await view(id)).tasks.map(({ row }) => row.component)).toEqual(['plug']);
    expect(await takeOffTask(w.deps, actor, { workOrderId: id, taskId: plugs ?? '', reason: 'no' })).toMatchObject({
      ok: false,
    });
    // The place is free again.
    value(await addTasks(w.deps, actor, { workOrderId: id, tasks: [task({ component: 'coil', places: ['2'] })] }));
    value(await cancelWorkOrder(w.deps, actor, { workOrderId: id, reason: 'to try' }));
  });
});

describe('another part than the sheet names', () => {
  const approve = (over: object) => approvePart(w.deps, actor, over as never);

  it('goes in where a supervisor lets it in, with who and why, and is never mixed with the sheet’s own', async () => {
    const id = value(await open('102', { component: 'plug' })).workOrderId;
    const { tasks } = await view(id);
    const taskId = tasks[0]?.row.id ?? '';
    const ask = { workOrderId: id, taskId, number: 'EM-4182', as: 'equivalent', reason: 'none of ours on the island' };
    expect(await doPlace(id, 'site 1A', { newNumber: 'EM-4182' })).toContain('This engine takes');
    expect(await approvePart(w.deps, inRole(actor, 'technician'), ask as never)).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await approve({ ...ask, number: 'XX-1' })).toMatchObject({
      error: { fields: { number: expect.stringContaining('catalogue') } },
    });
    expect(await approve({ ...ask, number: 'FS-4190' })).toMatchObject({
      error: { message: expect.stringContaining('does not fit here') },
    });
    expect(await approve({ ...ask, number: 'NL-1804' })).toMatchObject({
      error: { message: expect.stringContaining('goes nowhere here') },
    });
    value(await approve(ask));
    expect((await view(id)).tasks[0]?.row.approved).toMatchObject([
      { number: 'EM-4182', as: 'equivalent', by: actor.name },
    ]);
    expect(await doPlace(id, 'site 1A', { newNumber: 'em 4182' })).toBeNull();
    expect(await doPlace(id, 'site 2A')).toContain('never mixed within one engine');
    for (const site of ['2A', '3A', '4A'])
      expect(await doPlace(id, `site ${site}`, { newNumber: 'EM-4182' })).toBeNull();
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
    expect(new Set((await fitted('102', 'plug')).map(({ observedNumber }) => observedNumber))).toEqual(
      new Set(['EM-4182', 'em 4182']),
    );
  });
});

describe('a look at plugs of unknown age', () => {
  it('asks what came of it, dates what stays in, and turns into a change on the spot', async () => {
    const { tasks } = await view(
      value(await open('52', { component: 'plug', action: 'inspect', why: 'due' })).workOrderId,
    );
    const id = tasks[0]?.row.workOrderId ?? '';
    const [first, ...others] = tasks[0]?.places.map(({ target }) => target) ?? [];
    const looked = { removedGap: '1.00 mm', seen: { 'nose tan': 2 }, newNumber: '', newGap: '' };
    expect(await doPlace(id, first ?? '', looked)).toContain('Say what came of it');
    expect(await doPlace(id, first ?? '', { ...looked, result: 'good' })).toContain('how much longer');
    expect(await doPlace(id, first ?? '', { ...looked, result: 'good', goodFor: '30,000 km' })).toBeNull();
    expect(await doPlace(id, others[0] ?? '', { ...looked, result: 'replaced' })).toContain('Read the number off');
    for (const target of others)
      expect(await doPlace(id, target, { ...looked, result: 'good', goodFor: '40,000 km' })).toBeNull();
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
    const rows = await fitted('52', 'plug');
    expect(rows).toHaveLength(1 + others.length);
    expect(new Set(rows.map(({ goodForKm, history }) => `${goodForKm} ${history}`))).toEqual(
      new Set(['30000 probable']),
    );
    expect(rows[0]?.checkedFrom).toContain('widest gap 1.00 mm');
    // What was assumed is an estimate now, and dated by the look.
    const { due } = value(await viewVehicle(w.deps, actor, await idOf('52')));
    expect([due.certainty, due.state]).toEqual(['estimated', 'later']);
    expect(due.breakdown.find(({ kind }) => kind === 'good')).toMatchObject({ forKm: 30_000 });
  });

  it('speaks for all of the set from a sample, where nothing is on record', async () => {
    expect(await fitted('24', 'plug')).toEqual([]);
    const id = value(await open('24', { component: 'plug', action: 'inspect', why: 'due', places: ['1'] })).workOrderId;
    const looked = { removedGap: '1.15 mm', seen: { 'nose tan': 2 }, newNumber: '', newGap: '' };
    expect(
      await doPlace(id, 'site 1A', { ...looked, observedNumber: 'KM-4180', result: 'good', goodFor: '25,000 km' }),
    ).toBeNull();
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
    const rows = await fitted('24', 'plug');
    expect(rows.map(({ history, goodForKm }) => [history, goodForKm])).toEqual(Array(4).fill(['probable', 25_000]));
    expect(rows.filter(({ observedNumber }) => observedNumber === 'KM-4180')).toHaveLength(1);
    expect(rows[0]?.checkedFrom).toContain('1 looked at');
    const { due } = value(await viewVehicle(w.deps, actor, await idOf('24')));
    expect([due.certainty, due.state]).toEqual(['estimated', 'later']);
  });

  it('says nothing of what went in on the same visit', async () => {
    const id = value(await open('12', { component: 'plug', action: 'inspect', why: 'due' })).workOrderId;
    const [first, ...others] = (await view(id)).tasks[0]?.places.map(({ target }) => target) ?? [];
    const seen = { removedGap: '1.00 mm', seen: { 'nose tan': 2 } };
    expect(await doPlace(id, first ?? '', { ...seen, result: 'replaced' })).toBeNull();
    const back = { ...seen, newNumber: '', newGap: '', result: 'good', goodFor: '20,000 km' };
    for (const target of others) expect(await doPlace(id, target, back)).toBeNull();
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    value(await close(id));
    const rows = await fitted('12', 'plug');
    expect(rows.filter(({ workOrderId }) => workOrderId === id)).toMatchObject([
      { goodForKm: null, history: 'proven' },
    ]);
    expect(rows.filter(({ goodForKm }) => goodForKm === 20_000)).toHaveLength(others.length);
  });

  it('may leave a place as it was, with the reason, and closes all the same', async () => {
    const id = value(
      await open('53', { component: 'coil', action: 'test', why: 'misfire', places: ['1', '2'] }),
    ).workOrderId;
    expect(await doPlace(id, 'coil 1A', { newNumber: '', torqueMethod: null, installedTorque: '' })).toContain(
      'Record what the test showed',
    );
    const tested = {
      newNumber: '',
      torqueMethod: null,
      installedTorque: '',
      primaryOhm: '0.7',
      secondaryOhm: 'OL',
      result: 'bad',
    };
    expect(await doPlace(id, 'coil 1A', tested)).toBeNull();
    await enter(w.deps, actor, id, 'coil 2A', { leftWhy: 'the engine is hot' });
    expect(await doSteps(w.deps, actor, id)).toEqual([]);
    const before = await fitted('53', 'coil');
    value(await close(id));
    expect(await fitted('53', 'coil')).toEqual(before);
    expect((await view(id)).tasks[0]?.places.map(({ state }) => state)).toEqual(['done', 'left']);
  });
});

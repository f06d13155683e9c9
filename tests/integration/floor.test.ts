import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { releaseSiteForm, waitForm } from '../../src/contracts/forms/work-orders';
import { codesInput, entriesInput } from '../../src/contracts/order-entry';
import {
  fleets,
  people,
  specSheets,
  taskPlaces,
  vehicles,
  workOrderCodes,
  workOrders,
  workTasks,
} from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { playTelematics } from '../../src/server/odometer/play-feed';
import { printOrder } from '../../src/server/paper/print-order';
import { SHEETS } from '../../src/server/paper/sheets';
import { listToOrder } from '../../src/server/stock/list-to-order';
import { closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { clearCodes, keepCodes } from '../../src/server/work-orders/codes';
import { handOver } from '../../src/server/work-orders/hand-over';
import { listWaiting } from '../../src/server/work-orders/list-waiting';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { keepPhoto, viewPhoto } from '../../src/server/work-orders/photos';
import { recordEntries } from '../../src/server/work-orders/record-entries';
import { releaseSite, takeOverSheet } from '../../src/server/work-orders/take-over-sheet';
import { viewFloor } from '../../src/server/work-orders/view-job';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { endWait, waitFor } from '../../src/server/work-orders/wait-for';
import { setWorking } from '../../src/server/work-orders/work-time';
import { doSite, doSteps, enter, entry, floorOf, openGates } from '../builders/floor';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
let order = '';
const good = { newNumber: 'EM-7310', newGap: '1.05 mm', torqueMethod: 'wrench', installedTorque: '17.5 N·m' };
const SITES = ['1A', '2A', '3A', '4A', '5A', '6A'];

const openFor = async (unit: string): Promise<string> => {
  const [vehicle] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  return value(await openWorkOrder(w.deps, actor, { vehicleId: vehicle?.id ?? '' })).workOrderId;
};
const view = async (id = order) => value(await viewWorkOrder(w.deps, actor, id));
const send = async (id: string, ...entries: ReturnType<typeof entry>[]) =>
  value(await recordEntries(w.deps, actor, { workOrderId: id, entries }));

beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
  order = await openFor('33');
  await openGates(w.deps, actor, order);
});

describe('what a device sends', () => {
  it('is kept once, however often it comes, and answered as the first time', async () => {
    const one = entry('site 1A', 'removedGap', '1.20 mm', '');
    const first = await send(order, one);
    expect(first).toEqual([{ id: one.id, outcome: 'kept', message: null }]);
    expect(await send(order, one, entry('site 1A', 'remark', 'x', ''))).toMatchObject([
      { outcome: 'kept' },
      { outcome: 'kept' },
    ]);
    expect((await view()).sites[0]).toMatchObject({ removedGapMm: 1.2, remark: 'x' });
  });

  it('says the same in other words, and otherwise: one stands, one waits for a choice', async () => {
    expect(await send(order, entry('site 1A', 'removedGap', '0.0472 in', ''))).toMatchObject([{ outcome: 'differs' }]);
    expect(await send(order, entry('site 1A', 'removedGap', '1.2 mm', ''))).toMatchObject([{ outcome: 'same' }]);
    const [difference] = (await floorOf(w.deps, actor, order)).differences;
    expect(difference).toMatchObject({ said: '0.0472 in', field: 'removedGap', by: actor.name });
    expect((await view()).missing.map(({ says }) => says).join(' ')).toContain('One field has two answers');
    const chosen = { ...entry('site 1A', 'removedGap', '1.20 mm', '1.20 mm'), resolves: difference?.id };
    expect(await send(order, chosen)).toMatchObject([{ outcome: 'same' }]);
    expect((await floorOf(w.deps, actor, order)).differences).toEqual([]);
  });

  it('is refused with the reason where it cannot be right, and the rest of it kept', async () => {
    const told = await send(
      order,
      entry('site 1A', 'newGap', '0.105 in', ''),
      entry('site 9A', 'remark', 'x', ''),
      entry('site 1A', 'colour', 'red', null),
      entry('site 1A', 'seen', { 'nose tan': 2, 'nose plaid': 2 }, {}),
      entry('step sites', 'state', 'done', 'open'),
      entry('count rags_intake_manifold', 'out', 3.5, null),
      entry('nowhere', 'x', 1, null),
      entry('site 1A', 'newLot', 'L-9', ''),
    );
    expect(told.map(({ outcome }) => outcome)).toEqual([...Array(7).fill('refused'), 'kept']);
    for (const { message } of told.slice(0, 7)) expect(message?.length).toBeGreaterThan(10);
    expect((await view()).sites[0]).toMatchObject({ newLot: 'L-9', newGapMm: null, conditions: null });
  });

  it('is never kept under a name that every object has, at a site, a step or a count', async () => {
    for (const field of ['__proto__', 'toString', 'constructor', 'hasOwnProperty']) {
      const told = await send(
        order,
        entry('site 1A', field, 'x', null),
        entry('step start', field, 'x', null),
        entry('count rags_intake_manifold', field, 1, null),
        entry('order', field, 'x', null),
      );
      expect([field, told.map(({ outcome }) => outcome)]).toEqual([field, Array(4).fill('refused')]);
    }
    expect((await floorOf(w.deps, actor, order)).differences).toEqual([]);
  });

  it('that cannot be read or stored is refused by itself, and the others are kept', async () => {
    const told = await send(
      order,
      entry('site 1A', 'remark', 'half \ud83d of a pair', 'x'),
      entry('site 1A', 'remark', 'nul \0', 'x'),
      { ...entry('site 1A', 'remark', 'y', 'x'), at: 'yesterday' },
      { ...entry('', 'remark', 'y', 'x') },
      entry('site 1A', 'newLot', 'L-10', 'L-9'),
    );
    expect(told.map(({ outcome }) => outcome)).toEqual([...Array(4).fill('refused'), 'kept']);
  });

  it('of another person is not taken as one’s own', async () => {
    const [technician] = await w.deps.db.select().from(people).where(eq(people.role, 'technician'));
    const theirs = { ...entry('site 1A', 'remark', 'mine', 'x'), by: technician?.id ?? '' };
    const own = { ...entry('site 1A', 'newLot', 'L-11', 'L-10'), by: actor.personId };
    expect(await send(order, theirs, own)).toMatchObject([
      { outcome: 'refused', message: expect.stringContaining('Somebody else') },
      { outcome: 'kept' },
    ]);
    // Sent again by the one who made it, it goes in.
    const another = { ...actor, personId: theirs.by };
    expect(await recordEntries(w.deps, another, { workOrderId: order, entries: [theirs] })).toMatchObject({
      value: [{ outcome: expect.not.stringContaining('refused') }],
    });
  });

  it('opens a done site again when what made it right is taken away', async () => {
    expect(await doSite(w.deps, actor, order, '1A', good)).toBeNull();
    const [result] = await enter(w.deps, actor, order, 'site 1A', { newGap: '1.30 mm' });
    expect(result).toMatchObject({ outcome: 'kept', message: expect.stringContaining('open again') });
    expect((await view()).sites[0]?.doneAt).toBeNull();
    expect(await doSite(w.deps, actor, order, '1A', good)).toBeNull();
  });

  it('is only for those who record work, in their own fleet, on an order that is open', async () => {
    const entries = [entry('site 2A', 'remark', 'x', '')];
    expect(await recordEntries(w.deps, inRole(actor, 'viewer'), { workOrderId: order, entries })).toMatchObject({
      error: { kind: 'forbidden' },
    });
    const stranger = { ...actor, fleetId: randomUUID() };
    expect(await recordEntries(w.deps, stranger, { workOrderId: order, entries })).toMatchObject({
      error: { kind: 'not-found' },
    });
    expect(entriesInput.safeParse({ workOrderId: order, entries: [] }).success).toBe(false);
  });
});

describe('the gates', () => {
  it('hold the start until every hole is closed and every count is back', async () => {
    const refused = await doSteps(w.deps, actor, order);
    expect(refused.join(' ')).toMatch(/Cylinders 2, 3, 4, 5, 6 not done yet/);
    for (const site of SITES) expect(await doSite(w.deps, actor, order, site, good)).toBeNull();
    await enter(w.deps, actor, order, 'count rags_intake_manifold', { back: 2 });
    const [start] = await enter(w.deps, actor, order, 'step start', { state: 'done' });
    expect(start).toMatchObject({ outcome: 'refused', message: expect.stringContaining('Find the missing 1') });
    await enter(w.deps, actor, order, 'count rags_intake_manifold', { back: 3 });
    expect(await enter(w.deps, actor, order, 'step start', { state: 'done' })).toMatchObject([{ outcome: 'kept' }]);
  });

  it('take no step as done whose answer says otherwise, or whose record is missing', async () => {
    const id = await openFor('35');
    await enter(w.deps, actor, id, 'step safe', { state: 'done' });
    const tick = () => enter(w.deps, actor, id, 'step cold', { state: 'done' });
    expect(await tick()).toMatchObject([{ message: 'Say: engine temperature.' }]);
    await enter(w.deps, actor, id, 'step cold', { 'answer.temperature': 'hot' });
    expect((await tick())[0]?.message).toContain('has to be cold');
    await enter(w.deps, actor, id, 'step cold', { 'answer.temperature': 'cold' });
    expect(await tick()).toMatchObject([{ outcome: 'kept' }]);
  });

  it('want the cylinders cleared of penetrant before anything is cranked', async () => {
    const id = await openFor('36');
    for (const site of SITES) expect(await doSite(w.deps, actor, id, site, good)).toBeNull();
    await enter(w.deps, actor, id, 'site 3A', { soakedAt: '2026-11-16T08:00:00Z' });
    await enter(w.deps, actor, id, 'site 4A', { soakedAt: '2026-11-16T08:05:00Z' });
    const steps = (await view(id)).steps.map(({ key }) => key);
    expect(steps.filter((key) => key === 'clear')).toHaveLength(1);
    expect(steps.indexOf('clear')).toBeLessThan(steps.indexOf('sites'));
    const refused = await doSteps(w.deps, actor, id, { clear: 'not_done' });
    expect(refused.join(' ')).toMatch(/clear the cylinders of fluid/i);
  });

  it('are loosened by the long method where this engine seized the last time, and the order asks for the time', async () => {
    const before = await openFor('104');
    const { order: usual, steps } = await view(before);
    expect(steps.some(({ kind }) => kind === 'loosen_long')).toBe(false);
    await enter(w.deps, actor, before, 'site 2A', { breakawayFeel: 'seized' });
    await w.deps.db
      .update(workOrders)
      .set({ state: 'closed', closedOn: '2026-11-15', closedKm: 100_000 })
      .where(eq(workOrders.id, before));
    await w.deps.db.update(taskPlaces).set({ live: false }).where(eq(taskPlaces.workOrderId, before));
    const now = await view(await openFor('104'));
    expect(now.steps.find(({ kind }) => kind === 'loosen_long')?.why).toContain('seized on 2026-11-15');
    expect(now.order.minutes).toBeGreaterThan(usual.minutes);
    expect([now.before?.on, now.before?.places.find(({ cylinder }) => cylinder === 2)?.breakawayFeel]).toEqual([
      '2026-11-15',
      'seized',
    ]);
    expect((await view(before)).before).toBeNull();
  });

  it('hold a site at which the wrench said stop until it is tightened anew or somebody says what was found', async () => {
    const id = await openFor('37');
    const curve = { points: [[0, 1]], verdict: 'stop', fault: 'yielding', peakNm: 14, contactDeg: 90, source: 'test' };
    expect(await doSite(w.deps, actor, id, '1A', { ...good, curve })).toContain('The wrench said stop');
    expect(await doSite(w.deps, actor, id, '1A', { remark: 'thread inserted, supervisor saw it' })).toBeNull();
  });
});

describe('a sheet that changes in the midst of a job', () => {
  it('puts what is done on a list to redo, and the order closes only when each is redone or released', async () => {
    const id = await openFor('34');
    expect(await doSite(w.deps, actor, id, '1A', good)).toBeNull();
    expect(await doSite(w.deps, actor, id, '2A', good)).toBeNull();
    const [before] = await w.deps.db.select().from(workTasks).where(eq(workTasks.workOrderId, id));
    const [sheet] = await w.deps.db
      .select()
      .from(specSheets)
      .where(eq(specSheets.id, before?.specSheetId ?? ''));
    if (!sheet) throw new Error('no sheet');
    const { id: _, ...same } = sheet;
    await w.deps.db
      .insert(specSheets)
      .values({ ...same, revision: sheet.revision + 1, torqueMinNm: 18, torqueMaxNm: 20 });
    expect((await view(id)).sheetChanged).toContain(`revision ${sheet.revision + 1}`);
    expect((await view(id)).missing[0]?.says).toContain('Another sheet is in force now');
    value(await takeOverSheet(w.deps, actor, id));
    expect((await view(id)).sites.filter(({ redo }) => redo).map(({ name }) => name)).toEqual(['1', '2']);
    const [again] = await enter(w.deps, actor, id, 'site 1A', { done: false });
    expect(again?.outcome).toBe('kept');
    expect(await doSite(w.deps, actor, id, '1A', good)).toContain('outside 18 to 20 N·m');
    expect(await doSite(w.deps, actor, id, '1A', { installedTorque: '19 N·m' })).toBeNull();
    const release = (who: Actor, site: string) =>
      releaseSite(
        w.deps,
        who,
        releaseSiteForm.schema.parse({ workOrderId: id, target: `site ${site}`, reason: 'maker says it may stay' }),
      );
    expect(await release(inRole(actor, 'technician'), '2A')).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await release(actor, '1A')).toMatchObject({ error: { kind: 'conflict' } });
    value(await release(actor, '2A'));
    expect((await view(id)).sites.some(({ redo }) => redo)).toBe(false);
  });
});

describe('a job that stops halfway', () => {
  it('says what it waits for, drafts the order less what lies here, and holds the close', async () => {
    const wait = (over: object) =>
      waitFor(w.deps, actor, waitForm.schema.parse({ workOrderId: order, reason: 'A boot is torn', ...over }));
    expect(await wait({ nextPersonId: randomUUID() })).toMatchObject({ error: { kind: 'not-found' } });
    expect(await wait({ site: '9Z' })).toMatchObject({ error: { fields: { site: expect.any(String) } } });
    expect(await wait({ partNumber: 'ZZ-1' })).toMatchObject({ error: { fields: { partWhat: expect.any(String) } } });
    value(await setWorking(w.deps, actor, { workOrderId: order, working: true }));
    // By the name that screens give a place.
    const part = { partNumber: 'ZZ-1', partWhat: 'boot', quantity: '2' };
    value(await wait({ site: '3', note: 'the clip is in the tray', nextPersonId: actor.personId, ...part }));
    const { stops, times, missing } = await view();
    expect(stops).toMatchObject([{ place: '3', part: '2 × ZZ-1', note: 'the clip is in the tray' }]);
    expect(stops[0]?.next).toBe(stops[0]?.by);
    expect(value(await viewFloor(w.deps, actor, order)).stops).toEqual(stops);
    expect(times.every(({ time }) => time.toAt !== null)).toBe(true);
    expect(missing.map(({ says }) => says).join(' ')).toContain('Waits: A boot is torn');
    const { lines } = value(await listToOrder(w.deps, actor, { weeks: 1 }));
    const lineOf = (part: string) => lines.find(({ number }) => number === part);
    expect(lineOf('ZZ-1')).toMatchObject({
      what: 'boot',
      needed: 2,
      quantity: 2,
      orderBy: w.deps.today(),
      whys: ['waits'],
    });
    // Three wanted, two on hand, four in a pack.
    expect(lineOf('NL-3811')).toMatchObject({ needed: 3, onHand: 2, quantity: 4 });
    value(await endWait(w.deps, actor, { workOrderId: order, waitId: stops[0]?.id ?? '' }));
    expect((await view()).stops).toEqual([]);
    expect(value(await listWaiting(w.deps, actor)).map(({ wait: { partNumber } }) => partNumber)).toEqual(['NL-3811']);
  });
});

describe('codes, pictures and paper', () => {
  it('clears no code that was not kept', async () => {
    const id = await openFor('52');
    expect(await clearCodes(w.deps, actor, id)).toMatchObject({ error: { kind: 'conflict' } });
    const keep = (typed: string) =>
      keepCodes(w.deps, actor, codesInput.parse({ workOrderId: id, moment: 'before', typed }));
    expect(await keep('P0301 X99')).toMatchObject({ error: { fields: { typed: expect.stringContaining('X99') } } });
    value(await keep('p0301, P0171'));
    value(await clearCodes(w.deps, actor, id));
    expect((await view(id)).codes).toMatchObject([
      { codes: [{ code: 'P0301' }, { code: 'P0171' }], clearedAt: expect.any(Date) },
    ]);
  });

  it('keeps a picture once, and nothing that is none', async () => {
    const png = Buffer.from('89504e470d0a1a0a0000', 'hex');
    const input = { id: randomUUID(), workOrderId: order, target: 'site 1A', at: '2026-11-16T08:00:00Z' };
    value(await keepPhoto(w.deps, actor, { ...input, bytes: png }));
    value(await keepPhoto(w.deps, actor, { ...input, bytes: png }));
    expect((await view()).photos).toHaveLength(1);
    expect(value(await viewPhoto(w.deps, actor, { workOrderId: order, id: input.id })).bytes).toEqual(png);
    expect(await keepPhoto(w.deps, actor, { ...input, id: randomUUID(), bytes: Buffer.from('hello') })).toMatchObject({
      error: { kind: 'invalid' },
    });
    expect(
      await viewPhoto(w.deps, { ...actor, fleetId: randomUUID() }, { workOrderId: order, id: input.id }),
    ).toMatchObject({
      error: { kind: 'not-found' },
    });
  });

  it.each(SHEETS)('prints the %s as PDF on both papers', async (sheet) => {
    for (const size of ['A4', 'LETTER'] as const) {
      const made = value(
        await printOrder(w.deps, actor, { workOrderId: order, sheet, size, address: 'http://isobar.example' }),
      );
      const text = made.bytes.toString('latin1');
      expect(text.startsWith('%PDF-')).toBe(true);
      expect(text).toContain(size === 'A4' ? '595.28 841.89' : '612 792');
      expect(text).toMatch(/AtkinsonHyperlegible/);
      // What is carried to the vehicle is a sheet, front and back, at most.
      expect((text.match(/\/Type \/Page\b(?!s)/g) ?? []).length).toBeLessThanOrEqual(2);
    }
  });
});

describe('handing over', () => {
  it('is signed by who did the work, verified by a supervisor, with the time that it took', async () => {
    const technician = inRole(actor, 'technician');
    // The sheet of this engine changed above, after these sites were done.
    value(await takeOverSheet(w.deps, actor, order));
    expect(await handOver(w.deps, technician, order)).toMatchObject({
      error: { message: expect.stringContaining('done under another sheet') },
    });
    for (const site of SITES)
      value(
        await releaseSite(w.deps, actor, {
          workOrderId: order,
          target: `site ${site}`,
          reason: 'within the new range too',
        }),
      );
    expect(await doSteps(w.deps, actor, order)).toEqual([]);
    value(await setWorking(w.deps, technician, { workOrderId: order, working: true }));
    value(await handOver(w.deps, technician, order));
    const { order: row } = await view();
    expect(row.handedOverBy).toBe(actor.personId);
    const input = { workOrderId: order, version: row.version, odometer: '1', note: '' };
    expect(await closeWorkOrder(w.deps, technician, input)).toMatchObject({ error: { kind: 'forbidden' } });
    const [{ km = 0 } = {}] = (
      await w.pool.query<{ km: number }>('select odometer_km::float8 as km from due_inputs where vehicle_id = $1', [
        row.vehicleId,
      ])
    ).rows;
    value(await closeWorkOrder(w.deps, actor, { ...input, odometer: `${Math.round(km + 5)} km` }));
    expect((await view()).order).toMatchObject({ state: 'closed', minutesWorked: 0 });
  });
});

describe('outside devices', () => {
  it('answer in a demo fleet alone: nowhere else does a stand-in write what it invented', async () => {
    const id = await openFor('103');
    const ask = () => keepCodes(w.deps, actor, codesInput.parse({ workOrderId: id, moment: 'before' }));
    const kept = () => w.deps.db.$count(workOrderCodes, eq(workOrderCodes.workOrderId, id));
    await w.deps.db.update(fleets).set({ isDemo: false });
    expect(await ask()).toMatchObject({
      ok: false,
      error: { kind: 'conflict', fields: { typed: expect.any(String) } },
    });
    expect(await playTelematics(w.deps, actor, { seed: 1 })).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    expect(value(await viewFloor(w.deps, actor, id)).demo).toBe(false);
    expect(await kept()).toBe(0);
    await w.deps.db.update(fleets).set({ isDemo: true });
    value(await ask());
    expect(await kept()).toBe(1);
  });
});

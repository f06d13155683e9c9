import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { bays, bookings, people } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { changeDepot, listBays, listDepots } from '../../src/server/fleet/bays';
import { exportWeek } from '../../src/server/planning/export-plan';
import { planWorkOrder, unplanWorkOrder } from '../../src/server/planning/plan-work-order';
import { viewBoard } from '../../src/server/planning/view-board';
import { findWorkOrders, listWorkOrders, orderFilter } from '../../src/server/work-orders/list-work-orders';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { demoWorkspace, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const order = async (number: number) =>
  value(await listWorkOrders(w.deps, actor)).items.find((o) => o.number === number)?.id ?? '';
const person = async (name: string) =>
  (await w.deps.db.select().from(people).where(eq(people.name, name)))[0]?.id ?? '';
const bayAt = async (depot: string, name: string) =>
  value(await listBays(w.deps, actor)).find((b) => b.depot === depot && b.name === name)?.id ?? '';
const plan = async (over: object = {}) =>
  planWorkOrder.withUnknown(w.deps, actor, {
    workOrderId: await order(1004),
    day: '2026-11-16',
    start: '09:00',
    minutes: 60,
    bayId: await bayAt('Quarry Cross', 'Bay 1'),
    personId: await person('S. Pirie'),
    ...over,
  });

const vehicle = async (unit: string) =>
  value(await listDue(w.deps, actor, dueFilter.parse({}))).items.find((i) => i.unitNumber === unit)?.vehicleId ?? '';

describe('planning', () => {
  it('shows hours taken and left, and what is not planned', async () => {
    const week = value(await viewBoard(w.deps, actor, { day: '2026-11-18', depot: 'Northhaven' }));
    expect(week?.monday).toBe('2026-11-16');
    expect(week?.jobs.find(({ unitNumber }) => unitNumber === '32')).toMatchObject({ minutes: 210, place: null });
    const waits = week?.jobs.filter(({ booking }) => booking === null) ?? [];
    expect(waits.map(({ unitNumber }) => unitNumber)).toContain('42');
  });

  it('refuses the same person twice at one time, by the database', async () => {
    expect(await plan({ personId: await person('M. Vane') })).toMatchObject({
      ok: false,
      error: { kind: 'conflict', message: expect.stringContaining('1001 from 08:00 to 11:30') },
    });
    await expect(
      w.deps.db.insert(bookings).values({
        fleetId: actor.fleetId,
        workOrderId: await order(1004),
        bayId: await bayAt('Quarry Cross', 'Bay 1'),
        personId: await person('M. Vane'),
        during: '[2026-11-16 10:00,2026-11-16 10:30)',
      }),
    ).rejects.toThrow();
  });

  it('refuses the same bay twice, allows it back to back', async () => {
    value(await plan());
    const vehicleId = await vehicle('34');
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId }));
    const corrie = { workOrderId, personId: await person('A. Corrie') };
    expect(await plan({ ...corrie, start: '09:59' })).toMatchObject({
      ok: false,
      error: { kind: 'conflict', fields: { bayId: expect.any(String) } },
    });
    value(await plan({ ...corrie, start: '10:00' }));
  });

  it('moves and takes off', async () => {
    value(await plan({ start: '13:00' }));
    value(await unplanWorkOrder(w.deps, actor, await order(1004)));
    const week = value(await viewBoard(w.deps, actor, { day: TODAY, depot: 'Quarry Cross' }));
    expect(week?.jobs.find(({ number }) => number === 1004)).toMatchObject({ booking: null });
    expect(await unplanWorkOrder(w.deps, actor, await order(1004))).toMatchObject({ ok: false });
  });

  it.each([
    [{ day: '2026-11-13' }, 'day'],
    [{ day: '2026-11-21' }, 'day'],
    [{ start: '06:30' }, 'start'],
    [{ day: '2026-11-16', depot: 'Eastlight' }, 'bayId'],
  ])('refuses %j', async ({ depot, ...over }: { day?: string; start?: string; depot?: string }, field) => {
    const bay = depot ? { bayId: await bayAt(depot, 'Bay 1') } : {};
    expect(await plan({ ...over, ...bay })).toMatchObject({
      ok: false,
      error: { fields: { [field]: expect.any(String) } },
    });
  });

  it('works by the days and hours of the depot, as somebody last set them', async () => {
    const depotId = value(await listDepots(w.deps, actor)).find(({ name }) => name === 'Quarry Cross')?.id ?? '';
    const hours = { depotId, timeZone: 'Europe/Lisbon', workingDays: ['6', '1'], opens: '06:00', closes: '14:00' };
    value(await changeDepot.withUnknown(w.deps, actor, hours));
    const week = value(await viewBoard(w.deps, actor, { day: TODAY, depot: 'Quarry Cross' }));
    // Bay 2 has hours of its own.
    expect(week?.problem.bays.find(({ name }) => name === 'Bay 1')?.open).toEqual([
      { day: '2026-11-16', fromMin: 360, toMin: 840 },
      { day: '2026-11-21', fromMin: 360, toMin: 840 },
    ]);
    value(await plan({ day: '2026-11-21', start: '06:30' }));
    expect(await plan({ day: '2026-11-17' })).toMatchObject({ error: { fields: { day: expect.any(String) } } });
    for (const wrong of [
      { timeZone: 'Mars/Olympus' },
      { workingDays: [] },
      { workingDays: ['8'] },
      { closes: '05:00' },
    ])
      expect(await changeDepot.withUnknown(w.deps, actor, { ...hours, ...wrong })).toMatchObject({
        error: { kind: 'invalid', fields: { [Object.keys(wrong)[0] ?? '']: expect.any(String) } },
      });
    value(
      await changeDepot.withUnknown(w.deps, actor, {
        ...hours,
        workingDays: ['1', '2', '3', '4', '5'],
        closes: '16:00',
      }),
    );
  });

  it('moves a booking only for whoever saw it as it stands', async () => {
    value(await plan({ start: '13:00' }));
    const seen = value(await viewWorkOrder(w.deps, actor, await order(1004))).booking?.version ?? 0;
    value(await plan({ start: '13:30', version: seen }));
    expect(await plan({ start: '14:00', version: seen })).toMatchObject({ error: { kind: 'edited-meanwhile' } });
    const { booking } = value(await viewWorkOrder(w.deps, actor, await order(1004)));
    expect(booking).toMatchObject({ startMin: 13 * 60 + 30, minutes: 60, version: seen + 1 });
  });

  it('gives a hybrid only to qualified people', async () => {
    const vehicleId = await vehicle('23');
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId }));
    const [bay] = await w.deps.db
      .select()
      .from(bays)
      .where(eq(bays.id, await bayAt('Eastlight', 'Bay 1')));
    const at = { workOrderId, bayId: bay?.id, day: '2026-11-19' };
    expect(await plan({ ...at, personId: await person('S. Pirie') })).toMatchObject({
      ok: false,
      error: { fields: { personId: expect.any(String) } },
    });
    value(await plan({ ...at, personId: await person('J. Holm') }));
  });

  it('writes the week as iCalendar with a stable id a job', async () => {
    const text = value(await exportWeek(w.deps, actor, { day: TODAY, format: 'ics' }));
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/);
    expect(text).toContain('DTSTART:20261116T080000\r\n');
    expect(text).toContain(`UID:${await order(1001)}@isobar`);
    expect(text.replaceAll('\r\n ', '')).toMatch(/SUMMARY:Unit \S+ .+: replace plugs.* \(work order 1001\)/);
    expect(text.split('\r\n').every((line) => Buffer.byteLength(line) <= 75)).toBe(true);
  });
});

describe('the list of work orders', () => {
  const page = { from: 0, limit: 1000 };
  const found = async (filter: object = {}) =>
    value(await findWorkOrders(w.deps, actor, { ...orderFilter.parse(filter), page })).items;

  it('has the units in the order of the due list', async () => {
    const due = value(await listDue(w.deps, actor, dueFilter.parse({ sort: 'unit' }))).items;
    const units = [...new Set((await found({ sort: 'unit' })).map(({ unitNumber }) => unitNumber))];
    const inOrder = due.map(({ unitNumber }) => unitNumber).filter((unit) => units.includes(unit));
    expect(units).toEqual(inOrder);
    expect(units.length).toBeGreaterThan(5);
  });

  it('is narrowed by each of its filters, and counts what fits', async () => {
    const all = await found();
    const [some] = all.filter(({ personId }) => personId !== null);
    if (!some) throw new Error('nobody is booked');
    for (const [filter, fits] of [
      [{ state: 'open' }, (row) => !['closed', 'cancelled'].includes(row.state)],
      [{ state: 'planned' }, (row) => row.state === 'planned'],
      [{ depot: some.depot }, (row) => row.depot === some.depot],
      [{ person: some.personId }, (row) => row.personId === some.personId],
      [{ search: String(some.number) }, (row) => row.number === some.number],
      [{ search: some.engineCode.toLowerCase() }, (row) => row.engineCode === some.engineCode],
      [{ from: '2999-01-01' }, () => false],
      [{ state: 'no such state', person: 'nobody' }, () => true],
    ] as const satisfies readonly (readonly [object, (row: (typeof all)[number]) => boolean])[])
      expect((await found(filter)).map(({ number }) => number)).toEqual(all.filter(fits).map(({ number }) => number));
    const first = value(
      await findWorkOrders(w.deps, actor, { ...orderFilter.parse({ state: 'open' }), page: { from: 0, limit: 2 } }),
    );
    expect([first.items.length, first.found]).toEqual([2, first.open]);
  });
});

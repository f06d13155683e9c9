import { sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { deferForm } from '../../src/contracts/forms/due';
import { recordChangeForm } from '../../src/contracts/forms/vehicles';
import { dueStatus } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { enterRow } from '../../src/server/catalogue/enter-row';
import { deferDue, listDeferrals, takeBackDeferral } from '../../src/server/due/defer';
import { dueFilter, listDue, viewDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { recordReminder, takeBackReminder } from '../../src/server/due/reminder';
import { exportDue } from '../../src/server/exports/due-csv';
import { exportDueCalendar } from '../../src/server/exports/due-ics';
import { recordChange } from '../../src/server/fleet/record-change';
import { listNotices } from '../../src/server/notices/list-notices';
import { listToOrder } from '../../src/server/stock/list-to-order';
import { demoWorkspace, idOfUnit, inRole, TODAY, value, type Workspace } from '../builders/workspace';

/* Every component has a due status of its own; one of them speaks for the vehicle. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const list = async (filter: object = {}) => value(await listDue(w.deps, actor, dueFilter.parse(filter)));
const idOf = (unit: string) => idOfUnit(w.deps, unit);
const view = async (unit: string) => value(await viewDue(w.deps, actor, await idOf(unit)));
const change = async (component: 'cap' | 'lead_set', on: string, odometer: string) =>
  value(
    await recordChange(
      w.deps,
      actor,
      recordChangeForm.schema.parse({
        vehicleId: await idOf('6'),
        component,
        sites: '',
        on,
        odometer,
        certainty: 'exact',
        removalReason: 'planned',
        partNumber: '',
        tag: '',
      }),
    ),
  );

describe('the due list by component', () => {
  it('has each vehicle once with what binds first, and one row a vehicle for one component', async () => {
    const all = await list();
    expect(all.items).toHaveLength(72);
    expect(all.components).toEqual(['plug', 'coil', 'rail', 'boot', 'lead_set', 'cap', 'rotor', 'seal']);
    const caps = await list({ component: 'cap' });
    expect(caps.items.every(({ component, engineCode }) => component === 'cap' && engineCode === 'TV-46D')).toBe(true);
    expect(caps.items).toHaveLength(4);
    expect(Object.values(caps.counts).reduce((sum, n) => sum + n, 0)).toBe(4);
    expect(caps.matching).toBe(4);
  });

  it('lets a cap past its clock lead its vehicle, sums the pressure, and tells it once', async () => {
    const before = await view('6');
    await change('cap', '2020-03-02', '12900 mi');
    await change('lead_set', '2025-06-02', '16200 mi');
    const after = await view('6');
    const cap = after.components.find(({ component }) => component === 'cap');
    expect(cap).toMatchObject({ state: 'past', binds: 'time', certainty: 'exact', fittedOn: '2020-03-02' });
    expect(cap?.breakdown.at(-1)).toMatchObject({ kind: 'due', by: 'time' });
    expect(after.pressure ?? 0).toBeCloseTo(
      after.components.reduce((sum, { pressureParts }) => sum + (pressureParts?.total ?? 0), 0),
      9,
    );
    // What nobody knew counted as at its limit; past it, it counts for more.
    expect(after.pressure).not.toBe(before.pressure);
    const [item] = (await list({ search: '6', component: 'lead_set' })).items.filter(
      ({ unitNumber }) => unitNumber === '6',
    );
    expect(item?.others.map(({ component }) => component)).toContain('cap');
    const told = value(await listNotices(w.deps, actor)).filter(
      ({ unitNumber, text }) => unitNumber === '6' && text.startsWith('cap '),
    );
    expect(told).toHaveLength(1);
  });

  it('dates no coil without an interval, and says since when it is in', async () => {
    const coils = (await list({ component: 'coil' })).items;
    expect(coils.length).toBeGreaterThan(50);
    const known = coils.filter(({ state }) => state !== 'no-match');
    expect(new Set(known.map(({ state }) => state))).toEqual(new Set(['no-date']));
    expect(known.every(({ due, lifeUsed, fittedOn }) => due === null && lifeUsed === null && fittedOn !== null)).toBe(
      true,
    );
  });

  it('is kept step by step as a rebuild makes it, with one that leads of each vehicle', async () => {
    const stored = () => w.deps.db.select().from(dueStatus).orderBy(dueStatus.vehicleId, dueStatus.component);
    const before = await stored();
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(await stored()).toEqual(before);
    const { rows } = await w.deps.db.execute(
      sql`select vehicle_id from due_status group by vehicle_id having count(*) filter (where leads) <> 1`,
    );
    expect(rows).toEqual([]);
  });

  it('goes out as CSV with the component, and onto the list to order with its own parts', async () => {
    const csv = value(await exportDue(w.deps, actor, dueFilter.parse({ component: 'cap' }))).split('\r\n');
    expect(csv[0]).toContain(',component,');
    expect(csv.filter((line) => line.includes(',cap,'))).toHaveLength(4);
    const { lines } = value(await listToOrder(w.deps, actor, { weeks: 13 }));
    expect(lines.find(({ number }) => number === 'KM-C46')).toMatchObject({ whys: ['falls_due'], orders: [] });
  });
});

describe('a deferral', () => {
  it('moves the date of one component and leaves the others', async () => {
    const vehicleId = await idOf('6');
    const before = await view('6');
    const input = deferForm.schema.parse({
      component: 'cap',
      vehicleIds: [vehicleId],
      until: '2027-02-01',
      reason: 'cap on the ferry',
    });
    value(await deferDue(w.deps, actor, input));
    const after = await view('6');
    const of = (all: typeof after, name: string) => all.components.find(({ component }) => component === name);
    expect(of(after, 'cap')).toMatchObject({ state: 'deferred', due: { p50: '2027-02-01' } });
    for (const name of ['plug', 'rotor', 'lead_set'])
      expect(of(after, name)).toEqual({ ...of(before, name), others: of(after, name)?.others });
    expect(value(await listDeferrals(w.deps, actor, vehicleId))).toMatchObject([{ components: ['cap'] }]);
    value(await takeBackDeferral(w.deps, actor, { vehicleId }));
    expect(await view('6')).toEqual(before);
    const coil = deferForm.schema.parse({
      component: 'boot',
      vehicleIds: [vehicleId],
      until: '2027-02-01',
      reason: 'none there',
    });
    expect(await deferDue(w.deps, actor, coil)).toMatchObject({ ok: false, error: { kind: 'conflict' } });
  });
});

describe('the due list', () => {
  it('is a calendar: a day for each vehicle and component, today for what is past', async () => {
    const text = value(await exportDueCalendar(w.deps, actor, dueFilter.parse({ search: '6' }))).replaceAll(
      '\r\n ',
      '',
    );
    const [item] = (await list({ search: '6' })).items.filter(({ unitNumber }) => unitNumber === '6');
    const days = [item?.due?.p50, ...(item?.others.map(({ due }) => due) ?? [])].filter(Boolean);
    expect(days.length).toBeGreaterThan(1);
    expect(text.match(new RegExp(`UID:due-${item?.vehicleId}-`, 'g'))).toHaveLength(days.length);
    for (const day of days) expect(text).toContain((day ?? '') < TODAY ? '20261116' : (day ?? '').replaceAll('-', ''));
    expect(text).toMatch(/SUMMARY:Unit 6 .*: .+ due/);
  });
});

describe('the interval of a part’s own maker', () => {
  it('binds where it is less than the sheet in force, whose gap and torque stand', async () => {
    const before = (await view('12')).components.find(({ component }) => component === 'plug');
    expect(before).toMatchObject({ limitKm: 45_000, limitMonths: 48, limitBy: 'sheet' });
    const entered = await enterRow(w.deps, actor, {
      kind: 'spec-sheets',
      fields: {
        engine_family: 'AG-18',
        part_number: 'KM-4180',
        gap: '1.00 to 1.10 mm',
        torque: '22 to 28 N·m',
        interval: '40000',
        interval_unit: 'km',
        interval_months: '60',
        source_kind: 'part_maker',
        source_document: 'Demo data: Kilnmark fitting table',
        source_dated: '2026-10-01',
        revision: '1',
        entered_by: actor.name,
      },
    });
    value(entered);
    const after = (await view('12')).components.find(({ component }) => component === 'plug');
    expect(after).toMatchObject({ limitKm: 40_000, limitMonths: 48, limitBy: 'maker', partNumber: 'KM-4180' });
    expect(after?.lifeUsed).toBeGreaterThanOrEqual(before?.lifeUsed ?? 9);
  });
});

describe('the reminder of a vehicle itself', () => {
  it('is a reading from which on the plugs are asked for, may be deferred, and goes out with a new set', async () => {
    const vehicleId = await idOf('112');
    const plugs = async () => (await view('112')).components.find(({ component }) => component === 'plug');
    const before = await plugs();
    expect(before).toMatchObject({ state: 'later', reminderOn: null });
    const odometer = `${Math.round(before?.odometerNowKm ?? 0)} km`;
    const asked = { vehicleId, on: TODAY, odometer };
    expect(await recordReminder(w.deps, inRole(actor, 'viewer'), asked)).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await recordReminder(w.deps, actor, { ...asked, odometer: 'much' })).toMatchObject({
      error: { kind: 'invalid' },
    });
    expect(await recordReminder(w.deps, actor, { ...asked, on: '2026-12-24' })).toMatchObject({
      error: { kind: 'invalid' },
    });
    expect(await plugs()).toEqual(before);
    value(await recordReminder(w.deps, actor, asked));
    expect(await plugs()).toMatchObject({ state: 'soon', reminderOn: TODAY, due: { p50: TODAY }, odometerOn: TODAY });
    value(
      await deferDue(
        w.deps,
        actor,
        deferForm.schema.parse({ vehicleIds: [vehicleId], until: '2026-12-24', reason: 'ferry' }),
      ),
    );
    expect(await plugs()).toMatchObject({ state: 'deferred', reminderOn: TODAY });
    value(await takeBackReminder(w.deps, actor, { vehicleId, reason: 'it went out by itself' }));
    expect((await plugs())?.state).toBe('later');
  });
});

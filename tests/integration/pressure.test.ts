import { and, eq, isNotNull, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { costsForm, deferForm, saveViewForm } from '../../src/contracts/forms/due';
import { addDays } from '../../src/core/calendar/plain-date';
import { WHOLE_ENGINE } from '../../src/core/engine/places';
import { pressureOf } from '../../src/core/reliability/pressure';
import { ASSUMED_LIFE } from '../../src/core/reliability/weibull';
import { sumUpCounts } from '../../src/db/queries/due';
import { dueRuns, dueStatus, fittedComponents, people, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { setCosts, viewCosts } from '../../src/server/due/costs';
import { deferDue, listDeferrals, takeBackDeferral } from '../../src/server/due/defer';
import { unitOrder } from '../../src/server/due/due-status';
import { ensureDueStatus } from '../../src/server/due/ensure-due-status';
import { dueFilter, listDue, viewDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { listViews, removeView, saveView } from '../../src/server/due/saved-views';
import { viewHorizon, whatIf } from '../../src/server/due/view-horizon';
import { viewPressure } from '../../src/server/due/view-pressure';
import { atomFeed, digestMessage, digestText } from '../../src/server/exports/notices';
import { createFirstSupervisor } from '../../src/server/fleet/first-run';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import {
  countNotices,
  latestNotices,
  listNotices,
  putAside,
  takeBackNotices,
  viewDigest,
} from '../../src/server/notices/list-notices';
import { playTelematics } from '../../src/server/odometer/play-feed';
import { readingsInput, recordReadings } from '../../src/server/odometer/record-readings';
import { openWorkOrders } from '../../src/server/work-orders/open-work-order';
import { demoWorkspace, emptyWorkspace, idOfUnit, inRole, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const chart = async () => value(await viewPressure(w.deps, actor, {}));
const PLACE = 'depot, duty_group, state';
const COUNTED = `select ${PLACE}, sum(n)::int as n from due_counts group by ${PLACE} having sum(n) <> 0 order by ${PLACE}`;
const THERE = `select ${PLACE}, count(*)::int as n from due_status where leads group by ${PLACE} order by ${PLACE}`;
const all = async (over = {}) => value(await listDue(w.deps, actor, dueFilter.parse(over))).items;
const idOf = (unit: string) => idOfUnit(w.deps, unit);
const stored = () => w.deps.db.select().from(dueStatus).orderBy(dueStatus.unitOrder, dueStatus.component);

describe('dueStatus', () => {
  it('are kept step by step as a rebuild makes them', async () => {
    await all();
    const before = await stored();
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(await stored()).toEqual(before);
    expect(before.filter(({ leads }) => leads)).toHaveLength(72);
  });

  it('of those who borrow from their group follow it when one of the group is read', async () => {
    const rows = await stored();
    const borrower = rows.find((row) => row.rateBorrowed && row.rateKmPerDay !== null);
    const member = rows.find((row) => row.dutyGroup === borrower?.dutyGroup && !row.borrowsGroupRate);
    const [vehicle] = await w.deps.db
      .select()
      .from(vehicles)
      .where(eq(vehicles.id, member?.vehicleId ?? ''));
    const km = Math.round((member?.odometerNowKm ?? 0) + 900);
    value(
      await recordReadings(
        w.deps,
        actor,
        readingsInput.parse({ readings: [{ unitNumber: vehicle?.unitNumber, on: TODAY, text: `${km} km` }] }),
      ),
    );
    const stepwise = await stored();
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(stepwise).toEqual(await stored());
  });

  it('are never in each other’s way, however many write and look at once', async () => {
    const rows = await stored();
    const units = await w.deps.db.select().from(vehicles);
    const read = (from: number) =>
      recordReadings(
        w.deps,
        actor,
        readingsInput.parse({
          readings: units.slice(from, from + 40).map((vehicle) => {
            const now = rows.find((row) => row.vehicleId === vehicle.id)?.odometerNowKm ?? 1000;
            return { unitNumber: vehicle.unitNumber, on: TODAY, text: `${Math.round(now) + 1 + from} km` };
          }),
        }),
      );
    const look = () => listDue(w.deps, actor, { ...dueFilter.parse({}), page: { from: 0, limit: 5 } });
    const whole = () => w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    await Promise.all([read(0), look(), read(20), whole(), look(), read(30), look(), whole(), read(10)]);
    await look();
    const stepwise = await stored();
    await whole();
    expect(await stored()).toEqual(stepwise);
    // The counts beside the list have gone along with all of it, and summed up they say the same.
    const counted = async () => (await w.pool.query(COUNTED)).rows;
    const there = (await w.pool.query(THERE)).rows;
    expect(await counted()).toEqual(there);
    await w.deps.db.transaction((tx) => sumUpCounts(tx, actor.fleetId));
    expect(await counted()).toEqual(there);
    expect((await w.pool.query('select from due_counts')).rowCount).toBe(there.length);
    await w.pool.query(`delete from due_status where depot = 'Eastlight'`);
    expect(await counted()).toEqual(there.filter(({ depot }) => depot !== 'Eastlight'));
    await whole();
    expect(await counted()).toEqual(there);
  });

  it('are computed anew on a new day, once, whoever asks first', async () => {
    const before = (await all({ sort: 'unit' })).find((item) => item.unitNumber === '11');
    const tomorrow = { ...w.deps, today: () => addDays(TODAY, 1) };
    const lists = await Promise.all(
      Array.from({ length: 4 }, () => listDue(tomorrow, actor, dueFilter.parse({ sort: 'unit' }))),
    );
    for (const list of lists) {
      const after = value(list).items.find((item) => item.unitNumber === '11');
      expect(after?.lifeUsed ?? 0).toBeGreaterThan(before?.lifeUsed ?? 1);
      expect(after?.due?.p50).toBe(before?.due?.p50);
    }
    const [run] = await w.deps.db.select().from(dueRuns);
    expect(run?.ranOn).toBe(addDays(TODAY, 1));
    await ensureDueStatus(w.deps.db, actor.fleetId, TODAY);
    expect((await all({ sort: 'unit' })).find((item) => item.unitNumber === '11')).toEqual(before);
  });

  it('sort units as people count', () => {
    expect(['G10', '9', 'g9', '10'].sort((a, b) => (unitOrder(a) < unitOrder(b) ? -1 : 1))).toEqual([
      '9',
      '10',
      'g9',
      'G10',
    ]);
  });

  it('answer every sort and filter as a plain reading of the list would', async () => {
    const items = await all();
    const by = async (over: object) => (await all(over)).map((item) => item.unitNumber);
    const plain = (fits: (item: (typeof items)[number]) => boolean) =>
      items.filter(fits).map((item) => item.unitNumber);
    expect(await by({ state: 'past' })).toEqual(plain((i) => i.state === 'past'));
    expect(await by({ depot: 'Eastlight', minLife: 0.5 })).toEqual(
      plain((i) => i.depot === 'Eastlight' && (i.lifeUsed ?? 0) >= 0.5),
    );
    for (const over of [
      { state: 'past' },
      { depot: 'Eastlight' },
      { group: 'clinic vans', state: 'later' },
      { search: '3' },
    ]) {
      const list = value(await listDue(w.deps, actor, { ...dueFilter.parse(over), page: { from: 0, limit: 2 } }));
      expect([over, list.matching]).toEqual([over, (await all(over)).length]);
    }
    expect(await by({ search: 'LIBRARY' })).toEqual(plain((i) => i.name.includes('library')));
    expect(await by({ search: '%' })).toEqual([]);
    expect(await by({ before: '2026-12-01' })).toEqual(plain((i) => (i.due?.p50 ?? '9') <= '2026-12-01'));
    const pressures = (await all({ sort: 'pressure' })).map((i) => i.pressure ?? -1);
    expect(pressures).toEqual([...pressures].sort((a, b) => b - a));
    const dates = (await all({ sort: 'due', descending: true })).map((i) => i.due?.p50 ?? '9999');
    expect(dates).toEqual([...dates].sort().reverse());
  });
});

describe('service pressure', () => {
  it('is what the core makes of life, use and cost', async () => {
    const { points } = await chart();
    const point = points.find((p) => p.unit === '6');
    const due = value(await viewDue(w.deps, actor, point?.id ?? ''));
    expect(due.pressure).toBeCloseTo(point?.pressure ?? 0, 9);
    const rows = await w.deps.db
      .select()
      .from(dueStatus)
      .where(and(eq(dueStatus.vehicleId, point?.id ?? ''), isNotNull(dueStatus.lifeUsed)));
    const parts = rows.map(({ component, certainty, lifeUsed, lifeIn7, failureCost }) => ({
      component,
      total: pressureOf({
        lifeUsed: certainty === 'assumed' ? Math.min(1, lifeUsed ?? 0) : (lifeUsed ?? 0),
        weeklyLife: (lifeIn7 ?? 0) - (lifeUsed ?? 0),
        failureCost,
        wearCostPerPercent: 0.4,
        model: ASSUMED_LIFE,
      }).total,
    }));
    expect(parts.length).toBeGreaterThan(1);
    for (const { component, total } of parts)
      expect(due.components.find((each) => each.component === component)?.pressureParts?.total).toBeCloseTo(total, 9);
    expect(point?.pressure).toBeCloseTo(
      parts.reduce((sum, { total }) => sum + total, 0),
      9,
    );
  });

  it('never counts assumed history as past the limit', async () => {
    const { points } = await chart();
    const assumed = points.filter((p) => p.certainty === 'assumed' && p.life > 1.5);
    expect(assumed.length).toBeGreaterThan(0);
    for (const p of assumed) expect(value(await viewDue(w.deps, actor, p.id)).pressureParts?.wear).toBe(0);
  });

  it('takes the cost of the vehicle, else of its group, else of the fleet', async () => {
    const costs = value(await viewCosts(w.deps, actor));
    const own = await w.deps.db.select().from(vehicles);
    for (const point of (await chart()).points) {
      const vehicle = own.find((v) => v.id === point.id);
      expect(point.cost).toBe(vehicle?.failureCost ?? costs.groups[point.group] ?? costs.failureCost);
    }
    const input = costsForm.schema.parse({ ...costs, failureCost: '900', groups: {} });
    expect(await setCosts(w.deps, inRole(actor, 'parts_clerk'), input)).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    value(await setCosts(w.deps, actor, input));
    const bare = own.find((v) => v.failureCost === null && v.dutyGroup === 'meal-round vans');
    expect((await chart()).points.find((p) => p.id === bare?.id)?.cost).toBe(900);
    value(await setCosts(w.deps, actor, costsForm.schema.parse(costs)));
  });

  it.each([
    [{ currency: 'QQQ' }, 'currency'],
    [{ currency: 'euros' }, 'currency'],
    [{ failureCost: '0' }, 'failureCost'],
    [{ bayPercent: '140' }, 'bayPercent'],
  ])('refuses the costs %j', async (over, field) => {
    const parsed = costsForm.schema.safeParse({ currency: 'EUR', failureCost: 5, wearCostPerPercent: 0, ...over });
    const fields = parsed.success
      ? await setCosts(w.deps, actor, parsed.data).then((o) => (o.ok ? [] : Object.keys(o.error.fields ?? {})))
      : parsed.error.issues.map((issue) => issue.path[0]);
    expect(fields).toContain(field);
  });
});

describe('a deferral', () => {
  const defer = (unit: string, over: object = {}, who = actor) =>
    idOf(unit).then((id) =>
      deferDue(
        w.deps,
        who,
        deferForm.schema.parse({ vehicleIds: [id], until: '2027-01-15', reason: 'ferry is out', ...over }),
      ),
    );
  const unit = async (number: string) => (await all()).find((item) => item.unitNumber === number);

  it('moves one date, says who and why, and can be taken back', async () => {
    const before = await all({ component: 'plug' });
    const past = before.find((item) => item.state === 'past' && !item.openWorkOrder);
    const number = past?.unitNumber ?? '';
    value(await defer(number));
    const after = await all({ component: 'plug' });
    const moved = after.find((item) => item.unitNumber === number);
    expect(moved).toMatchObject({
      state: 'deferred',
      due: { p10: '2027-01-15', p50: '2027-01-15', p90: '2027-01-15' },
    });
    expect(moved).toMatchObject({ lifeUsed: past?.lifeUsed, pressure: past?.pressure });
    expect(after.filter((item) => item.unitNumber !== number)).toEqual(
      before.filter((item) => item.unitNumber !== number),
    );
    const list = value(await listDeferrals(w.deps, actor, past?.vehicleId ?? ''));
    expect(list).toMatchObject([{ who: 'R. Tolland', deferral: { reason: 'ferry is out', endedAt: null } }]);
    value(await takeBackDeferral(w.deps, actor, { vehicleId: past?.vehicleId ?? '' }));
    expect(await all({ component: 'plug' })).toEqual(before);
    expect(await takeBackDeferral(w.deps, actor, { vehicleId: past?.vehicleId ?? '' })).toMatchObject({ ok: false });
  });

  it('never brings work forward, and ends by itself on its day', async () => {
    const later = (await all()).find((item) => item.state === 'later' && (item.due?.p50 ?? '') > '2027-06-01');
    value(await defer(later?.unitNumber ?? ''));
    expect(await unit(later?.unitNumber ?? '')).toMatchObject({ state: 'later', due: later?.due });
    const past = (await all()).find((item) => item.state === 'past' && !item.openWorkOrder);
    value(await defer(past?.unitNumber ?? '', { until: addDays(TODAY, 2) }));
    const then = { ...w.deps, today: () => addDays(TODAY, 2) };
    const found = value(await listDue(then, actor, dueFilter.parse({ search: past?.unitNumber }))).items;
    expect(found.find((item) => item.unitNumber === past?.unitNumber)?.state).toBe('past');
  });

  it('is refused without a reason, into the past, too far, and to those who may not', async () => {
    expect(deferForm.schema.safeParse({ vehicleIds: [], until: '2027-01-15', reason: 'x' }).success).toBe(false);
    expect(await defer('11', { until: '2026-11-16' })).toMatchObject({
      ok: false,
      error: { fields: { until: expect.any(String) } },
    });
    expect(await defer('11', { until: '2029-01-01' })).toMatchObject({ ok: false });
    expect(await defer('11', {}, inRole(actor, 'technician'))).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await defer('11', {}, stranger)).toMatchObject({ ok: false, error: { kind: 'not-found' } });
  });
});

describe('the horizon', () => {
  it('holds the work of every depot once', async () => {
    const whole = value(await viewHorizon(w.deps, actor));
    const parts = await Promise.all(whole.depots.map((d) => viewHorizon(w.deps, actor, d.name)));
    const sum = (minutes: readonly { mean: number }[]) => minutes.reduce((total, week) => total + week.mean, 0);
    expect(parts.reduce((total, part) => total + sum(value(part).weeks), 0)).toBeCloseTo(sum(whole.weeks), 6);
    expect(whole.bayMinutes).toBe(6 * 480 * 5 * 0.2);
  });

  it('shows a stricter policy as more work and less pressure, and writes nothing', async () => {
    const before = await stored();
    const early = value(await whatIf(w.deps, actor, 0.75));
    expect(early.changed.vehicles).toBeGreaterThan(early.now.vehicles);
    expect(early.changed.plugs).toBeGreaterThan(early.now.plugs);
    expect(early.changed.pressure).toBeLessThan(early.now.pressure);
    expect(await stored()).toEqual(before);
  });
});

describe('a selection', () => {
  it('opens an order for each, and tells what it could not', async () => {
    const { points } = await chart();
    const free = points.filter((p) => p.orderId === null).slice(0, 3);
    const blocked = await idOf('127');
    const found = value(await openWorkOrders(w.deps, actor, { vehicleIds: [...free.map((p) => p.id), blocked] }));
    expect(found.opened.length + found.refused.length).toBe(4);
    expect(found.refused.join(' ')).toContain('Unit 127 has no firm match');
    expect(await openWorkOrders(w.deps, inRole(actor, 'viewer'), { vehicleIds: [] })).toMatchObject({ ok: false });
  });

  it('is exported alone', async () => {
    const ids = (await chart()).points.slice(0, 3).map((p) => p.id);
    expect((await all({ ids })).map((i) => i.vehicleId).sort()).toEqual([...ids].sort());
  });

  it('uses an index for its page', async () => {
    await w.deps.db.execute(sql`analyze due_status`);
    const plan = await w.deps.db.transaction(async (tx) => {
      await tx.execute(sql`set local enable_seqscan = off`);
      return tx.execute<{ 'QUERY PLAN': string }>(
        sql`explain select vehicle_id from due_status where fleet_id = ${actor.fleetId} and leads order by life_used desc nulls last, unit_order limit 20`,
      );
    });
    expect(plan.rows.map((row) => row['QUERY PLAN']).join('\n')).toContain('due_status_by_life');
  });
});

describe('the telematics stand-in', () => {
  it('drives the demo fleet: what is sound is accepted, what cannot follow is kept, what is doubled changes nothing', async () => {
    const fresh = await demoWorkspace();
    const own = fresh.supervisor;
    const played = value(await playTelematics(fresh.deps, own, { seed: 3 }));
    const of = (fault: string) => played.tally.find((row) => row.fault === fault);
    expect(played.messages).toBeGreaterThan(400);
    expect((of('none')?.counts.accepted ?? 0) / (of('none')?.sent ?? 1)).toBeGreaterThan(0.9);
    expect(of('doubled')?.counts.known).toBe((of('doubled')?.sent ?? 0) / 2);
    expect(of('wrong_unit')?.counts.suspect).toBeGreaterThan(0);
    expect(played.tally.every((row) => row.counts.refused === 0)).toBe(true);
    const before = value(await listDue(fresh.deps, own, dueFilter.parse({}))).items;
    await fresh.deps.db.transaction((tx) => refreshDue(tx, own.fleetId, TODAY, null));
    expect(value(await listDue(fresh.deps, own, dueFilter.parse({}))).items).toEqual(before);
    expect(await playTelematics(fresh.deps, inRole(own, 'viewer'), { seed: 1 })).toMatchObject({ ok: false });
  });

  it('leaves a customer’s own fleet alone', async () => {
    const own = await emptyWorkspace();
    const owner = value(
      await createFirstSupervisor(own.deps, {
        fleetName: 'Test',
        name: 'T. Ester',
        email: 't@example.org',
        password: 'long enough pw',
      }),
    );
    expect(await playTelematics(own.deps, owner, { seed: 1 })).toMatchObject({
      ok: false,
      error: { kind: 'conflict' },
    });
  });
});

describe('notices', () => {
  it('tell each thing once, to each person until it is put aside', async () => {
    const first = value(await listNotices(w.deps, actor));
    const kinds = new Set(first.map((row) => row.kind));
    expect([...kinds].sort()).toEqual(['due', 'soon', 'suspect']);
    expect(value(await listNotices(w.deps, actor))).toEqual(first);
    expect(value(await countNotices(w.deps, actor))).toBe(first.length);
    const [clerk] = await w.deps.db.select().from(people).where(eq(people.role, 'parts_clerk'));
    const other: Actor = { ...inRole(actor, 'parts_clerk'), personId: clerk?.id ?? '' };
    value(await putAside(w.deps, actor, { ids: [first[0]?.id ?? ''] }));
    expect(value(await listNotices(w.deps, actor))).toHaveLength(first.length - 1);
    expect(value(await listNotices(w.deps, other))).toHaveLength(first.length);
    const { at } = value(await putAside(w.deps, actor, { upTo: new Date() }));
    const { back } = value(await takeBackNotices(w.deps, actor, { at: at.toISOString() }));
    expect(value(await listNotices(w.deps, actor))).toHaveLength(back);
    expect(value(await takeBackNotices(w.deps, actor, { at: '2020-01-01T00:00:00Z' }))).toEqual({ back: 0 });
    value(await putAside(w.deps, actor, { upTo: new Date() }));
    expect(value(await listNotices(w.deps, actor))).toEqual([]);
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(value(await listNotices(w.deps, stranger))).toEqual([]);
  });

  it('note a feed gone silent when a month has passed', async () => {
    const later = { ...w.deps, today: () => addDays(TODAY, 45) };
    const news = value(await listNotices(later, actor));
    expect(news.filter((row) => row.kind === 'silent').length).toBeGreaterThan(20);
    expect(news.every((row) => row.notedOn === addDays(TODAY, 45))).toBe(true);
  });

  it('go out as a page, a mail and a feed that say the same', async () => {
    const digest = value(await viewDigest(w.deps, actor));
    const text = digestText(digest);
    const rows = digest.sections.flatMap((section) => section.notices);
    for (const row of rows) expect(text).toContain(`- ${row.unitNumber} ${row.name} (${row.depot}): ${row.text}`);
    const mail = digestMessage(digest, 'R. Tolland', new Date('2026-11-16T06:00:00Z'));
    const [head = '', body = ''] = mail.split('\r\n\r\n');
    expect(head).toContain('Date: Mon, 16 Nov 2026 06:00:00 +0000');
    expect(Buffer.from(body.replace(/\r\n/g, ''), 'base64').toString('utf8')).toBe(text);
    expect(mail.split('\r\n').every((line) => line.length <= 78)).toBe(true);
    const feed = atomFeed(value(await latestNotices(w.deps, actor)), 'http://127.0.0.1:3000', new Date());
    expect(feed.match(/<entry>/g)?.length).toBeGreaterThanOrEqual(rows.length);
  });

  it('hold no character that XML cannot', () => {
    const row = {
      id: 'x',
      kind: 'due',
      text: 'a < b & \u0003"c"',
      notedOn: TODAY,
      notedAt: new Date(0),
      vehicleId: 'v',
      unitNumber: '1',
      name: '<i>',
      depot: 'D',
    } as const;
    expect(atomFeed([row], 'http://x', new Date(0))).toContain(
      '<title>1 &lt;i&gt;: a &lt; b &amp; &quot;c&quot;</title>',
    );
  });
});

describe('saved views', () => {
  const save = (name: string, query: string, who = actor) =>
    saveView(w.deps, who, saveViewForm.schema.parse({ name, query }));

  it('are kept for the person alone, the same name anew, and can be removed', async () => {
    value(await save('Eastlight', 'depot=Eastlight'));
    value(await save('Eastlight', 'depot=Eastlight&dense=1'));
    const own = value(await listViews(w.deps, actor));
    expect(own).toMatchObject([{ name: 'Eastlight', query: 'depot=Eastlight&dense=1' }]);
    const [clerk] = await w.deps.db.select().from(people).where(eq(people.role, 'parts_clerk'));
    const other: Actor = { ...inRole(actor, 'parts_clerk'), personId: clerk?.id ?? '' };
    expect(value(await listViews(w.deps, other))).toEqual([]);
    expect(await removeView(w.deps, other, { viewId: own[0]?.id ?? '' })).toMatchObject({ ok: false });
    value(await removeView(w.deps, actor, { viewId: own[0]?.id ?? '' }));
    expect(value(await listViews(w.deps, actor))).toEqual([]);
  });

  it('are refused without a name, and beyond thirty', async () => {
    expect(saveViewForm.schema.safeParse({ name: ' ', query: '' }).success).toBe(false);
    for (let i = 0; i < 30; i++) value(await save(`view ${i}`, `sort=unit`));
    expect(await save('one more', '')).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    expect(await save('view 3', 'sort=due')).toMatchObject({ ok: true });
  });
});

describe('together', () => {
  const together = async (unit: string) => value(await viewVehicle(w.deps, actor, await idOf(unit))).companions;

  it('looks at what has no record while it is open, and says nothing of what changes on failure', async () => {
    const [distributor] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, '7'));
    expect(distributor).toBeDefined();
    const found = await together('7');
    expect(found.map((c) => c.component).sort()).toEqual(['cap', 'lead_set', 'rotor']);
    expect(found.every((c) => c.advice === 'look' && c.savedMinutes > 0)).toBe(true);
    expect(await together('11')).toEqual([]);
  });

  it('offers what the record says is due, with its own date', async () => {
    const [row] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, '7'));
    const item = (await all()).find((i) => i.unitNumber === '7');
    if (!row || item?.odometerKm == null) throw new Error('no unit 7');
    await w.deps.db.insert(fittedComponents).values({
      fleetId: actor.fleetId,
      vehicleId: row.id,
      component: 'cap',
      ...WHOLE_ENGINE,
      history: 'proven',
      installedOn: '2025-11-01',
      installedOnCertainty: 'exact',
      installedKm: item.odometerKm - 500,
      installedKmCertainty: 'exact',
    });
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, [row.id]));
    const cap = (await together('7')).find((c) => c.component === 'cap');
    expect(cap).toMatchObject({ advice: 'later', certainty: 'exact' });
    expect(cap?.lifeUsed).toBeLessThan(0.5);
  });
});

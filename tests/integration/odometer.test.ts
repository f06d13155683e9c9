import { randomUUID } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { resolveReadingsForm } from '../../src/contracts/forms/vehicles';
import { auditTrail, odometerReadings, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { once } from '../../src/server/auth/idempotency';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { fail } from '../../src/server/failure';
import { listReadings, type ReadingPage } from '../../src/server/odometer/list-readings';
import { listSuspects } from '../../src/server/odometer/list-suspects';
import { readingsInput, recordReadings } from '../../src/server/odometer/record-readings';
import { resolveReadings } from '../../src/server/odometer/resolve-readings';
import { openWorkOrderForUnit } from '../../src/server/work-orders/open-work-order';
import { demoWorkspace, inRole, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const record = async (...readings: readonly (readonly [string, string, string])[]) =>
  value(
    await recordReadings(
      w.deps,
      actor,
      readingsInput.parse({ readings: readings.map(([unitNumber, on, text]) => ({ unitNumber, on, text })) }),
    ),
  );
const due = async (unit: string) => {
  const item = value(await listDue(w.deps, actor, dueFilter.parse({}))).items.find((i) => i.unitNumber === unit);
  if (!item) throw new Error(`no unit ${unit}`);
  return item;
};
const suspects = async () => value(await listSuspects(w.deps, actor)).flatMap((group) => group.items);
const suspect = async (unit: string) => {
  const item = (await suspects()).find((row) => row.unitNumber === unit);
  if (!item) throw new Error(`no suspect reading of unit ${unit}`);
  return item;
};
const resolve = async (unit: string, how: string, over: object = {}, who = actor) => {
  const { vehicleId, readOn, odometerKm } = await suspect(unit);
  return resolveReadings(
    w.deps,
    who,
    resolveReadingsForm.schema.parse({ items: [{ vehicleId, readOn, odometerKm }], how, ...over }),
  );
};
const rowsOf = async (unit: string) => {
  const [vehicle] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  return w.deps.db
    .select()
    .from(odometerReadings)
    .where(eq(odometerReadings.vehicleId, vehicle?.id ?? ''));
};

describe('recording readings', () => {
  it('accepts, doubts, knows and refuses each on its own', async () => {
    const km = Math.round((await due('101')).odometerNowKm ?? 0);
    const results = await record(
      ['101', '2026-11-16', `${km + 20}`],
      ['101', '2026-11-16', `${km + 20} km`],
      ['102', '2026-11-16', '17'],
      ['nobody', '2026-11-16', '50000'],
      ['103', '2026-11-17', '50000'],
      ['103', '2026-11-16', 'plenty'],
    );
    expect(results.map((r) => r.state)).toEqual(['accepted', 'known', 'suspect', 'refused', 'refused', 'refused']);
    expect(results[2]?.message).toContain('goes backwards');
    expect((await due('101')).odometerKm).toBe(km + 20);
    expect((await due('102')).suspectReadings).toBe(1);
  });

  it('reads the dash’s unit where none is given, and any that is', async () => {
    const { odometerNowKm } = await due('152');
    const miles = Math.round((odometerNowKm ?? 0) / 1.609344) + 5;
    const [bare] = await record(['152', '2026-11-15', `${miles}`]);
    expect(bare).toMatchObject({ state: 'accepted', km: expect.closeTo(miles * 1.609344, 0) });
    const [withUnit] = await record(['152', '2026-11-16', `${Math.round(miles * 1.609344) + 10} km`]);
    expect(withUnit?.state).toBe('accepted');
  });

  it('keeps status in step, equal to a rebuild', async () => {
    const before = value(await listDue(w.deps, actor, dueFilter.parse({}))).items;
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(value(await listDue(w.deps, actor, dueFilter.parse({}))).items).toEqual(before);
  });

  it('is for those who may', async () => {
    const input = readingsInput.parse({ readings: [{ unitNumber: '101', on: TODAY, text: '5' }] });
    expect(await recordReadings(w.deps, inRole(actor, 'viewer'), input)).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
  });
});

describe('the inbox', () => {
  it('groups by likely cause and offers what it was', async () => {
    const km = Math.round((await due('106')).odometerNowKm ?? 0);
    await record(['106', TODAY, `${Math.round(km * 1.609344)} km`]);
    const groups = value(await listSuspects(w.deps, actor));
    expect(groups.map((g) => g.cause)).toContain('unit_slip');
    const item = await suspect('106');
    expect(item.suggestedKm).toBeCloseTo(km, -1);
    expect(item.words).toContain('probably in the other unit');
    expect(item.lastKm).not.toBeNull();
  });

  it('takes the suggestion as if it had been typed right, and keeps the original', async () => {
    const before = await rowsOf('106');
    value(await resolve('106', 'correct'));
    const after = await rowsOf('106');
    expect(after).toHaveLength(before.length + 1);
    const original = after.find((row) => row.state === 'rejected');
    expect(original).toMatchObject({ resolved: 'corrected', resolvedBy: actor.personId });
    const corrected = after.find((row) => row.correctsKm === original?.odometerKm);
    expect(corrected).toMatchObject({ state: 'accepted', asTyped: original?.asTyped });
    expect((await due('106')).odometerKm).toBe(corrected?.odometerKm);
    expect((await due('106')).suspectReadings).toBe(0);
  });

  it('accepts as read, rejects, and takes another figure', async () => {
    value(await resolve('102', 'reject', { reason: 'read from another van' }));
    expect((await rowsOf('102')).find((row) => row.resolved)).toMatchObject({
      state: 'rejected',
      resolvedReason: 'read from another van',
    });
    await record(['105', TODAY, '1']);
    const { odometerNowKm } = await due('105');
    expect(await resolve('105', 'correct')).toMatchObject({
      ok: false,
      error: { fields: { corrected: expect.stringContaining('give the figure') } },
    });
    expect(await resolve('105', 'correct', { corrected: 'some' })).toMatchObject({
      ok: false,
      error: { kind: 'invalid' },
    });
    value(await resolve('105', 'correct', { corrected: `${Math.round(odometerNowKm ?? 0)}` }));
    expect((await due('105')).odometerKm).toBe(Math.round(odometerNowKm ?? 0));
    await record(['107', TODAY, '2']);
    value(await resolve('107', 'accept'));
    expect((await rowsOf('107')).find((row) => row.resolved)).toMatchObject({ state: 'accepted', odometerKm: 2 });
  });

  it('lets life go on past a replaced meter', async () => {
    const before = await due('108');
    const last = before.odometerKm ?? 0;
    await record(['108', '2026-11-15', '12']);
    value(await resolve('108', 'meter_replaced'));
    expect((await due('108')).odometerKm).toBe(last);
    const [next] = await record(['108', TODAY, '62']);
    expect(next).toMatchObject({ state: 'accepted', km: last + 50 });
    const [old] = await record(['108', '2026-10-01', '13']);
    expect(old?.state).toBe('suspect');
  });

  it('clears what was doubted only because of another', async () => {
    const km = Math.round((await due('109')).odometerKm ?? 0);
    const [vehicle] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, '109'));
    const base = {
      fleetId: actor.fleetId,
      vehicleId: vehicle?.id ?? '',
      unit: 'km' as const,
      source: 'test',
      state: 'suspect' as const,
      doubt: 'backwards',
    };
    await w.deps.db.insert(odometerReadings).values([
      { ...base, readOn: '2026-11-15', odometerKm: km + 40, asTyped: 'later' },
      { ...base, readOn: TODAY, odometerKm: 3, asTyped: 'bad' },
    ]);
    const bad = (await suspects()).find((row) => row.unitNumber === '109' && row.odometerKm === 3);
    const done = value(
      await resolveReadings(
        w.deps,
        actor,
        resolveReadingsForm.schema.parse({
          items: [{ vehicleId: bad?.vehicleId, readOn: bad?.readOn, odometerKm: 3 }],
          how: 'reject',
        }),
      ),
    );
    expect(done).toEqual({ resolved: 1, cleared: 1 });
    expect((await due('109')).odometerKm).toBe(km + 40);
  });

  it('withdraws or corrects a reading that was accepted, with a reason, and judges again what it made suspect', async () => {
    const km = Math.round((await due('111')).odometerNowKm ?? 0);
    const [wrong] = await record(['111', '2026-11-14', `${km + 120}`]);
    expect(wrong?.state).toBe('accepted');
    expect((await record(['111', '2026-11-15', `${km + 30}`]))[0]?.state).toBe('suspect');
    const item = (await rowsOf('111')).find((row) => row.odometerKm === km + 120);
    const key = { vehicleId: item?.vehicleId, readOn: '2026-11-14', odometerKm: km + 120 };
    const undo = (over: object) =>
      resolveReadings(
        w.deps,
        actor,
        resolveReadingsForm.schema.parse({ items: [key], how: 'correct', corrected: `${km + 9}`, ...over }),
      );
    expect(await undo({})).toMatchObject({
      ok: false,
      error: { fields: { reason: expect.stringContaining('Say why') } },
    });
    expect(await undo({ how: 'accept', reason: 'again' })).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    expect(value(await undo({ reason: 'read off the trip meter' }))).toEqual({ resolved: 1, cleared: 1 });
    const rows = await rowsOf('111');
    expect(rows.find((row) => row.odometerKm === km + 120)).toMatchObject({ state: 'rejected', resolved: 'corrected' });
    expect(rows.find((row) => row.odometerKm === km + 9)).toMatchObject({ state: 'accepted', correctsKm: km + 120 });
    expect((await due('111')).odometerKm).toBe(km + 30);
  });

  it('resolves a reading once, whoever comes second, and not for everyone', async () => {
    await record(['110', TODAY, '3']);
    expect(await resolve('110', 'reject', {}, inRole(actor, 'technician'))).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    const { vehicleId, readOn, odometerKm } = await suspect('110');
    const input = resolveReadingsForm.schema.parse({ items: [{ vehicleId, readOn, odometerKm }], how: 'reject' });
    const both = await Promise.all([resolveReadings(w.deps, actor, input), resolveReadings(w.deps, actor, input)]);
    expect(both.map((answer) => answer.ok).sort()).toEqual([false, true]);
    const trail = await w.deps.db
      .select()
      .from(auditTrail)
      .where(
        and(eq(auditTrail.entity, 'odometer'), eq(auditTrail.entityId, vehicleId), eq(auditTrail.action, 'reject')),
      );
    expect(trail).toHaveLength(1);
  });

  it('resolves many at once or none', async () => {
    await record(['111', TODAY, '4'], ['112', TODAY, '4']);
    const items = (await suspects()).filter((row) => ['111', '112'].includes(row.unitNumber));
    const chosen = items.map(({ vehicleId, readOn, odometerKm }) => ({ vehicleId, readOn, odometerKm }));
    const wrong = resolveReadingsForm.schema.parse({
      items: [...chosen, { ...chosen[0], odometerKm: 77 }],
      how: 'reject',
    });
    expect(await resolveReadings(w.deps, actor, wrong)).toMatchObject({ ok: false, error: { kind: 'not-found' } });
    expect((await suspects()).filter((row) => ['111', '112'].includes(row.unitNumber))).toHaveLength(2);
    value(await resolveReadings(w.deps, actor, resolveReadingsForm.schema.parse({ items: chosen, how: 'reject' })));
    expect((await suspects()).filter((row) => ['111', '112'].includes(row.unitNumber))).toEqual([]);
  });
});

describe('a repeated key', () => {
  const sent = (key: string | null, body = '{}', endpoint = 'POST /api/v1/odometer-readings') => ({
    key,
    body,
    endpoint,
  });

  it('gets the first answer, a refusal is not kept, and no key means no memory', async () => {
    let runs = 0;
    const run = async () => ({ ok: true as const, value: { n: ++runs } });
    expect(value(await once(w.deps, actor, sent('k1'), run))).toEqual({ n: 1 });
    expect(value(await once(w.deps, actor, sent('k1'), run))).toEqual({ n: 1 });
    expect(value(await once(w.deps, actor, sent(null), run))).toEqual({ n: 2 });
    expect(await once(w.deps, actor, sent('k2'), async () => fail('invalid', 'no'))).toMatchObject({ ok: false });
    expect(value(await once(w.deps, actor, sent('k2'), run))).toEqual({ n: 3 });
    expect(value(await once(w.deps, { ...actor, personId: randomUUID() }, sent('k1'), run))).toEqual({ n: 4 });
    expect(value(await once(w.deps, actor, sent('k1', '{}', 'POST /api/v1/work-orders'), run))).toEqual({ n: 5 });
    expect(await once(w.deps, actor, sent('k1', '{"other":1}'), run)).toMatchObject({ error: { kind: 'invalid' } });
    expect(runs).toBe(5);
  });

  it('sent four times at once is done once', async () => {
    const one = { readings: [{ unitNumber: '11', on: '2026-11-13', text: '77 km' }] };
    const write = () =>
      once(w.deps, actor, sent('at once', JSON.stringify(one)), (within) => recordReadings(within, actor, one));
    const answers = (await Promise.all([1, 2, 3, 4].map(write))).map(value);
    for (const answer of answers) expect(answer).toEqual(answers[0]);
    const orders = await Promise.all(
      [1, 2, 3, 4].map(() =>
        once(w.deps, actor, sent('open', '', 'POST /api/v1/work-orders'), (within) =>
          openWorkOrderForUnit(within, actor, { unitNumber: '13' }),
        ),
      ),
    );
    expect(new Set(orders.map((order) => value(order).number)).size).toBe(1);
  });
});

describe('the list of readings', () => {
  const list = (over: object) => listReadings(w.deps, actor, over);

  it('gives every reading once, whatever the size of the page', async () => {
    const walk = async (limit: number) => {
      const seen: string[] = [];
      let cursor: string | null = null;
      do {
        const page: ReadingPage = value(await list({ limit, unit_number: '32', ...(cursor ? { cursor } : {}) }));
        seen.push(...page.items.map((row) => `${row.readOn} ${row.odometerKm}`));
        cursor = page.nextCursor;
      } while (cursor);
      return seen;
    };
    const all = await walk(1000);
    expect(all.length).toBeGreaterThan(5);
    expect(new Set(all).size).toBe(all.length);
    expect(await walk(3)).toEqual(all);
    expect(all).toEqual([...all].sort());
  });

  it('is narrowed by state, and empty for a stranger', async () => {
    const doubtful = value(await list({ state: 'suspect' })).items;
    expect(doubtful.every((row) => row.state === 'suspect' && row.doubt !== null)).toBe(true);
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(value(await listReadings(w.deps, stranger, {})).items).toEqual([]);
  });
});

import { isNull, sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { loadDemo } from '../../demo/load';
import { isCoil } from '../../src/core/engine/places';
import { fittedComponents } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { emptyWorkspace, value, type Workspace } from '../builders/workspace';

/* The demo with its three years of work: what was done, and where the fleet stands after it. */

let w: Workspace;
let actor: Actor;
beforeAll(async () => {
  w = await emptyWorkspace();
  ({ actor } = await loadDemo(w.deps, true));
});

const items = async (filter: object = {}) => value(await listDue(w.deps, actor, dueFilter.parse(filter))).items;

describe('three years of work', () => {
  it('are at least 150 closed orders, some in every year, numbered by day', async () => {
    const { rows } = await w.deps.db.execute<{ number: number; on: string }>(
      sql`select number, closed_on::text as on from work_orders where state = 'closed' order by number`,
    );
    expect(rows.length).toBeGreaterThanOrEqual(150);
    expect(new Set(rows.map(({ on }) => on.slice(0, 4)))).toEqual(new Set(['2023', '2024', '2025', '2026']));
    const days = rows.map(({ on }) => on);
    expect(days).toEqual([...days].sort());
  });

  it('leave three or four past a limit, one of them badly, and the rest spread over the year', async () => {
    const all = await items();
    const past = all.filter(({ state }) => state === 'past');
    expect(past.length).toBeGreaterThanOrEqual(3);
    expect(past.length).toBeLessThanOrEqual(4);
    expect(Math.max(...past.map(({ lifeUsed }) => lifeUsed ?? 0))).toBeGreaterThan(1.5);
    const later = all.filter(({ state }) => state === 'later').flatMap(({ due }) => due?.p50.slice(0, 7) ?? []);
    expect(later.length).toBeGreaterThan(40);
    expect(new Set(later.filter((month) => month < '2027-12')).size).toBeGreaterThan(6);
  });

  it('leave one part at a place at a time, and every coil with a serial', async () => {
    const now = await w.deps.db.select().from(fittedComponents).where(isNull(fittedComponents.removedOn));
    const places = now.map((row) => `${row.vehicleId} ${row.component} ${row.cylinder}${row.position}`);
    expect(new Set(places).size).toBe(places.length);
    const coils = now.filter(({ component }) => isCoil(component));
    expect(coils.length).toBeGreaterThan(250);
    expect(coils.filter(({ tag }) => tag === null)).toEqual([]);
  });

  it('hold failures as failures: coils that failed in service are told apart from planned change', async () => {
    const { rows } = await w.deps.db.execute<{ reason: string; n: number }>(
      sql`select removal_reason as reason, count(*)::int as n from fitted_components where removed_by_work_order_id is not null and component = 'coil' group by 1`,
    );
    const n = Object.fromEntries(rows.map((row) => [row.reason, row.n]));
    expect(n.failed).toBeGreaterThan(10);
  });

  it('end in a tune-up of five tasks that is half done', async () => {
    const { rows } = await w.deps.db.execute<{ tasks: number; done: number; places: number }>(sql`
      select count(distinct t.id)::int as tasks, count(p.done_at)::int as done, count(*)::int as places
      from work_orders o join work_tasks t on t.work_order_id = o.id join task_places p on p.task_id = t.id
      join vehicles v on v.id = o.vehicle_id where v.unit_number = '5' and o.closed_on is null`);
    expect(rows).toEqual([{ tasks: 5, done: 5, places: 10 }]);
  });
});

import { sql } from 'drizzle-orm';
import { loadDemo } from '../demo/load';
import { openConnection } from '../src/db/client';
import { migrateToLatest } from '../src/db/migrate';
import { NO_QUEUE } from '../src/server/queue';

/* docs/minutes.md: how far the minutes of the demo's closed orders were from what they took, by their steps alone and as they
   were learned from the orders before each. The first argument is the address of an empty database. */

const connection = openConnection(process.argv[2] ?? '', 4);
await migrateToLatest(connection.db);
await loadDemo({ db: connection.db, now: () => new Date(), today: () => '2026-11-16', jobs: NO_QUEUE }, true);
const { rows } = await connection.db.execute<{
  engine: string;
  orders: number;
  before: number;
  after: number;
  share: number;
  learned: number;
}>(sql`
  select coalesce(f.code, 'all') as engine, count(*)::int as orders,
         percentile_cont(0.5) within group (order by abs(w.computed_minutes - w.minutes_worked)) as before,
         percentile_cont(0.5) within group (order by abs(w.minutes - w.minutes_worked)) as after,
         100 * percentile_cont(0.5) within group (order by abs(w.computed_minutes::float8 / w.minutes_worked - 1)) as share,
         100 * percentile_cont(0.5) within group (order by abs(w.minutes::float8 / w.minutes_worked - 1)) as learned
  from work_orders w join vehicles v on v.id = w.vehicle_id join engine_families f on f.id = v.engine_family_id
  where w.minutes_worked is not null group by rollup (f.code) order by f.code nulls last`);
process.stdout.write(
  [
    '| engine | orders | median error by its steps | learned | the same in % | learned |',
    '|---|---|---|---|---|---|',
    ...rows.map(
      ({ engine, orders, before, after, share, learned }) =>
        `| ${engine} | ${orders} | ${before.toFixed(1)} min | ${after.toFixed(1)} min | ${share.toFixed(1)} | ${learned.toFixed(1)} |`,
    ),
    '',
  ].join('\n'),
);
await connection.pool.end();

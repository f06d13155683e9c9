import type { Pool } from 'pg';

/* All that a fleet has, as a few figures: what must not be changed is compared before and after. */

/** Tables whose rows belong to a fleet, by name. */
export async function tablesWithFleet(pool: Pool): Promise<readonly string[]> {
  const { rows } = await pool.query<{ name: string }>(
    `select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'fleet_id' order by 1`,
  );
  return rows.map(({ name }) => name);
}

/** A figure a table. */
export async function fleetDigest(pool: Pool, fleetId: string): Promise<readonly string[]> {
  const sums: string[] = [];
  for (const table of await tablesWithFleet(pool)) {
    const { rows } = await pool.query<{ sum: string }>(
      `select count(*)::text || ' ' || coalesce(sum(hashtextextended(t::text, 0)::numeric), 0)::text as sum from "${table}" t where t.fleet_id = $1`,
      [fleetId],
    );
    sums.push(`${table} ${rows[0]?.sum}`);
  }
  return sums;
}

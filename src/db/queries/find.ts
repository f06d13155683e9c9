import { sql } from 'drizzle-orm';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier } from '../client';
import { literally } from './like';

interface FoundRow {
  readonly kind: 'vehicle' | 'work order' | 'part' | 'engine';
  readonly id: string;
  readonly label: string;
}

const MAX_OF_A_KIND = 6;

/** A few of each kind whose number or name holds a text; those that begin with it first. */
export async function findByText(
  q: Querier,
  fleetId: FleetId,
  text: string,
  partKey: string,
): Promise<readonly FoundRow[]> {
  const holds = `%${literally(text)}%`;
  const begins = `${literally(text)}%`;
  const result = await q.execute<Record<string, unknown> & FoundRow>(sql`
    (select 'vehicle' as kind, id::text, unit_number || ' ' || name as label from vehicles
      where fleet_id = ${fleetId} and (unit_number || ' ' || name) ilike ${holds}
      order by unit_number not ilike ${begins}, length(unit_number), unit_number limit ${MAX_OF_A_KIND})
    union all
    (select 'work order', w.id::text, w.number || ', unit ' || v.unit_number || ', ' || replace(w.state, '_', ' ') from work_orders w
      join vehicles v on v.id = w.vehicle_id
      where w.fleet_id = ${fleetId} and (w.number::text like ${begins} or v.unit_number = ${text})
      order by w.number desc limit ${MAX_OF_A_KIND})
    union all
    (select 'part', id::text, number from parts
      where fleet_id = ${fleetId} and ${partKey} <> '' and number_key like ${`%${literally(partKey)}%`}
      order by number_key not like ${`${literally(partKey)}%`}, number limit ${MAX_OF_A_KIND})
    union all
    (select 'engine', id::text, code || ', ' || name from engine_families
      where fleet_id = ${fleetId} and (code || ' ' || name) ilike ${holds}
      order by code limit ${MAX_OF_A_KIND})`);
  return result.rows;
}

import { and, desc, eq, isNull, lte, type SQL, sql } from 'drizzle-orm';
import type { FleetId, PersonId } from '@/core/shared/kinds';
import type { Querier } from '../client';
import { depots, noticeReads, notices, vehicles } from '../schema';

/** A vehicle that has not been read for so many days has gone silent. */
const SILENT_DAYS = 30;

/**
 * Notes what is new since the last time, in sets. What was noted before is not noted again: a limit passed is told once
 * for a set of plugs or another component, a silence once for the reading it follows.
 *
 * @returns how many are new
 */
export async function noteNews(q: Querier, fleetId: FleetId, today: string, now: Date): Promise<number> {
  const entered = (kind: 'due' | 'soon', state: 'past' | 'soon', words: SQL): SQL => sql`
    select t.vehicle_id, ${kind} as kind,
      md5(case when t.component = 'plug' then '' else t.component end || (c.of -> 'clocks')::text) as about,
      case when t.component = 'plug' then '' else replace(t.component, '_', ' ') || ' ' end || ${words} as text
    from due_status t join due_inputs s on s.vehicle_id = t.vehicle_id
    join lateral jsonb_array_elements(s.components) c (of) on c.of ->> 'component' = t.component
    where t.fleet_id = ${fleetId} and t.state = ${state}`;
  const result = await q.execute(sql`
    insert into notices (fleet_id, vehicle_id, kind, about, text, noted_on, noted_at)
    select ${fleetId}::uuid, news.vehicle_id, news.kind, news.about, news.text, ${today}::date, ${now.toISOString()}::timestamptz
    from (
      ${entered('due', 'past', sql`'passed its limit: ' || round((100 * t.life_used)::numeric) || ' % used'`)}
      union all
      ${entered('soon', 'soon', sql`'due ' || to_char(t.due_p_50, 'FMDD Mon YYYY') || ': ' || round((100 * t.life_used)::numeric) || ' % used'`)}
      union all
      select s.vehicle_id, 'silent', s.odometer_on::text, 'no reading since ' || to_char(s.odometer_on, 'FMDD Mon YYYY')
      from due_inputs s where s.fleet_id = ${fleetId} and s.odometer_on < ${today}::date - ${SILENT_DAYS}::int
      union all
      select r.vehicle_id, 'suspect', r.read_on || ' ' || r.odometer_km, r.as_typed || ' of ' || to_char(r.read_on, 'FMDD Mon YYYY') || ' cannot follow'
      from odometer_readings r where r.fleet_id = ${fleetId} and r.state = 'suspect'
    ) news
    on conflict do nothing`);
  return result.rowCount ?? 0;
}

const unread = (personId: PersonId): SQL | undefined =>
  and(eq(noticeReads.noticeId, notices.id), eq(noticeReads.personId, personId));

const columns = {
  id: notices.id,
  kind: notices.kind,
  text: notices.text,
  notedOn: notices.notedOn,
  notedAt: notices.notedAt,
  vehicleId: notices.vehicleId,
  unitNumber: vehicles.unitNumber,
  name: vehicles.name,
  depot: depots.name,
};

/** Notices that a person has not put aside, the newest first; or all of one day, put aside or not. */
export const loadNotices = (
  q: Querier,
  fleetId: FleetId,
  which: { readonly unreadBy: string } | { readonly on: string } | { readonly latest: number },
) =>
  q
    .select(columns)
    .from(notices)
    .innerJoin(vehicles, eq(vehicles.id, notices.vehicleId))
    .innerJoin(depots, eq(depots.id, vehicles.depotId))
    .leftJoin(noticeReads, 'unreadBy' in which ? unread(which.unreadBy) : sql`false`)
    .where(
      and(
        eq(notices.fleetId, fleetId),
        isNull(noticeReads.noticeId),
        'on' in which ? eq(notices.notedOn, which.on) : undefined,
      ),
    )
    .orderBy(desc(notices.notedOn), desc(notices.notedAt), vehicles.unitNumber)
    .limit('latest' in which ? which.latest : 1000);

export type NoticeRow = Awaited<ReturnType<typeof loadNotices>>[number];

export async function countUnread(q: Querier, fleetId: FleetId, personId: PersonId): Promise<number> {
  const result = await q.execute<{ n: number }>(sql`
    select count(*)::int as n from notices n
    where n.fleet_id = ${fleetId}
      and not exists (select from notice_reads r where r.notice_id = n.id and r.person_id = ${personId})`);
  return result.rows[0]?.n ?? 0;
}

/** Puts aside all that was noted up to and with an instant, or those named. */
export async function markRead(
  q: Querier,
  fleetId: FleetId,
  personId: PersonId,
  which: { readonly ids: readonly string[] } | { readonly upTo: Date },
  now: Date,
): Promise<void> {
  const chosen =
    'ids' in which ? sql`${notices.id} = any(${sql.param(which.ids)}::uuid[])` : lte(notices.notedAt, which.upTo);
  await q.execute(sql`
    insert into notice_reads (person_id, notice_id, fleet_id, read_at)
    select ${personId}::uuid, ${notices.id}, ${notices.fleetId}, ${now.toISOString()}::timestamptz
    from ${notices} where ${notices.fleetId} = ${fleetId} and ${chosen}
    on conflict do nothing`);
}

/** Takes back what a person put aside at an instant. @returns how many notices are unread again */
export async function markUnread(q: Querier, fleetId: FleetId, personId: PersonId, readAt: Date): Promise<number> {
  const gone = await q
    .delete(noticeReads)
    .where(and(eq(noticeReads.fleetId, fleetId), eq(noticeReads.personId, personId), eq(noticeReads.readAt, readAt)))
    .returning({ id: noticeReads.noticeId });
  return gone.length;
}

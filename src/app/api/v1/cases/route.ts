import { caseItem, casesQuery, reportBody } from '@/contracts/http/misfire';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { reportMisfire } from '@/server/misfire/open-case';
import { listCases } from '@/server/misfire/view-case';
import { csvReply, readBody, readQuery, reply, route, wantsCsv } from '../http';
import { toCase } from '../misfire';

/** Misfires of the fleet, the newest first. */
export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, casesQuery);
  if (!query.ok) return query.response;
  const { unit, state, limit, cursor } = query.value;
  const list = await listCases(deps(), actor, { unit, states: state && [state], before: cursor, limit });
  if (!list.ok || !wantsCsv(request))
    return reply(list, ({ items, next }) => ({ items: items.map(toCase), next_cursor: next }));
  const keys = caseItem.keyof().options.filter((key) => key !== 'points_to');
  const cells = list.value.items.map(toCase).map((item) => keys.map((key) => item[key]));
  return csvReply(toCsv(keys, cells));
});

/** Reports that a vehicle misfires. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, reportBody);
  if (!body.ok) return body.response;
  const { unit_number: unitNumber, codes, ...complaint } = body.value;
  const outcome = await once(body.text, (within) => reportMisfire(within, actor, { unitNumber, codes, complaint }));
  return reply(outcome, ({ caseId, number, goesOn, driving: { driving } }) => ({
    id: caseId,
    number,
    goes_on: goesOn,
    stop_driving: driving === 'stop',
  }));
});

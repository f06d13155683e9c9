import { createHash } from 'node:crypto';
import { planQuery } from '@/contracts/http/planning';
import { deps } from '@/server/deps';
import { planCsv } from '@/server/planning/export-plan';
import { listPlan } from '@/server/planning/list-plan';
import { csvReply, readQuery, reply, route, wantsCsv } from '../http';
import { toBooked } from '../planning';

/** What is booked. Whoever names the tag of what they have is told when it is still the same, without the list. */
export const GET = route(async ({ request, actor }) => {
  const query = readQuery(request, planQuery);
  if (!query.ok) return query.response;
  const jobs = await listPlan(deps(), actor, query.value);
  if (!jobs.ok) return reply(jobs);
  if (wantsCsv(request)) return csvReply(planCsv(jobs.value));
  const body = JSON.stringify({ items: jobs.value.map(toBooked) });
  const tag = `"${createHash('sha256').update(body).digest('base64url')}"`;
  const headers = { ETag: tag, 'Cache-Control': 'private, no-cache' };
  if (request.headers.get('if-none-match') === tag) return new Response(null, { status: 304, headers });
  return new Response(body, { headers: { ...headers, 'Content-Type': 'application/json' } });
});

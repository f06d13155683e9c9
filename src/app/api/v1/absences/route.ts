import { absenceBody } from '@/contracts/http/planning';
import { deps } from '@/server/deps';
import { addAbsence, listAbsences } from '@/server/planning/absences';
import { exportAbsences } from '@/server/planning/export-absences';
import { csvReply, readBody, reply, route, wantsCsv } from '../http';
import { toAbsence } from '../planning';

/** When depots, bays, people and vehicles cannot be had: what is not over yet. */
export const GET = route(async ({ request, actor }) => {
  if (!wantsCsv(request)) return reply(await listAbsences(deps(), actor), (rows) => ({ items: rows.map(toAbsence) }));
  const file = await exportAbsences(deps(), actor);
  return file.ok ? csvReply(file.value) : reply(file);
});

/** Says that one of them is away, once or by a rule. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, absenceBody);
  if (!body.ok) return body.response;
  const { of_id: ofId, from_time: fromTime, to_time: toTime, ...rest } = body.value;
  const outcome = await once(body.text, (within) => addAbsence(within, actor, { ...rest, ofId, fromTime, toTime }));
  return reply(outcome, ({ absenceId }) => ({ id: absenceId }));
});

import { caseEntriesBody } from '@/contracts/http/misfire';
import { deps } from '@/server/deps';
import { sayOfCase } from '@/server/misfire/say';
import { readBody, reply, route } from '../../../http';

/** Keeps what was said, found or tried; what is sent twice is kept once. */
export const POST = route<{ id: string }>(async ({ request, actor, params }) => {
  const body = await readBody(request, caseEntriesBody);
  if (!body.ok) return body.response;
  return reply(await sayOfCase(deps(), actor, { caseId: params.id, ...body.value }));
});

import { proposalBody } from '@/contracts/http/planning';
import { startProposal } from '@/server/planning/proposals';
import { readBody, reply, route } from '../../http';

/** Asks for a plan of the fleet: it is worked out in the background, and its path tells how far it is. */
export const POST = route(async ({ request, actor, once }) => {
  const body = await readBody(request, proposalBody);
  if (!body.ok) return body.response;
  const outcome = await once(body.text, (within) => startProposal(within, actor, body.value));
  return reply(outcome, ({ proposalId }) => ({ id: proposalId }));
});

import { deps } from '@/server/deps';
import { stopProposal } from '@/server/planning/proposals';
import { reply, route } from '../../../../http';

/** Ends the search of a proposal: the best so far is kept. */
export const POST = route<{ id: string }>(async ({ actor, params }) =>
  reply(await stopProposal(deps(), actor, { proposalId: params.id }), () => ({ stopped: true })),
);

import { deps } from '@/server/deps';
import { viewProposal } from '@/server/planning/proposals';
import { reply, route } from '../../../http';
import { toProposal } from '../../../planning';

/** How far a proposal is, or what it came to. */
export const GET = route<{ id: string }>(async ({ actor, params }) =>
  reply(await viewProposal(deps(), actor, { proposalId: params.id }), toProposal),
);

import { deps } from '@/server/deps';
import { adoptProposal } from '@/server/planning/adopt-proposal';
import { reply, route } from '../../../../http';

/** Books what was proposed; all of it, or nothing where somebody booked a bay or a person meanwhile. */
export const POST = route<{ id: string }>(async ({ actor, params }) =>
  reply(await adoptProposal(deps(), actor, { proposalId: params.id }), ({ refused, ...counts }) => ({
    ...counts,
    refused: refused.map(({ unitNumber, message }) => ({ unit_number: unitNumber, message })),
  })),
);

'use server';

import { formAction } from '@/app/form-action';
import { fromJson } from '@/contracts/forms/form-input';
import { adoptProposal } from '@/server/planning/adopt-proposal';
import { makeFeed, removeFeed } from '@/server/planning/feeds';
import { discardProposal, startProposal, stopProposal } from '@/server/planning/proposals';
import { keepWhatIf } from '@/server/planning/what-if';

export const keepWhatIfAction = formAction(keepWhatIf, {
  read: ({ name, changes = '', slots = '' }) => ({ name, changes: fromJson(changes), slots: fromJson(slots) }),
  onDone: ({ proposalId }) => ({ to: `/plan/proposals/${proposalId}` }),
});

/** Asks for a plan and shows how far it is. */
export const proposeAction = formAction(startProposal, {
  read: ({ from, ...rest }) => ({ ...rest, from: from === '' ? undefined : from }),
  onDone: ({ proposalId }) => ({ to: `/plan/proposals/${proposalId}` }),
});
/** The address is shown this once: only its hash is kept. */
export const makeFeedAction = formAction(makeFeed, {
  onDone: ({ secret, name }) => ({
    secret: { label: name, text: `${process.env.ISOBAR_URL ?? ''}/feeds/${secret}.ics` },
  }),
});
export const removeFeedAction = formAction(removeFeed);

export const stopAction = formAction(stopProposal);
export const discardAction = formAction(discardProposal, { onDone: () => ({ to: '/plan' }) });
export const adoptAction = formAction(adoptProposal);

'use server';

import { formAction } from '@/app/form-action';
import { adoptProposal, discardProposal, startProposal, stopProposal } from '@/server/planning/proposals';
import { countText } from '@/text/format';

/** Asks for a plan and shows how far it is. */
export const proposeAction = formAction(startProposal, {
  read: ({ from, ...rest }) => ({ ...rest, from: from === '' ? undefined : from }),
  onDone: ({ proposalId }) => ({ to: `/plan/proposals/${proposalId}` }),
});
export const stopAction = formAction(stopProposal);
export const discardAction = formAction(discardProposal, { onDone: () => ({ to: '/plan' }) });
export const adoptAction = formAction(adoptProposal, {
  onDone: ({ planned, opened, moved, refused }) => ({
    message: [
      `${countText(planned)} booked, ${countText(moved)} of them moved, ${countText(opened)} work orders opened.`,
      ...refused.map(({ unitNumber, message }) => `Unit ${unitNumber} was not: ${message}`),
    ].join(' '),
  }),
});

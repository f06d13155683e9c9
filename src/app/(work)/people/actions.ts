'use server';

import { formAction } from '@/app/form-action';
import { addPersonForm, depotForm } from '@/contracts/forms/people';
import { makeToken, revokeToken } from '@/server/auth/access-tokens';
import { changeOwnPassword, resetPassword } from '@/server/auth/passwords';
import { addBay, changeBay, changeDepot, removeBay } from '@/server/fleet/bays';
import { addPerson, changeOwnSettings, changePerson } from '@/server/fleet/people';

export const addPersonAction = formAction(addPerson, {
  ...addPersonForm,
  onDone: (_, { name }) => ({ message: `${name} can sign in now.` }),
});
export const changePersonAction = formAction(changePerson, {
  read: (texts) => ({
    ...texts,
    hybridQualified: texts.hybridQualified === 'on',
    active: texts.active === 'on',
  }),
  onDone: () => ({ message: 'Saved.' }),
});
export const settingsAction = formAction(changeOwnSettings, { onDone: () => ({ message: 'Saved.' }) });
export const addBayAction = formAction(addBay, { onDone: () => ({ message: 'Added.' }) });
export const changeBayAction = formAction(changeBay, { onDone: () => ({ message: 'Saved.' }) });
export const removeBayAction = formAction(removeBay);
export const changeDepotAction = formAction(changeDepot, {
  ...depotForm,
  onDone: () => ({ message: 'Saved.' }),
});
export const makeTokenAction = formAction(makeToken, {
  onDone: ({ token }) => ({ secret: { label: 'Token', text: token } }),
});
export const revokeTokenAction = formAction(revokeToken, { read: ({ tokenId }) => tokenId });
export const changePasswordAction = formAction(changeOwnPassword, {
  onDone: () => ({ to: '/sign-in', reload: true }),
});
export const resetPasswordAction = formAction(resetPassword, {
  onDone: () => ({ message: 'Saved. Tell it to them; they can change it under Settings.' }),
});

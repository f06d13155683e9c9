'use server';

import { formAction } from '@/app/form-action';
import { makeToken, revokeToken } from '@/server/auth/access-tokens';
import { changeOwnPassword, resetPassword } from '@/server/auth/passwords';
import { addBay } from '@/server/fleet/bays';
import { addPerson, changeOwnSettings, changePerson } from '@/server/fleet/people';

export const addPersonAction = formAction(addPerson, {
  read: (texts) => ({ ...texts, hybridQualified: texts.hybridQualified === 'on' }),
  then: (_, { name }) => ({ message: `${name} can sign in now.` }),
});
export const changePersonAction = formAction(changePerson, {
  read: (texts) => ({
    ...texts,
    hybridQualified: texts.hybridQualified === 'on',
    active: texts.active === 'on',
  }),
  then: () => ({ message: 'Saved.' }),
});
export const settingsAction = formAction(changeOwnSettings, { then: () => ({ message: 'Saved.' }) });
export const addBayAction = formAction(addBay, { then: () => ({ message: 'Added.' }) });
export const makeTokenAction = formAction(makeToken, {
  then: ({ token }) => ({ message: `Copy it now, it is not shown again: ${token}` }),
});
export const revokeTokenAction = formAction(revokeToken, { read: ({ tokenId }) => tokenId });
export const changePasswordAction = formAction(changeOwnPassword, {
  then: () => ({ to: '/sign-in', reload: true }),
});
export const resetPasswordAction = formAction(resetPassword, {
  then: () => ({ message: 'Saved. Tell it to them; they can change it under Settings.' }),
});

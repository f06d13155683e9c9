'use server';

import { formAction } from '@/app/form-action';
import { choosePolicyOption } from '@/server/policies/choose-policy-option';
import { setCeiling } from '@/server/policies/set-ceiling';

export const choosePolicyOptionAction = formAction(choosePolicyOption, {
  onDone: (_, { option }) => ({ message: option === '' ? 'Taken back.' : 'Chosen.' }),
});
export const setCeilingAction = formAction(setCeiling, {
  onDone: () => ({ message: 'Saved. The due date of every vehicle is computed anew.' }),
});

'use server';

import { formAction } from '@/app/form-action';
import { choosePolicyOption } from '@/server/policies/choose-policy-option';
import { setCeiling } from '@/server/policies/set-ceiling';

export const choosePolicyOptionAction = formAction(choosePolicyOption, {
  onDone: ({ undo }, { option }) => ({ message: option === '' ? 'Taken back.' : 'Chosen.', undo }),
});
export const setCeilingAction = formAction(setCeiling, {
  onDone: ({ undo }) => ({ message: 'Saved. The due date of every vehicle is computed anew.', undo }),
});

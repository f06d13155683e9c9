'use server';

import { formAction } from '@/app/form-action';
import { calibrationForm, keepResultForm } from '@/contracts/forms/parts';
import { keepResult } from '@/server/bench/keep-result';
import { addWrench, updateWrench } from '@/server/bench/wrenches';

export const keepResultAction = formAction(keepResult, {
  ...keepResultForm,
  onDone: ({ workOrderId }, { workOrderNumber }) => ({
    message: workOrderId ? `Saved with work order ${workOrderNumber}.` : 'Saved.',
  }),
});

export const addWrenchAction = formAction(addWrench, { onDone: () => ({ message: 'In the register.' }) });
export const updateWrenchAction = formAction(updateWrench, {
  ...calibrationForm,
  onDone: () => ({ message: 'Saved.' }),
});

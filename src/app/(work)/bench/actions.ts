'use server';

import { formAction } from '@/app/form-action';
import { keepResult } from '@/server/bench/keep-result';
import { addWrench, updateWrench } from '@/server/bench/wrenches';

export const keepResultAction = formAction(keepResult, {
  read: ({ input = '{}', ...rest }) => ({ ...rest, input: json(input) }),
  onDone: ({ workOrderId }, { workOrderNumber }) => ({
    message: workOrderId ? `Saved with work order ${workOrderNumber}.` : 'Saved.',
  }),
});

function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

export const addWrenchAction = formAction(addWrench, { onDone: () => ({ message: 'In the register.' }) });
export const updateWrenchAction = formAction(updateWrench, {
  read: ({ wrenchId, calibratedOn, retire }) => ({ wrenchId, ...(retire ? { retired: true } : { calibratedOn }) }),
  onDone: () => ({ message: 'Saved.' }),
});

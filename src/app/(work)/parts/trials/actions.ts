'use server';

import { formAction } from '@/app/form-action';
import { endTrial, startTrial } from '@/server/stock/trials';

export const startTrialAction = formAction(startTrial, { onDone: () => ({ message: 'On trial.' }) });
export const endTrialAction = formAction(endTrial, { onDone: () => ({ message: 'Ended.' }) });

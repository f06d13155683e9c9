'use server';

import { formAction } from '@/app/form-action';
import { endTrial, startTrial } from '@/server/stock/trials';

export const startTrialAction = formAction(startTrial, { then: () => ({ message: 'On trial.' }) });
export const endTrialAction = formAction(endTrial, { then: () => ({ message: 'Ended.' }) });

'use server';

import { formAction } from '@/app/form-action';
import { retryJob } from '@/server/jobs/list-jobs';

export const retryJobAction = formAction(retryJob);

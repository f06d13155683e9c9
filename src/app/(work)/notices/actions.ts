'use server';

import { formAction } from '@/app/form-action';
import { putAside } from '@/server/notices/list-notices';

export const putAsideAction = formAction(putAside, {
  read: ({ ids, upTo }) => (ids ? { ids: ids.split(',') } : { upTo }),
  onDone: ({ at }) => ({ message: 'Dismissed.', undo: `notices ${at.toISOString()}` }),
});

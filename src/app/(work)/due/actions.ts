'use server';

import { formAction } from '@/app/form-action';
import { removeView, saveView } from '@/server/due/saved-views';

export const saveViewAction = formAction(saveView, { onDone: () => ({ message: 'Saved.' }) });
export const removeViewAction = formAction(removeView, { onDone: () => ({ message: 'Removed.' }) });

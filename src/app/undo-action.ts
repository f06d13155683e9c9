'use server';

import { undoChange } from '@/server/undo/undo-change';
import { formAction } from './form-action';

export const undoAction = formAction(undoChange, { onDone: () => ({ message: 'Undone.' }) });

'use server';

import { deps } from '@/server/deps';
import { takeBackNotices } from '@/server/notices/list-notices';
import { undoChange } from '@/server/undo/undo-change';
import { requireActor } from './actor';
import { answer, posting } from './form-action';

/** Undoes a change by its id in the record, or the dismissal of notices by its moment: "notices 2026-11-16T08:00:00.000Z". */
export const undoAction = posting(async (data) => {
  const undo = String(data.get('undo') ?? '');
  const actor = await requireActor();
  const dismissed = /^notices (.+)$/.exec(undo)?.[1];
  const done = dismissed
    ? await takeBackNotices.withUnknown(deps(), actor, { at: dismissed })
    : await undoChange.withUnknown(deps(), actor, { undo });
  return answer<unknown>(done, () => ({ message: 'Undone.' }));
});

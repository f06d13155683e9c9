'use server';

import { requireActor } from '@/app/actor';
import { answer, formAction, posting } from '@/app/form-action';
import { absenceForm, awayOf } from '@/contracts/forms/planning';
import { deps } from '@/server/deps';
import { changePresence } from '@/server/fleet/people';
import { addAbsence, readCalendar, removeAbsence } from '@/server/planning/absences';

export const changePresenceAction = formAction(changePresence, {
  read: (texts, data) => ({ ...texts, depotIds: data.getAll('depotIds') }),
  onDone: () => ({ message: 'Saved.' }),
});
export const addAbsenceAction = formAction(addAbsence, {
  ...absenceForm,
  onDone: ({ undo }) => ({ message: 'Absence added.', undo }),
});
export const removeAbsenceAction = formAction(removeAbsence, {
  onDone: ({ undo }) => ({ message: 'Absence removed.', undo }),
});

export const readCalendarAction = posting(async (data) => {
  const file = data.get('calendar');
  const text = file instanceof File ? await file.text() : '';
  const done = await readCalendar.withUnknown(deps(), await requireActor(), {
    ...awayOf(String(data.get('who') ?? '')),
    text,
  });
  return answer(done, ({ read }) => ({ message: `${read} ${read === 1 ? 'event' : 'events'} read.` }));
});

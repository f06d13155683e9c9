'use server';

import { requireActor } from '@/app/actor';
import { answer, formAction, posting } from '@/app/form-action';
import { weeklyRule } from '@/core/planning/recurrence';
import { deps } from '@/server/deps';
import { changePresence } from '@/server/fleet/people';
import { addAbsence, readCalendar, removeAbsence } from '@/server/planning/absences';

/** Whose absence a form means: "person 0d1f…". */
const whose = (chosen = ''): { of?: string; ofId?: string } => {
  const [of, ofId] = chosen.split(' ');
  return { of, ofId };
};

export const changePresenceAction = formAction(changePresence, {
  read: (texts, data) => ({ ...texts, depotIds: data.getAll('depotIds') }),
  onDone: () => ({ message: 'Saved.' }),
});
export const addAbsenceAction = formAction(addAbsence, {
  read: ({ who, rule = '', until = '', ...texts }, data) => ({
    ...texts,
    ...whose(who),
    rule: rule || weeklyRule(data.getAll('weekdays').map(String), until),
  }),
  onDone: () => ({ message: 'Saved.' }),
  fieldName: (name) => (name === 'of' || name === 'ofId' ? 'who' : name),
});
export const removeAbsenceAction = formAction(removeAbsence);

export const readCalendarAction = posting(async (data) => {
  const file = data.get('calendar');
  const text = file instanceof File ? await file.text() : '';
  const done = await readCalendar.withUnknown(deps(), await requireActor(), {
    ...whose(String(data.get('who') ?? '')),
    text,
  });
  return answer(done, ({ read }) => ({ message: `${read} ${read === 1 ? 'event' : 'events'} read.` }));
});

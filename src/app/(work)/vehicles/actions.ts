'use server';

import { requireActor } from '@/app/actor';
import { answer, formAction, posting } from '@/app/form-action';
import { texts } from '@/contracts/forms/form-input';
import { may } from '@/server/access';
import { answerFitment } from '@/server/catalogue/answer-fitment';
import { deps } from '@/server/deps';
import { recordReminder, takeBackReminder } from '@/server/due/reminder';
import { recordDistributor } from '@/server/fleet/found-distributor';
import { recordChange } from '@/server/fleet/record-change';
import { swapCoils } from '@/server/fleet/swap-coils';
import { recordReadings } from '@/server/odometer/record-readings';

export const answerFitmentAction = formAction(answerFitment, {
  read: (typed) => Object.fromEntries(Object.entries(typed).filter(([, value]) => value !== '')),
});
export const swapCoilsAction = formAction(swapCoils, { onDone: () => ({ message: 'Recorded.' }) });
export const recordChangeAction = formAction(recordChange, {
  onDone: ({ changed }) => ({ message: `${changed} recorded.` }),
});

export const recordDistributorAction = formAction(recordDistributor, { onDone: ({ message }) => ({ message }) });
export const recordReminderAction = formAction(recordReminder, { onDone: ({ message }) => ({ message }) });
export const takeBackReminderAction = formAction(takeBackReminder);

/** One reading by hand: of the odometer, or of the hour meter where it is typed in hours. */
export const recordReadingAction = posting(async (data) => {
  const { unitNumber = '', on = '', text = '' } = texts(data);
  const actor = await requireActor();
  const done = await recordReadings(deps(), actor, { readings: [{ unitNumber, on, text }] });
  if (!done.ok && done.error.kind === 'invalid')
    return { ok: false, message: 'Give a day and a figure.', fields: { text: 'Give a day and a figure.' } };
  if (!done.ok) return answer(done);
  const [result] = done.value;
  return result?.state === 'refused'
    ? { ok: false, message: result.message, fields: { text: result.message } }
    : {
        ok: true,
        message: result?.message ?? '',
        // Withdrawing a reading is not everybody's.
        ...(may(actor, 'resolve odometer readings') && { undo: result?.undo }),
      };
});

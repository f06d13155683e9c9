'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { answerFitment, answerInput } from '@/server/catalogue/answer-fitment';
import { deps } from '@/server/deps';
import { changeInput, recordChange } from '@/server/fleet/record-change';
import { swapCoils, swapInput } from '@/server/fleet/swap-coils';
import { readingsInput, recordReadings } from '@/server/odometer/record-readings';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function answerFitmentAction(data: FormData): Promise<ActionAnswer> {
  const { version, modelYear, ...said } = texts(data);
  const typed = Object.fromEntries(Object.entries(said).filter(([, value]) => value !== ''));
  const input = answerInput.safeParse({
    ...typed,
    version: Number(version),
    modelYear: modelYear === undefined ? undefined : Number(modelYear),
  });
  if (!input.success) return invalid(input.error);
  return answer(await answerFitment(deps(), await requireActor(), input.data));
}

export async function swapCoilsAction(data: FormData): Promise<ActionAnswer> {
  const input = swapInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await swapCoils(deps(), await requireActor(), input.data), () => ({ message: 'Recorded.' }));
}

export async function recordChangeAction(data: FormData): Promise<ActionAnswer> {
  const input = changeInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await recordChange(deps(), await requireActor(), input.data), ({ changed }) => ({
    message: `${changed} recorded.`,
  }));
}

/** One reading by hand: of the odometer, or of the hour meter where it is typed in hours. */
export async function recordReadingAction(data: FormData): Promise<ActionAnswer> {
  const { unitNumber, on, text } = texts(data);
  const input = readingsInput.safeParse({ readings: [{ unitNumber, on, text }] });
  if (!input.success)
    return { ok: false, message: 'Give a day and a figure.', fields: { text: 'Give a day and a figure.' } };
  const done = await recordReadings(deps(), await requireActor(), input.data);
  if (!done.ok) return answer(done);
  const [result] = done.value;
  return result?.state === 'refused'
    ? { ok: false, message: result.message, fields: { text: result.message } }
    : { ok: true, message: result?.message ?? '' };
}

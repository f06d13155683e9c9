'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { answerFitment, answerInput } from '@/server/catalogue/answer-fitment';
import { deps } from '@/server/deps';
import { swapCoils, swapInput } from '@/server/fleet/swap-coils';
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

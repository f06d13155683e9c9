'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { answerFitment, answerInput } from '@/server/catalogue/answer-fitment';
import { deps } from '@/server/deps';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function answerFitmentAction(data: FormData): Promise<ActionAnswer> {
  const { vehicleId, version, variant, modelYear } = texts(data);
  const input = answerInput.safeParse({
    vehicleId,
    version: Number(version),
    variant,
    modelYear: modelYear === undefined ? undefined : Number(modelYear),
  });
  if (!input.success) return invalid(input.error);
  return answer(await answerFitment(deps(), await requireActor(), input.data));
}

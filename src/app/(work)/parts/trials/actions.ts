'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { endInput, endTrial, startTrial, trialInput } from '@/server/stock/trials';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function startTrialAction(data: FormData): Promise<ActionAnswer> {
  const input = trialInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await startTrial(deps(), await requireActor(), input.data), () => ({ message: 'On trial.' }));
}

export async function endTrialAction(data: FormData): Promise<ActionAnswer> {
  const { version, ...rest } = texts(data);
  const input = endInput.safeParse({ ...rest, version: Number(version) });
  if (!input.success) return invalid(input.error);
  return answer(await endTrial(deps(), await requireActor(), input.data), () => ({ message: 'Ended.' }));
}

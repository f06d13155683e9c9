'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { deliveryInput, receiveDelivery } from '@/server/stock/check-delivery';
import { settleDelivery, settleInput } from '@/server/stock/settle-delivery';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function receiveAction(data: FormData): Promise<ActionAnswer> {
  const input = deliveryInput.safeParse({ ...texts(data), differsFromSample: data.getAll('differsFromSample') });
  if (!input.success) return invalid(input.error);
  return answer(await receiveDelivery(deps(), await requireActor(), input.data), ({ message }) => ({ message }));
}

export async function settleAction(data: FormData): Promise<ActionAnswer> {
  const { version, ...rest } = texts(data);
  const input = settleInput.safeParse({ ...rest, version: Number(version) });
  if (!input.success) return invalid(input.error);
  return answer(await settleDelivery(deps(), await requireActor(), input.data), () => ({ message: 'Settled.' }));
}

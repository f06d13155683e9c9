'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { banInput, banSeller, liftBan } from '@/server/stock/ban-seller';
import { deliveryInput, receiveDelivery } from '@/server/stock/check-delivery';
import { holdBatch, holdInput } from '@/server/stock/quarantine-batch';
import { settleDelivery, settleInput } from '@/server/stock/resolve-delivery';
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

export async function holdAction(data: FormData): Promise<ActionAnswer> {
  const { version, ...rest } = texts(data);
  const input = holdInput.safeParse({ ...rest, version: Number(version) });
  if (!input.success) return invalid(input.error);
  return answer(await holdBatch(deps(), await requireActor(), input.data), ({ taken }) => ({
    message: `${taken} taken off the shelf.`,
  }));
}

export async function banAction(data: FormData): Promise<ActionAnswer> {
  const input = banInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await banSeller(deps(), await requireActor(), input.data), () => ({ message: 'Banned.' }));
}

export async function liftAction(data: FormData): Promise<ActionAnswer> {
  const { banId = '' } = texts(data);
  return answer(await liftBan(deps(), await requireActor(), { banId }), () => ({ message: 'Lifted.' }));
}

'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { removeView, saveView, viewInput } from '@/server/due/saved-views';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function saveViewAction(data: FormData): Promise<ActionAnswer> {
  const input = viewInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await saveView(deps(), await requireActor(), input.data), () => ({ message: 'Kept.' }));
}

export async function removeViewAction(data: FormData): Promise<ActionAnswer> {
  const { viewId = '' } = texts(data);
  return answer(await removeView(deps(), await requireActor(), { viewId }), () => ({ message: 'Removed.' }));
}

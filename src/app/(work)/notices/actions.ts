'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { putAside, readInput } from '@/server/notices/list-notices';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function putAsideAction(data: FormData): Promise<ActionAnswer> {
  const { ids, upTo } = texts(data);
  const input = readInput.safeParse(ids ? { ids: ids.split(',') } : { upTo });
  if (!input.success) return invalid(input.error);
  return answer(await putAside(deps(), await requireActor(), input.data));
}

'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { chooseSchool, schoolInput } from '@/server/policies/choose-policy-option';
import { ceilingInput, setCeiling } from '@/server/policies/set-ceiling';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function chooseSchoolAction(data: FormData): Promise<ActionAnswer> {
  const input = schoolInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await chooseSchool(deps(), await requireActor(), input.data), () => ({
    message: input.data.school === '' ? 'Taken back.' : 'Chosen.',
  }));
}

export async function setCeilingAction(data: FormData): Promise<ActionAnswer> {
  const input = ceilingInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await setCeiling(deps(), await requireActor(), input.data), () => ({
    message: 'Kept; every vehicle is reckoned anew.',
  }));
}

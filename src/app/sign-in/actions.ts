'use server';

import { headers } from 'next/headers';
import { texts } from '@/contracts/forms/form-input';
import { firstRunForm } from '@/contracts/forms/people';
import { signIn, signOut } from '@/server/auth/sign-in';
import { deps } from '@/server/deps';
import { createFirstSupervisor } from '@/server/fleet/first-run';
import { invalidInput } from '@/server/use-case';
import { answer, posting } from '../form-action';

export const signInAction = posting(async (data) => {
  const { email = '', password = '' } = texts(data);
  return answer(
    await signIn(deps(), { email: email.slice(0, 200), password: password.slice(0, 200) }, await headers()),
    () => ({ to: '/', reload: true }),
  );
});

export const signOutAction = posting(async () => {
  await signOut(deps(), await headers());
  return { ok: true, to: '/sign-in', reload: true };
});

export const firstRunAction = posting(async (data) => {
  const input = firstRunForm.schema.safeParse(texts(data));
  if (!input.success) return answer(invalidInput(input.error));
  const made = await createFirstSupervisor(deps(), input.data);
  if (!made.ok) return answer(made);
  return answer(await signIn(deps(), input.data, await headers()), () => ({ to: '/import', reload: true }));
});

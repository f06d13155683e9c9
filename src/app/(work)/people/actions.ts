'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { makeToken, revokeToken, tokenInput } from '@/server/auth/access-tokens';
import { deps } from '@/server/deps';
import { addBay, bayInput } from '@/server/fleet/bays';
import {
  addPerson,
  changeOwnSettings,
  changePerson,
  personChange,
  personInput,
  settingsInput,
} from '@/server/fleet/people';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function addPersonAction(data: FormData): Promise<ActionAnswer> {
  const text = texts(data);
  const input = personInput.safeParse({ ...text, hybridQualified: text.hybridQualified === 'on' });
  if (!input.success) return invalid(input.error);
  return answer(await addPerson(deps(), await requireActor(), input.data), () => ({
    message: `${input.data.name} can sign in now.`,
  }));
}

export async function changePersonAction(data: FormData): Promise<ActionAnswer> {
  const text = texts(data);
  const input = personChange.safeParse({
    ...text,
    version: Number(text.version),
    hybridQualified: text.hybridQualified === 'on',
    active: text.active === 'on',
  });
  if (!input.success) return invalid(input.error);
  return answer(await changePerson(deps(), await requireActor(), input.data), () => ({ message: 'Saved.' }));
}

export async function settingsAction(data: FormData): Promise<ActionAnswer> {
  const input = settingsInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await changeOwnSettings(deps(), await requireActor(), input.data), () => ({ message: 'Saved.' }));
}

export async function addBayAction(data: FormData): Promise<ActionAnswer> {
  const input = bayInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await addBay(deps(), await requireActor(), input.data), () => ({ message: 'Added.' }));
}

export async function makeTokenAction(data: FormData): Promise<ActionAnswer> {
  const input = tokenInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await makeToken(deps(), await requireActor(), input.data), ({ token }) => ({
    message: `Copy it now, it is not shown again: ${token}`,
  }));
}

export async function revokeTokenAction(data: FormData): Promise<ActionAnswer> {
  return answer(await revokeToken(deps(), await requireActor(), texts(data).tokenId ?? ''));
}

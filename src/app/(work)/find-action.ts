'use server';

import { requireActor } from '@/app/actor';
import { deps } from '@/server/deps';
import { type Found, find, findInput } from '@/server/fleet/find';

/** What the box “Go to” offers besides pages. Nothing typed yet, or nobody signed in: nothing. */
export async function findAction(text: string): Promise<readonly Found[]> {
  const input = findInput.safeParse(text);
  if (!input.success) return [];
  const found = await find(deps(), await requireActor(), input.data);
  return found.ok ? found.value : [];
}

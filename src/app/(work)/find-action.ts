'use server';

import { requireActor } from '@/app/actor';
import { deps } from '@/server/deps';
import { type Found, find } from '@/server/fleet/find';

/** What the box “Go to” offers besides pages. Nothing typed yet, or nobody signed in: nothing. */
export async function findAction(text: string): Promise<readonly Found[]> {
  const results = await find(deps(), await requireActor(), text);
  return results.ok ? results.value : [];
}

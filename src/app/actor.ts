import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import type { Actor } from '@/server/access';
import { findActor } from '@/server/auth/find-actor';
import { deps } from '@/server/deps';
import { isFirstRun } from '@/server/fleet/first-run';

/** The signed-in person, asked once a request. */
export const currentActor = cache(async (): Promise<Actor | null> => findActor(deps(), await headers()));

/** The signed-in person; anyone else is led to the sign-in or first-run page. */
export async function requireActor(): Promise<Actor> {
  const actor = await currentActor();
  if (actor) return actor;
  redirect((await isFirstRun(deps())) ? '/first-run' : '/sign-in');
}

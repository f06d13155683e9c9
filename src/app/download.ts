import { currentActor } from '@/app/actor';
import type { Actor } from '@/server/access';
import type { Outcome } from '@/server/failure';

const STATUS = { forbidden: 403, 'not-found': 404, 'edited-meanwhile': 409, invalid: 422, conflict: 409 } as const;

/** A file made by a use-case for the signed-in person, as a download. */
export async function download(
  fileName: string,
  type: string,
  make: (actor: Actor) => Promise<Outcome<string>>,
): Promise<Response> {
  const actor = await currentActor();
  if (!actor) return new Response('Sign in first.', { status: 401 });
  const made = await make(actor);
  if (!made.ok) return new Response(made.error.message, { status: STATUS[made.error.kind] });
  return new Response(made.value, {
    headers: {
      'Content-Type': `${type}; charset=utf-8`,
      'Content-Disposition': `attachment; filename="${fileName}"`,
      'Cache-Control': 'no-store',
    },
  });
}

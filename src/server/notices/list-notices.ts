import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { countUnread, loadNotices, markRead, type NoticeRow, noteNews } from '@/db/queries/notices';
import type { NOTICE_KINDS } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { ensureWeighed } from '../due/due-status';
import type { Outcome } from '../failure';

export type NoticeKind = (typeof NOTICE_KINDS)[number];

export const KIND_WORDS: Readonly<Record<NoticeKind, string>> = {
  due: 'Newly past a limit',
  soon: 'About to pass a limit',
  silent: 'Feed silent',
  suspect: 'Suspect readings',
};

/** Weighs for the day where that has not been done, and notes what is new. */
async function note(deps: Deps, actor: Actor): Promise<void> {
  await ensureWeighed(deps.db, actor.fleetId, deps.today());
  await noteNews(deps.db, actor.fleetId, deps.today(), deps.now());
}

/** What this person has not put aside yet. */
export async function listNotices(deps: Deps, actor: Actor): Promise<Outcome<readonly NoticeRow[]>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  await note(deps, actor);
  return ok(await loadNotices(deps.db, actor.fleetId, { unreadBy: actor.personId }));
}

/** How many wait for this person; what is new since the last look is not counted before someone looks. */
export async function countNotices(deps: Deps, actor: Actor): Promise<Outcome<number>> {
  const refused = refusal(actor, 'read the fleet');
  return refused ?? ok(await countUnread(deps.db, actor.fleetId, actor.personId));
}

export const readInput = z.union([
  z.object({ ids: z.array(z.uuid()).min(1).max(1000) }),
  z.object({ upTo: z.coerce.date() }),
]);

/** Puts notices aside for this person; others still have them. */
export async function putAside(deps: Deps, actor: Actor, input: z.output<typeof readInput>): Promise<Outcome<null>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  await markRead(deps.db, actor.fleetId, actor.personId, input, deps.now());
  return ok(null);
}

export interface Digest {
  readonly on: string;
  readonly sections: readonly {
    readonly kind: NoticeKind;
    readonly title: string;
    readonly notices: readonly NoticeRow[];
  }[];
}

/** All that was noted on a day, by kind: the same for everyone. Today, unless another day is asked for. */
export async function viewDigest(deps: Deps, actor: Actor, day?: string): Promise<Outcome<Digest>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const on = day && isPlainDate(day) ? day : deps.today();
  if (on === deps.today()) await note(deps, actor);
  const byKind = groupBy(await loadNotices(deps.db, actor.fleetId, { on }), (row) => row.kind);
  const kinds = Object.keys(KIND_WORDS) as NoticeKind[];
  return ok({
    on,
    sections: kinds.flatMap((kind) => {
      const rows = byKind.get(kind);
      return rows ? [{ kind, title: KIND_WORDS[kind], notices: rows }] : [];
    }),
  });
}

const MOST_IN_FEED = 200;

/** The latest notices of the fleet, for a feed reader. */
export async function latestNotices(deps: Deps, actor: Actor): Promise<Outcome<readonly NoticeRow[]>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  await note(deps, actor);
  return ok(await loadNotices(deps.db, actor.fleetId, { latest: MOST_IN_FEED }));
}

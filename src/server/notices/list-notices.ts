import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { countUnread, loadNotices, markRead, markUnread, type NoticeRow, noteNews } from '@/db/queries/notices';
import type { NOTICE_KINDS } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { ensureDueStatus } from '../due/ensure-due-status';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';

export type { NoticeRow };
export type NoticeKind = (typeof NOTICE_KINDS)[number];

export const KIND_WORDS: Readonly<Record<NoticeKind, string>> = {
  due: 'Newly past a limit',
  soon: 'About to pass a limit',
  silent: 'Feed silent',
  suspect: 'Suspect readings',
};

/** Computes the due status of the day where that has not been done, and notes what is new. */
async function note(deps: Deps, actor: Actor): Promise<void> {
  await ensureDueStatus(deps.db, actor.fleetId, deps.today());
  await noteNews(deps.db, actor.fleetId, deps.today(), deps.now());
}

/** What this person has not put aside yet. */
export const listNotices = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<readonly NoticeRow[]>> {
    await note(deps, actor);
    return ok(await loadNotices(deps.db, actor.fleetId, { unreadBy: actor.personId }));
  },
});

/** How many wait for this person; what is new since the last look is not counted before someone looks. */
export const countNotices = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<number>> {
    return ok(await countUnread(deps.db, actor.fleetId, actor.personId));
  },
});

const readInput = z.union([z.object({ ids: z.array(z.uuid()).min(1).max(1000) }), z.object({ upTo: z.coerce.date() })]);

/** Puts notices aside for this person; others still have them. */
export const putAside = useCase({
  permission: 'read the fleet',
  input: readInput,
  async run(deps, actor, input): Promise<Outcome<{ readonly at: Date }>> {
    const at = deps.now();
    await markRead(deps.db, actor.fleetId, actor.personId, input, at);
    return ok({ at });
  },
});

/** Has notices again that this person put aside at an instant. */
export const takeBackNotices = useCase({
  permission: 'read the fleet',
  input: z.object({ at: z.coerce.date() }),
  async run(deps, actor, { at }): Promise<Outcome<{ readonly back: number }>> {
    return ok({ back: await markUnread(deps.db, actor.fleetId, actor.personId, at) });
  },
});

export interface Digest {
  readonly on: string;
  readonly sections: readonly {
    readonly kind: NoticeKind;
    readonly title: string;
    readonly notices: readonly NoticeRow[];
  }[];
}

/** All that was noted on a day, by kind: the same for everyone. Today, unless another day is asked for. */
export const viewDigest = useCase({
  permission: 'read the fleet',
  input: z.string().optional(),
  async run(deps, actor, day): Promise<Outcome<Digest>> {
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
  },
});

const MAX_IN_FEED = 200;

/** The latest notices of the fleet, for a feed reader. */
export const latestNotices = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<readonly NoticeRow[]>> {
    await note(deps, actor);
    return ok(await loadNotices(deps.db, actor.fleetId, { latest: MAX_IN_FEED }));
  },
});

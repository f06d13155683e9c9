import { ok } from '@/core/shared/result';
import { loadSuspects } from '@/db/queries/odometer';
import { doubtText } from '@/text/odometer-words';
import { useCase } from '../use-case';

/** The inbox of suspect readings, by likely cause, the most frequent cause first. */
export const listSuspects = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const rows = await loadSuspects(deps.db, actor.fleetId);
    const causes = new Map<string, (typeof rows)[number][]>();
    for (const row of rows) {
      const cause = row.doubt?.split(',').at(-1) ?? 'backwards';
      causes.set(cause, [...(causes.get(cause) ?? []), row]);
    }
    return ok(
      [...causes]
        .map(([cause, items]) => ({
          cause,
          items: items.map((item) => ({
            ...item,
            words: doubtText(item.doubt?.split(',') ?? [], null, actor.unitSystem),
          })),
        }))
        .sort((a, b) => b.items.length - a.items.length || a.cause.localeCompare(b.cause)),
    );
  },
});

export type SuspectGroup = Extract<Awaited<ReturnType<typeof listSuspects>>, { ok: true }>['value'][number];

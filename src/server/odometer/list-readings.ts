import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { loadReadingPage, type ReadingKey, type ReadingPageRow } from '@/db/queries/odometer';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';

/** A place in the list: the key of the last reading given, as one word. */
const cursor = z.string().transform((text, context): ReadingKey | typeof z.NEVER => {
  const [vehicleId = '', readOn = '', km = ''] = text.split('_');
  const key = z.object({ vehicleId: z.uuid(), readOn: z.iso.date(), odometerKm: z.coerce.number() });
  const parsed = key.safeParse({ vehicleId, readOn, odometerKm: km });
  if (parsed.success) return parsed.data;
  context.addIssue({ code: 'custom', message: 'Take the next_cursor of the page before.' });
  return z.NEVER;
});

export const readingsQuery = z.object({
  unit_number: z.string().max(60).optional(),
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  state: z.enum(['accepted', 'suspect', 'rejected']).optional(),
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  cursor: cursor.optional(),
});

export interface ReadingPage {
  readonly items: readonly ReadingPageRow[];
  readonly nextCursor: string | null;
}

/** Readings by vehicle and day, a page at a time, whatever their state. */
export const listReadings = useCase({
  permission: 'read the fleet',
  input: readingsQuery,
  async run(deps, actor, query): Promise<Outcome<ReadingPage>> {
    const { limit, cursor: after, unit_number: unitNumber, ...rest } = query;
    const rows = await loadReadingPage(deps.db, actor.fleetId, { ...rest, unitNumber, after }, limit + 1);
    const items = rows.slice(0, limit);
    const last = rows.length > limit ? items.at(-1) : undefined;
    return ok({ items, nextCursor: last ? `${last.vehicleId}_${last.readOn}_${last.odometerKm}` : null });
  },
});

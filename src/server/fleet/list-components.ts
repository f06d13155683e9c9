import { and, asc, eq, gt, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { placeId } from '@/core/engine/places';
import { ok } from '@/core/shared/result';
import { fittedComponents, parts, vehicles } from '@/db/schema';
import { useCase } from '../use-case';

/** What sits in the vehicles of the fleet now, part by part, as far as it is on record; a page at a time. */
export const listComponents = useCase({
  permission: 'read the fleet',
  input: z.object({
    unit: z.string().max(60).optional(),
    limit: z.number().int().min(1).max(1000),
    /** The last part of the page before. */
    cursor: z.uuid().optional(),
  }),
  async run(deps, actor, { unit, limit, cursor }) {
    const rows = await deps.db
      .select({ fitted: fittedComponents, number: parts.number, unit: vehicles.unitNumber })
      .from(fittedComponents)
      .innerJoin(vehicles, eq(vehicles.id, fittedComponents.vehicleId))
      .leftJoin(parts, eq(parts.id, fittedComponents.partId))
      .where(
        and(
          eq(fittedComponents.fleetId, actor.fleetId),
          isNull(fittedComponents.removedOn),
          unit === undefined ? undefined : eq(vehicles.unitNumber, unit),
          cursor === undefined ? undefined : gt(fittedComponents.id, cursor),
        ),
      )
      .orderBy(asc(fittedComponents.id))
      .limit(limit + 1);
    const page = rows.slice(0, limit);
    return ok({
      items: page.map(({ fitted, ...row }) => ({ ...fitted, ...row, place: placeId(fitted) })),
      nextCursor: rows.length > limit ? (page.at(-1)?.fitted.id ?? null) : null,
    });
  },
});

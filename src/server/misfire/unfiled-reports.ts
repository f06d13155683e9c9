import { and, asc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { unfiledReports } from '@/db/schema';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import type { Report } from './open-case';

/* Reports of drivers that could not be filed: of a unit that is not there, or because something failed. Never lost. */

export type UnfiledReport = typeof unfiledReports.$inferSelect;

/** Keeps a report as it came. @param why it could not be filed, in words */
export async function keepUnfiled(deps: Deps, fleetId: FleetId, report: Report, why: string): Promise<void> {
  const { unitNumber, driver } = report;
  await deps.db.insert(unfiledReports).values({ fleetId, unitNumber, driver, report, why, at: deps.now() });
}

/** Reports that nobody has dealt with yet, the oldest first. */
export const listUnfiledReports = useCase({
  permission: 'open work orders',
  async run(deps, actor) {
    return ok(
      await deps.db
        .select()
        .from(unfiledReports)
        .where(and(eq(unfiledReports.fleetId, actor.fleetId), isNull(unfiledReports.seenAt)))
        .orderBy(asc(unfiledReports.at)),
    );
  },
});

/** A supervisor has dealt with a report: it stays on record. */
export const dealtWithReport = useCase({
  permission: 'open work orders',
  input: z.object({ reportId: z.uuid() }),
  async run(deps, actor, { reportId }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [row] = await tx
        .update(unfiledReports)
        .set({ seenAt: deps.now(), seenBy: actor.personId })
        .where(
          and(
            eq(unfiledReports.fleetId, actor.fleetId),
            eq(unfiledReports.id, reportId),
            isNull(unfiledReports.seenAt),
          ),
        )
        .returning();
      if (!row) return notFound('report');
      await writeAudit(tx, actor, {
        action: 'deal with report',
        entity: 'misfire-case',
        entityId: row.id,
        changes: { unit: row.unitNumber, driver: row.driver },
      });
      return ok(null);
    });
  },
});

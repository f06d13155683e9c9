import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadSheets } from '@/db/queries/catalogue';
import { sheetChecks } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Someone other than the one who entered a sheet says that it agrees with its source. The sheet itself never changes. */
export const checkSheet = useCase({
  permission: 'check spec sheets',
  input: z.object({ sheetId: z.uuid() }),
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [sheet] = await loadSheets(tx, actor.fleetId, deps.today(), { ids: [input.sheetId] });
      if (!sheet) return notFound('spec sheet');
      if (sheet.checkedBy !== null) return fail('conflict', `${sheet.checkedBy} has checked this sheet already.`);
      if (sheet.enteredById === actor.personId || sheet.enteredBy === actor.name)
        return fail('conflict', 'You entered this sheet. Another person must compare it with its source.');
      await tx
        .insert(sheetChecks)
        .values({ fleetId: actor.fleetId, specSheetId: sheet.id, personId: actor.personId, at: deps.now() });
      await writeAudit(tx, actor, {
        action: 'check',
        entity: 'spec-sheet',
        entityId: sheet.id,
        changes: { document: sheet.sourceDocument, revision: sheet.revision },
      });
      return ok(null);
    });
  },
});

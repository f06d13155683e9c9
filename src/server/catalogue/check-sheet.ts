import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { loadSheets } from '@/db/queries/catalogue';
import { sheetChecks } from '@/db/schema';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { fail, notFound, type Outcome } from '../failure';

/** Someone other than the one who entered a sheet says that it agrees with its source. The sheet itself never changes. */
export async function checkSheet(deps: Deps, actor: Actor, input: { sheetId: string }): Promise<Outcome<null>> {
  const refused = refusal(actor, 'check spec sheets');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const [sheet] = await loadSheets(tx, actor.fleetId, deps.today(), [input.sheetId]);
    if (!sheet) return notFound('spec sheet');
    if (sheet.checkedBy !== null) return fail('conflict', `${sheet.checkedBy} has checked this sheet already.`);
    if (sheet.enteredBy === actor.name)
      return fail('conflict', 'You entered this sheet. Another person must compare it with its source.');
    await tx
      .insert(sheetChecks)
      .values({ fleetId: actor.fleetId, specSheetId: sheet.id, personId: actor.personId, at: deps.now() });
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'check',
      entity: 'spec-sheet',
      entityId: sheet.id,
      changes: { document: sheet.sourceDocument, revision: sheet.revision },
    });
    return ok(null);
  });
}

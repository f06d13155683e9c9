import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { fail, notFound, type Outcome } from '../failure';
import { RowReader } from '../imports/csv/row-reader';
import { isKindName, kindOf } from '../imports/kinds';
import { useCase } from '../use-case';

/**
 * Enters one row by hand, judged by the same rules as a row of a file: an engine family, a part, a spec sheet, a
 * supersession. Faults stand beside their field.
 */
export const enterRow = useCase({
  permission: 'enter catalogue data',
  input: z.object({ kind: z.string(), fields: z.record(z.string(), z.string().max(10_000)) }),
  async run(deps, actor, { kind: kindName, fields }): Promise<Outcome<{ readonly what: string }>> {
    if (!isKindName(kindName)) return notFound('kind of entry');
    const kind = kindOf(kindName);
    return deps.db.transaction(async (tx) => {
      // Nobody enters or checks a sheet in another's name.
      const stamped: Readonly<Record<string, string>> = { ...fields, entered_by: actor.name, checked_by: '' };
      const reader = new RowReader({ cell: (key) => (stamped[key] ?? '').trim(), label: (key) => key }, undefined);
      const scope = { fleetId: actor.fleetId, today: deps.today(), options: {}, jobs: deps.jobs };
      const prepared = await kind.prepare(tx, scope, [{ line: 1, reader }]);
      const [row] = prepared.rows;
      if (!row) return notFound('row');
      if (row.verdict === 'refuse') {
        const loose = row.reasons.filter(
          (reason) => !Object.keys(reader.byColumn).some((key) => reason.startsWith(`${key}:`)),
        );
        const message =
          loose.length > 0
            ? `Nothing was saved: ${loose.join('; ')}.`
            : 'Nothing was saved yet. See the marked fields.';
        return fail('invalid', message, reader.byColumn);
      }
      if (row.verdict === 'skip') return fail('invalid', `Nothing to save: ${row.what} is ${row.reasons.join('; ')}.`);
      await prepared.apply(tx, actor.personId);
      const entered = {
        entity: kindName,
        entityId: row.what,
        changes: Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== '')),
      };
      const isNew = row.verdict === 'add';
      await writeAudit(tx, actor, isNew ? { ...entered, action: 'create' } : { ...entered, action: 'change' });
      return ok({ what: row.what });
    });
  },
});

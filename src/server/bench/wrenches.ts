import { and, asc, eq } from 'drizzle-orm';
import { calibrationForm, wrenchForm } from '@/contracts/forms/parts';
import { ok } from '@/core/shared/result';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { wrenches } from '@/db/schema';
import { fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

export type WrenchRow = typeof wrenches.$inferSelect;

/** The register of torque wrenches in use, by name. */
export const listWrenches = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<readonly WrenchRow[]>> {
    const rows = await deps.db
      .select()
      .from(wrenches)
      .where(and(eq(wrenches.fleetId, actor.fleetId), eq(wrenches.retired, false)))
      .orderBy(asc(wrenches.name));
    return ok(rows);
  },
});

export const addWrench = useCase({
  permission: 'manage wrenches',
  input: wrenchForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    if (input.calibratedOn > deps.today())
      return fail('invalid', 'A calibration cannot lie in the future.', { calibratedOn: 'This day is yet to come.' });
    try {
      return await deps.db.transaction(async (tx) => {
        const [row] = await tx
          .insert(wrenches)
          .values({ fleetId: actor.fleetId, ...input })
          .returning({ id: wrenches.id });
        await writeAudit(tx, actor, { action: 'create', entity: 'wrench', entityId: row?.id ?? '', changes: input });
        return ok(null);
      });
    } catch (error) {
      if (violation(error)?.code === 'unique')
        return fail('invalid', `There is already a wrench “${input.name}”.`, { name: 'Choose another name.' });
      throw error;
    }
  },
});

/** Records a new calibration of a wrench, or takes it out of use. */
export const updateWrench = useCase({
  permission: 'manage wrenches',
  input: calibrationForm.schema,
  async run(deps, actor, { wrenchId, ...changes }): Promise<Outcome<null>> {
    if (changes.calibratedOn && changes.calibratedOn > deps.today())
      return fail('invalid', 'A calibration cannot lie in the future.', { calibratedOn: 'This day is yet to come.' });
    return deps.db.transaction(async (tx) => {
      const done = await tx
        .update(wrenches)
        .set(changes)
        .where(and(eq(wrenches.fleetId, actor.fleetId), eq(wrenches.id, wrenchId)))
        .returning({ id: wrenches.id });
      if (done.length === 0) return notFound('wrench');
      await writeAudit(tx, actor, { action: 'change', entity: 'wrench', entityId: wrenchId, changes });
      return ok(null);
    });
  },
});

import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { endTrialForm, startTrialForm } from '@/contracts/forms/parts';
import { compareParts, standInFault } from '@/core/catalogue/equivalent';
import { partKey } from '@/core/catalogue/match';
import { gapGrowth } from '@/core/gap/check';
import type { FleetId, PartId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { EARLY_SHARE_OF_INTERVAL } from '@/core/stock/receiving';
import { compareTrial, type Service } from '@/core/stock/trial';
import type { Querier } from '@/db/client';
import { violation } from '@/db/constraint-error';
import { writeAudit } from '@/db/queries/audit';
import { loadHeatCrosses } from '@/db/queries/catalogue';
import { dueInputs, dueStatus, fittedComponents, parts, people, specSheets, taskPlaces, trials } from '@/db/schema';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** Puts another part on trial against the usual one, with a day on which it is looked at. */
export const startTrial = useCase({
  permission: 'run trials',
  input: startTrialForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    if (input.reviewOn <= deps.today())
      return fail('invalid', 'The review must lie ahead.', { reviewOn: 'Give a day to come.' });
    try {
      return await deps.db.transaction(async (tx) => {
        const part = await partOf(tx, actor.fleetId, input.number);
        const control = await partOf(tx, actor.fleetId, input.controlNumber);
        const unknown = 'This number is not in the catalogue: enter the part first.';
        if (!part) return fail('invalid', unknown, { number: unknown });
        if (!control) return fail('invalid', unknown, { controlNumber: unknown });
        if (part.id === control.id || part.kind !== control.kind)
          return fail('invalid', 'Compare two different parts of one kind.', { controlNumber: 'Give the usual part.' });
        const comparison = compareParts(control, part, await loadHeatCrosses(tx, actor.fleetId));
        const fault = standInFault(part.number, comparison);
        if (fault) return fail('invalid', fault, { number: fault });
        const [row] = await tx
          .insert(trials)
          .values({
            fleetId: actor.fleetId,
            partId: part.id,
            controlPartId: control.id,
            why: input.why,
            startedOn: deps.today(),
            reviewOn: input.reviewOn,
            startedBy: actor.personId,
          })
          .returning({ id: trials.id });
        await writeAudit(tx, actor, { action: 'create', entity: 'trial', entityId: row?.id ?? '', changes: input });
        return ok(null);
      });
    } catch (error) {
      if (violation(error)?.code === 'unique') return fail('conflict', `${input.number} is on trial already.`);
      throw error;
    }
  },
});

async function partOf(q: Querier, fleetId: FleetId, number: string) {
  const [part] = await q
    .select()
    .from(parts)
    .where(and(eq(parts.fleetId, fleetId), eq(parts.numberKey, partKey(number))));
  return part ?? null;
}

/** Ends a trial with what came of it. */
export const endTrial = useCase({
  permission: 'run trials',
  input: endTrialForm.schema,
  async run(deps, actor, input): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx) => {
      const [row] = await tx
        .select()
        .from(trials)
        .where(and(eq(trials.fleetId, actor.fleetId), eq(trials.id, input.trialId)))
        .for('update');
      if (!row) return notFound('trial');
      if (row.endedOn) return fail('conflict', 'This trial has ended.');
      if (row.version !== input.version) return editedMeanwhile();
      await tx
        .update(trials)
        .set({ endedOn: deps.today(), outcome: input.outcome, version: row.version + 1 })
        .where(eq(trials.id, row.id));
      await writeAudit(tx, actor, {
        action: 'end',
        entity: 'trial',
        entityId: row.id,
        changes: { outcome: input.outcome },
      });
      return ok(null);
    });
  },
});

/** Every trial with both parts' service since it began, the running ones first. */
export const listTrials = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const control = alias(parts, 'control');
    const rows = await deps.db
      .select({ trial: trials, part: parts, control, who: people.name })
      .from(trials)
      .innerJoin(parts, eq(parts.id, trials.partId))
      .innerJoin(control, eq(control.id, trials.controlPartId))
      .leftJoin(people, eq(people.id, trials.startedBy))
      .where(eq(trials.fleetId, actor.fleetId))
      .orderBy(desc(isNull(trials.endedOn)), trials.reviewOn);
    return ok(
      await Promise.all(
        rows.map(async (row) => {
          const onTrial = await serviceOf(deps.db, actor.fleetId, row.part.id);
          const usual = await serviceOf(deps.db, actor.fleetId, row.control.id);
          return { ...row, onTrial, usual, comparison: compareTrial(onTrial, usual) };
        }),
      ),
    );
  },
});

/** What a part did in this fleet, over all sites that had it with a known start. */
async function serviceOf(q: Querier, fleetId: FleetId, partId: PartId): Promise<Service> {
  const rows = await q
    .select({
      vehicleId: fittedComponents.vehicleId,
      installedKm: fittedComponents.installedKm,
      removedKm: fittedComponents.removedKm,
      nowKm: dueInputs.odometerKm,
      // A record from before Isobar names no sheet: then the interval in force now has to do.
      intervalKm: sql<number | null>`coalesce(${specSheets.intervalKm}, ${dueStatus.limitKm})`.mapWith(Number),
      gapMm: fittedComponents.gapMm,
      removedGapMm: taskPlaces.removedGapMm,
    })
    .from(fittedComponents)
    .leftJoin(dueInputs, eq(dueInputs.vehicleId, fittedComponents.vehicleId))
    .leftJoin(
      dueStatus,
      and(eq(dueStatus.vehicleId, fittedComponents.vehicleId), eq(dueStatus.component, fittedComponents.component)),
    )
    .leftJoin(specSheets, eq(specSheets.id, fittedComponents.specSheetId))
    .leftJoin(
      taskPlaces,
      and(
        eq(taskPlaces.workOrderId, fittedComponents.removedByWorkOrderId),
        eq(taskPlaces.component, fittedComponents.component),
        eq(taskPlaces.cylinder, fittedComponents.cylinder),
        eq(taskPlaces.position, fittedComponents.position),
      ),
    )
    .where(
      and(
        eq(fittedComponents.fleetId, fleetId),
        eq(fittedComponents.partId, partId),
        sql`${fittedComponents.installedKmCertainty} <> 'assumed'`,
      ),
    );
  const ran = rows.map((row) => Math.max(0, (row.removedKm ?? row.nowKm ?? row.installedKm) - row.installedKm));
  return {
    sites: rows.length,
    vehicles: new Set(rows.map((row) => row.vehicleId)).size,
    siteKm: ran.reduce((sum, km) => sum + km, 0),
    early: rows.filter(
      (row, i) => row.removedKm !== null && row.intervalKm && (ran[i] ?? 0) < EARLY_SHARE_OF_INTERVAL * row.intervalKm,
    ).length,
    growth: rows.flatMap((row, i) =>
      row.gapMm && row.removedGapMm ? (gapGrowth(row.gapMm, row.removedGapMm, ran[i] ?? 0) ?? []) : [],
    ),
  };
}

import { and, eq, ne } from 'drizzle-orm';
import { matcher, type QuestionKey } from '@/core/catalogue/match';
import { scopeWords } from '@/core/catalogue/scope';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { loadFamilies, loadSpecs } from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { dueStatus } from '@/db/schema';
import { QUESTIONS, whyNoMatch } from '../due/refresh-due';
import { useCase } from '../use-case';

export interface UnmatchedGroup {
  readonly familyCode: string;
  readonly familyId: string;
  /** Null: no answer helps, a sheet is missing. */
  readonly key: QuestionKey | null;
  readonly question: string;
  readonly choices: readonly string[];
  /** What each choice would lead to: scope and part. */
  readonly candidates: readonly { readonly scope: string; readonly part: string }[];
  readonly vehicles: readonly {
    readonly id: string;
    readonly unitNumber: string;
    readonly name: string;
    readonly version: number;
  }[];
}

/** Every vehicle without a firm match, grouped by family and question, the question that resolves most first. */
export const listUnmatched = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const without = await deps.db
      .select({ id: dueStatus.vehicleId })
      .from(dueStatus)
      .where(
        and(eq(dueStatus.fleetId, actor.fleetId), eq(dueStatus.component, 'plug'), ne(dueStatus.fitment, 'match')),
      );
    if (without.length === 0) return ok([]);
    const [vehicles, families, specs] = await Promise.all([
      loadVehicleKeys(
        deps.db,
        actor.fleetId,
        without.map((row) => row.id),
      ),
      loadFamilies(deps.db, actor.fleetId),
      loadSpecs(deps.db, actor.fleetId, deps.today()),
    ]);
    const familyOf = new Map(families.map((family) => [family.id, family]));
    const fitmentOf = matcher(specs, new Map(families.map((family) => [family.id, family.variants])));
    const asked = vehicles.map((vehicle) => ({ vehicle, fitment: fitmentOf(vehicle) }));
    const groups = groupBy(asked, ({ vehicle, fitment }) =>
      [vehicle.engineFamilyId, fitment.kind, fitment.kind === 'needs-answer' ? fitment.key : ''].join('|'),
    );
    const list = [...groups.values()].flatMap((members): UnmatchedGroup[] => {
      const [first] = members;
      if (!first || first.fitment.kind === 'match') return [];
      const { fitment } = first;
      const family = familyOf.get(first.vehicle.engineFamilyId);
      const open = fitment.kind === 'needs-answer' ? fitment : null;
      return [
        {
          familyCode: family?.code ?? '',
          familyId: family?.id ?? '',
          key: open?.key ?? null,
          question: open ? QUESTIONS[open.key] : (whyNoMatch(fitment) ?? ''),
          choices: open?.choices ?? [],
          candidates: (open?.candidates ?? [])
            .map((spec) => ({ scope: scopeWords(spec), part: spec.part.number }))
            .sort((a, b) => a.scope.localeCompare(b.scope)),
          vehicles: members
            .map(({ vehicle: { id, unitNumber, name, version } }) => ({ id, unitNumber, name, version }))
            .sort((a, b) => a.unitNumber.localeCompare(b.unitNumber, 'en', { numeric: true })),
        },
      ];
    });
    return ok(list.sort((a, b) => b.vehicles.length - a.vehicles.length || a.familyCode.localeCompare(b.familyCode)));
  },
});

import { asc, count, eq } from 'drizzle-orm';
import { z } from 'zod';
import { agreement, disputed, rivalsOf } from '@/core/catalogue/dispute';
import { inOrderOfForce, releaseBlockers } from '@/core/catalogue/match';
import { scopeText, scopeWords } from '@/core/catalogue/scope';
import { layoutOf } from '@/core/engine/layout';
import { COMPONENTS, quantityOf } from '@/core/engine/quantities';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { type ComponentSheet, isPlugSheet, loadFamilies, loadSheets, type SpecSheet } from '@/db/queries/catalogue';
import { vehicles } from '@/db/schema';
import { notFound } from '../failure';
import { useCase } from '../use-case';

/** Every engine family with its layout and how many vehicles have it. */
export const listEngines = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const families = await loadFamilies(deps.db, actor.fleetId);
    const counts = await deps.db
      .select({ id: vehicles.engineFamilyId, n: count() })
      .from(vehicles)
      .where(eq(vehicles.fleetId, actor.fleetId))
      .groupBy(vehicles.engineFamilyId);
    const byFamily = new Map(counts.map((row) => [row.id, row.n]));
    return ok(
      families.map((family) => ({ family, layout: layoutOf(family.model), vehicles: byFamily.get(family.id) ?? 0 })),
    );
  },
});

export type EngineListItem = Extract<Awaited<ReturnType<typeof listEngines>>, { ok: true }>['value'][number];

/** An engine family with its quantities, its sheets side by side, and the vehicles that have it. */
export const viewEngine = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, id) {
    const [family] = await loadFamilies(deps.db, actor.fleetId, [id]);
    if (!family) return notFound('engine family');
    const sheets = await loadSheets(deps.db, actor.fleetId, deps.today(), { familyIds: [id] });
    const fleet = await deps.db
      .select({ id: vehicles.id, unitNumber: vehicles.unitNumber, name: vehicles.name, variant: vehicles.variant })
      .from(vehicles)
      .where(eq(vehicles.engineFamilyId, id))
      .orderBy(asc(vehicles.unitNumber));
    const layout = layoutOf(family.model);
    const plugSheets = sheets.filter((s): s is SpecSheet => s.component === 'plug');
    const order = COMPONENTS.map(String);
    return ok({
      family,
      layout,
      quantities: COMPONENTS.map((component) => ({ component, quantity: quantityOf(layout, component) })).filter(
        ({ component, quantity }) => quantity > 0 && component !== 'consumable',
      ),
      scopes: [...groupBy(plugSheets, scopeText).values()].map((group) => sideBySide(inOrderOfForce(group))),
      others: [
        ...groupBy(
          sheets.filter((sheet) => sheet.component !== 'plug'),
          (sheet) => `${sheet.component} ${scopeText(sheet)}`,
        ).values(),
      ]
        .map((group) => sideBySide(inOrderOfForce(group)))
        .sort((a, b) => order.indexOf(a.component) - order.indexOf(b.component)),
      vehicles: fleet.sort((a, b) => a.unitNumber.localeCompare(b.unitNumber, 'en', { numeric: true })),
    });
  },
});

export type EngineView = Extract<Awaited<ReturnType<typeof viewEngine>>, { ok: true }>['value'];

/** Sheets of one component and scope: which is in force, what holds it back, and where two of its rank agree on a plug. */
function sideBySide<S extends ComponentSheet>(sheets: readonly S[]) {
  const [first] = sheets.filter((sheet) => sheet.sourceKind !== 'memory');
  const plugs = first ? [first, ...rivalsOf(first, sheets)].filter((sheet) => isPlugSheet(sheet)) : [];
  return {
    component: sheets[0]?.component ?? 'plug',
    scope: first || sheets[0] ? scopeWords(first ?? (sheets[0] as ComponentSheet)) : '',
    inForceId: first?.id ?? null,
    agreement: plugs.length > 1 ? agreement(plugs) : null,
    sheets: sheets.map((sheet) => ({
      ...sheet,
      blockers: releaseBlockers({ ...sheet, makersDisagree: disputed(sheet, sheets) }),
    })),
  };
}

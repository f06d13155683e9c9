import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { fieldsOfItem, ITEM_FIELDS, type ItemFields, itemFromFields } from '@/core/engine/access-item-fields';
import { itemFaults } from '@/core/engine/access-items';
import { layoutOf } from '@/core/engine/layout';
import { ok } from '@/core/shared/result';
import { writeAudit } from '@/db/queries/audit';
import { type EngineFamily, loadFamilies } from '@/db/queries/catalogue';
import { engineFamilies } from '@/db/schema';
import { toCsv } from '../exports/csv';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';

/** The items of a family as their editor shows them. */
const rowsOf = ({ model, accessItems }: EngineFamily): readonly ItemFields[] =>
  (accessItems ?? []).map((item, _, items) => fieldsOfItem(model, item, items));

/** The way to the plugs of a family as rows, with those of another to begin with where that is asked for. */
export const viewAccessItems = useCase({
  permission: 'read the fleet',
  input: z.object({ id: z.uuid(), from: z.uuid().optional() }),
  async run(deps, actor, { id, from }) {
    const families = await loadFamilies(deps.db, actor.fleetId);
    const family = families.find((candidate) => candidate.id === id);
    if (!family) return notFound('engine family');
    const other = families.find((candidate) => candidate.id === from) ?? null;
    return ok({
      family,
      layout: layoutOf(family.model),
      rows: rowsOf(family),
      /** Another family's, to be looked through and saved as one's own. */
      copied: other && { code: other.code, rows: rowsOf(other) },
      others: families.flatMap((candidate) =>
        candidate.id !== id && candidate.accessItems?.length
          ? [{ id: candidate.id, code: candidate.code, items: candidate.accessItems.length }]
          : [],
      ),
    });
  },
});

const MAX_ITEMS = 40;
const row = z.partialRecord(z.enum(ITEM_FIELDS), z.string().max(400));

/** Writes the whole list of a family, or nothing: what is wrong is named by the row and field. */
export const saveAccessItems = useCase({
  permission: 'enter catalogue data',
  input: z.object({
    familyId: z.uuid(),
    version: z.coerce.number().int(),
    rows: z.array(row, 'The list cannot be read.').max(MAX_ITEMS, `At most ${MAX_ITEMS} items.`),
  }),
  async run(deps, actor, { familyId, version, rows }): Promise<Outcome<null>> {
    return deps.db.transaction(async (tx): Promise<Outcome<null>> => {
      const [family] = await loadFamilies(tx, actor.fleetId, [familyId]);
      if (!family) return notFound('engine family');
      if (family.version !== version) return editedMeanwhile();
      const read = rows.map((row) => itemFromFields(family.model, row));
      const items = read.map(({ item }) => item);
      const wrong = [
        ...read.flatMap(({ faults }, i) =>
          Object.entries(faults).map(([field, why]) => `Row ${i + 1}, ${field.replaceAll('_', ' ')}: ${why}.`),
        ),
        ...itemFaults(family.model, items).map(({ at, says }) => `Row ${at}: ${says}`),
      ];
      if (wrong.length > 0) return fail('invalid', `Nothing was saved. ${wrong.slice(0, 4).join(' ')}`);
      await tx
        .update(engineFamilies)
        .set({ accessItems: items.length > 0 ? items : null, version: version + 1 })
        .where(and(eq(engineFamilies.id, familyId), eq(engineFamilies.fleetId, actor.fleetId)));
      await writeAudit(tx, actor, {
        action: 'change',
        entity: 'access-items',
        entityId: family.code,
        changes: { items: items.map(({ what }) => what) },
      });
      return ok(null);
    });
  },
});

/** The items of every family as a file that can be imported again. */
export const exportAccessItems = useCase({
  permission: 'read the fleet',
  async run(deps, actor): Promise<Outcome<string>> {
    const families = await loadFamilies(deps.db, actor.fleetId);
    return ok(
      toCsv(
        ['engine_family', ...ITEM_FIELDS],
        families.flatMap((family) =>
          rowsOf(family).map((fields) => [family.code, ...ITEM_FIELDS.map((field) => fields[field] ?? '')]),
        ),
      ),
    );
  },
});

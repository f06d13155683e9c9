import { deps } from '@/server/deps';
import { CATALOGUE_KINDS, type CatalogueKind, exportCatalogue, exportRows } from '@/server/exports/catalogue-csv';
import { kindOf } from '@/server/imports/kinds';
import { csvReply, reply, route, wantsCsv } from './http';

/** Lists of the catalogue: the same columns as the files that are imported. */
export const CATALOGUE_LISTS = CATALOGUE_KINDS.map((kind) => ({
  kind,
  path: `/api/v1/${kind}`,
  about: `${kindOf(kind).title}: the columns of the import file`,
  columns: kindOf(kind).columns.map((column) => column.key),
}));

/** The list as JSON, or as the CSV file that can be imported again. */
export const catalogueList = (kind: CatalogueKind) =>
  route(async ({ request, actor }) => {
    if (wantsCsv(request)) {
      const text = await exportCatalogue(deps(), actor, kind);
      return text.ok ? csvReply(text.value) : reply(text);
    }
    // Every column of the file, empty where the row has nothing.
    const keys = kindOf(kind).columns.map(({ key }) => key);
    const whole = (row: Readonly<Record<string, string>>) =>
      Object.fromEntries(keys.map((key) => [key, row[key] ?? '']));
    return reply(await exportRows(deps(), actor, kind), (items) => ({ items: items.map(whole) }));
  });

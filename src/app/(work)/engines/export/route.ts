import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { CATALOGUE_KINDS, exportCatalogue } from '@/server/exports/catalogue-csv';
import { notFound } from '@/server/failure';

export async function GET(request: Request): Promise<Response> {
  const wanted = new URL(request.url).searchParams.get('of');
  const kind = CATALOGUE_KINDS.find((known) => known === wanted);
  return download(`${kind ?? 'none'}.csv`, 'text/csv', async (actor) =>
    kind ? exportCatalogue(deps(), actor, kind) : notFound('list'),
  );
}

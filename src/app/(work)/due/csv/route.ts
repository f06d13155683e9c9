import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { dueFilter } from '@/server/due/list-due';
import { exportDue } from '@/server/exports/due-csv';

export async function GET(request: Request): Promise<Response> {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const filter = dueFilter.parse({ ...query, ids: query.ids?.split(','), descending: query.order === 'reversed' });
  return download(`due-${deps().today()}.csv`, 'text/csv', (actor) => exportDue(deps(), actor, filter));
}

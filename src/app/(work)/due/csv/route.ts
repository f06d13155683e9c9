import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { exportDue } from '@/server/exports/due-csv';
import { filterFrom } from '../filter-from';

export async function GET(request: Request): Promise<Response> {
  const filter = filterFrom(request);
  return download(`due-${deps().today()}.csv`, 'text/csv', (actor) => exportDue(deps(), actor, filter));
}

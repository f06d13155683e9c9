import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { exportDueCalendar } from '@/server/exports/due-ics';
import { filterFrom } from '../filter-from';

export async function GET(request: Request): Promise<Response> {
  const filter = filterFrom(request);
  return download(`due-${deps().today()}.ics`, 'text/calendar', (actor) => exportDueCalendar(deps(), actor, filter));
}

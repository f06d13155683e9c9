import { download } from '@/app/download';
import { isPlainDate } from '@/core/calendar/plain-date';
import { deps } from '@/server/deps';
import { exportWeek } from '@/server/planning/view-week';

export async function GET(request: Request): Promise<Response> {
  const asked = new URL(request.url).searchParams.get('week') ?? '';
  const day = isPlainDate(asked) ? asked : deps().today();
  return download(`plan-${day}.ics`, 'text/calendar', (actor) => exportWeek(deps(), actor, day));
}

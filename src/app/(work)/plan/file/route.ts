import { download } from '@/app/download';
import { isPlainDate } from '@/core/calendar/plain-date';
import { deps } from '@/server/deps';
import { exportWeek } from '@/server/planning/export-plan';

/** A week of the plan as a calendar or a table. */
export async function GET(request: Request): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const asked = query.get('week') ?? '';
  const day = isPlainDate(asked) ? asked : deps().today();
  const format = query.get('format') === 'csv' ? 'csv' : 'ics';
  const depot = query.get('depot') ?? undefined;
  return download(`plan-${day}.${format}`, format === 'csv' ? 'text/csv' : 'text/calendar', (actor) =>
    exportWeek(deps(), actor, { day, depot, format }),
  );
}

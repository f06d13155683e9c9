import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { exportAbsences } from '@/server/planning/export-absences';

export async function GET(): Promise<Response> {
  return download('absences.csv', 'text/csv', (actor) => exportAbsences(deps(), actor));
}

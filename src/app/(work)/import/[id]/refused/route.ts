import { download } from '@/app/download';
import { deps } from '@/server/deps';
import { refusedRowsCsv } from '@/server/imports/import-file';

export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return download('refused-rows.csv', 'text/csv', (actor) => refusedRowsCsv(deps(), actor, id));
}

import { download } from '@/app/download';
import { templateOf } from '@/server/imports/templates';

export async function GET(_request: Request, { params }: { params: Promise<{ kind: string }> }): Promise<Response> {
  const { kind } = await params;
  return download(`${kind.replace(/[^a-z-]/g, '')}.csv`, 'text/csv', async () => templateOf(kind));
}

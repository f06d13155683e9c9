import { download } from '@/app/download';
import { exportAccessItems } from '@/server/catalogue/access-items';
import { deps } from '@/server/deps';

export async function GET(): Promise<Response> {
  return download('access-items.csv', 'text/csv', (actor) => exportAccessItems(deps(), actor));
}

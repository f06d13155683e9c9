import { deps } from '@/server/deps';
import { readFeed } from '@/server/planning/feeds';

/** The plan of a depot, bay or person for a calendar program: whoever has the address may read it. */
export async function GET(_request: Request, { params }: { params: Promise<{ secret: string }> }): Promise<Response> {
  const { secret } = await params;
  const text = await readFeed(deps(), secret.replace(/\.ics$/, ''));
  if (text === null) return new Response('There is no such calendar. Ask for its new address.', { status: 404 });
  return new Response(text, {
    headers: { 'Content-Type': 'text/calendar; charset=utf-8', 'Cache-Control': 'private, no-store' },
  });
}

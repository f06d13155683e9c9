import { deps } from '@/server/deps';
import { atomFeed } from '@/server/exports/notices';
import { latestNotices } from '@/server/notices/list-notices';
import { reply, route } from '../http';

export const GET = route(async ({ request, actor }) => {
  const list = await latestNotices(deps(), actor);
  if (!list.ok) return reply(list);
  return new Response(atomFeed(list.value, process.env.ISOBAR_URL ?? new URL(request.url).origin, deps().now()), {
    headers: { 'Content-Type': 'application/atom+xml; charset=utf-8', 'Cache-Control': 'no-store' },
  });
});

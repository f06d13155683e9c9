import { download } from '@/app/download';
import { ok } from '@/core/shared/result';
import { deps } from '@/server/deps';
import { digestMessage } from '@/server/exports/notices';
import { viewDigest } from '@/server/notices/list-notices';

export async function GET(request: Request): Promise<Response> {
  const on = new URL(request.url).searchParams.get('on') ?? undefined;
  const { today, now } = deps();
  return download(`isobar-${on ?? today()}.eml`, 'message/rfc822', async (actor) => {
    const digest = await viewDigest(deps(), actor, on);
    return digest.ok ? ok(digestMessage(digest.value, actor.name.replace(/[^\w .]/g, ''), now())) : digest;
  });
}

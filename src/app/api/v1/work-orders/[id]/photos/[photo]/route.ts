import { deps } from '@/server/deps';
import { keepPhoto, MAX_PHOTO_BYTES, viewPhoto } from '@/server/work-orders/photos';
import { queryOf, readBytes, reply, route } from '../../../../http';

type Ids = { id: string; photo: string };

export const GET = route<Ids>(async ({ actor, params: { id, photo } }) => {
  const answered = await viewPhoto(deps(), actor, { workOrderId: id, id: photo });
  if (!answered.ok) return reply(answered);
  return new Response(new Uint8Array(answered.value.bytes), {
    headers: { 'Content-Type': answered.value.mime, 'Cache-Control': 'private, max-age=31536000, immutable' },
  });
});

/** The picture itself is the body; `target` and `at` stand in the query. Sent twice it is kept once. */
export const PUT = route<Ids>(async ({ request, actor, params: { id, photo } }) => {
  const bytes = await readBytes(request, MAX_PHOTO_BYTES);
  if (!bytes.ok) return bytes.response;
  const { target = '', at = '' } = queryOf(request);
  return reply(await keepPhoto(deps(), actor, { target, at, workOrderId: id, id: photo, bytes: bytes.value }));
});

import { z } from 'zod';
import { deps } from '@/server/deps';
import { keepPhoto, MAX_PHOTO_BYTES, photoInput, viewPhoto } from '@/server/work-orders/photos';
import { asActor, inputProblem, problem, reply } from '../../../../http';

type Props = { params: Promise<{ id: string; photo: string }> };

const ids = z.object({ id: z.uuid(), photo: z.uuid() });

export async function GET(_: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const read = ids.safeParse(await params);
    if (!read.success) return problem(404, 'There is no such picture in this fleet.');
    const photo = await viewPhoto(deps(), actor, { workOrderId: read.data.id, id: read.data.photo });
    if (!photo.ok) return reply(photo);
    return new Response(new Uint8Array(photo.value.bytes), {
      headers: { 'Content-Type': photo.value.mime, 'Cache-Control': 'private, max-age=31536000, immutable' },
    });
  });
}

/** The picture itself is the body; `target` and `at` stand in the query. Sent twice it is kept once. */
export async function PUT(request: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    if (Number(request.headers.get('content-length') ?? 0) > MAX_PHOTO_BYTES)
      return problem(413, `A picture may have ${MAX_PHOTO_BYTES / 1e6} MB.`);
    const { id, photo } = await params;
    const query = Object.fromEntries(new URL(request.url).searchParams);
    const input = photoInput.safeParse({ ...query, workOrderId: id, id: photo });
    if (!input.success) return inputProblem(input.error);
    return reply(await keepPhoto(deps(), actor, { ...input.data, bytes: Buffer.from(await request.arrayBuffer()) }));
  });
}

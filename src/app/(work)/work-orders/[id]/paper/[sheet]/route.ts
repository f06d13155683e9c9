import { z } from 'zod';
import { currentActor } from '@/app/actor';
import { deps } from '@/server/deps';
import { PAPER_SIZES } from '@/server/paper/pdf';
import { printOrder } from '@/server/paper/print-order';
import { SHEETS } from '@/server/paper/sheets';

type Props = { params: Promise<{ id: string; sheet: string }> };

const wanted = z.object({ id: z.uuid(), sheet: z.enum(SHEETS), size: z.enum(PAPER_SIZES).default('A4') });

export async function GET(request: Request, { params }: Props): Promise<Response> {
  const actor = await currentActor();
  if (!actor) return new Response('Sign in first.', { status: 401 });
  const url = new URL(request.url);
  const input = wanted.safeParse({ ...(await params), size: url.searchParams.get('size') ?? undefined });
  if (!input.success) return new Response('There is no such sheet.', { status: 404 });
  const { id, sheet, size } = input.data;
  const address = process.env.ISOBAR_URL ?? url.origin;
  const made = await printOrder(deps(), actor, { workOrderId: id, sheet, size, address });
  if (!made.ok) return new Response(made.error.message, { status: made.error.kind === 'not-found' ? 404 : 403 });
  return new Response(new Uint8Array(made.value.bytes), {
    headers: {
      'Content-Type': 'application/pdf',
      'Content-Disposition': `inline; filename="${made.value.fileName}"`,
      'Cache-Control': 'no-store',
    },
  });
}

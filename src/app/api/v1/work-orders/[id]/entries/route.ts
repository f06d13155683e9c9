import { deps } from '@/server/deps';
import { entriesInput, recordEntries } from '@/server/work-orders/record-entries';
import { viewFloor } from '@/server/work-orders/view-job';
import { asActor, readBody, reply } from '../../../http';
import { entriesBody } from '../../../work-order-resources';

type Props = { params: Promise<{ id: string }> };

/** Entries of a device at the vehicle, with the job as it stands after them. */
export async function POST(request: Request, { params }: Props): Promise<Response> {
  return asActor(async (actor) => {
    const { id } = await params;
    const body = await readBody(request, entriesBody);
    if (!body.ok) return body.response;
    const parsed = entriesInput.shape.workOrderId.safeParse(id);
    const results = await recordEntries(deps(), actor, { workOrderId: parsed.success ? id : NOBODY, ...body.value });
    if (!results.ok) return reply(results);
    return reply(await viewFloor(deps(), actor, id), (job) => ({ results: results.value, job }));
  });
}

/** An id that no order has: what is no id is answered as what is not there. */
const NOBODY = '00000000-0000-4000-8000-000000000000';

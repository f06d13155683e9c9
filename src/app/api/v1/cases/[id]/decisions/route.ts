import { decisionBody } from '@/contracts/http/misfire';
import { decideCase, mendCase } from '@/server/misfire/decide';
import { problem, readBody, reply, route } from '../../../http';

/** Puts the cure on a visit, refers, watches, closes a misfire, or goes on with it. */
export const POST = route<{ id: string }>(async ({ request, actor, params, once }) => {
  const body = await readBody(request, decisionBody);
  if (!body.ok) return body.response;
  const { decision, words, cause } = body.value;
  if (decision !== 'mend')
    return reply(
      await once(body.text, (within) => decideCase(within, actor, { caseId: params.id, decision, words, cause })),
      () => ({ work_order_id: null }),
    );
  if (!cause)
    return problem(422, 'Say what is to be mended.', [
      { pointer: '/cause', message: 'Name the cause and its cylinders.' },
    ]);
  return reply(
    await once(body.text, (within) => mendCase(within, actor, { caseId: params.id, cause, releaseReason: words })),
    ({ workOrderId }) => ({ work_order_id: workOrderId }),
  );
});

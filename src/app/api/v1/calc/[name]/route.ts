import { TooManyPlans } from '@/server/planning/solve';
import { CALCULATIONS } from '../../calc';
import { problem, readBody, route } from '../../http';

export const POST = route<{ name: string }>(async ({ request, actor, params }) => {
  const { name } = params;
  const known = Object.hasOwn(CALCULATIONS, name) ? CALCULATIONS[name] : undefined;
  if (!known)
    return problem(
      404,
      `There is no calculation “${name.slice(0, 40)}”. There are ${Object.keys(CALCULATIONS).join(', ')}.`,
    );
  const body = await readBody(request, known.input, known.maxBytes);
  if (!body.ok) return body.response;
  const clash = known.conflict?.(body.value) ?? null;
  if (clash !== null) return problem(409, clash);
  try {
    return Response.json(await known.run(body.value, { personId: actor.personId, signal: request.signal }));
  } catch (error) {
    if (error instanceof TooManyPlans) return problem(429, error.message);
    throw error;
  }
});

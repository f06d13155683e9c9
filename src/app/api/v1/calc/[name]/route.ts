import { CALCULATIONS } from '../../calc';
import { asActor, problem, readBody } from '../../http';

export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const { name } = await params;
  return asActor(async () => {
    const found = Object.hasOwn(CALCULATIONS, name) ? CALCULATIONS[name] : undefined;
    if (!found)
      return problem(
        404,
        `There is no calculation “${name.slice(0, 40)}”. There are ${Object.keys(CALCULATIONS).join(', ')}.`,
      );
    const body = await readBody(request, found.input);
    return body.ok ? Response.json(found.run(body.value)) : body.response;
  });
}

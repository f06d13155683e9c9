import type { z } from 'zod';
import { currentActor } from '@/app/actor';
import type { Actor } from '@/server/access';
import type { Failure, Outcome } from '@/server/failure';

const MAX_BODY_BYTES = 1024 * 1024;

interface InputError {
  readonly pointer: string;
  readonly message: string;
}

const TITLES: Readonly<Record<number, string>> = {
  400: 'The request cannot be read',
  401: 'Who is asking?',
  403: 'Not allowed',
  404: 'Not found',
  409: 'Changed meanwhile',
  413: 'Too large',
  422: 'The input does not fit',
  500: 'Something failed on the server',
};

/** Problem details (RFC 9457). */
export function problem(status: number, detail: string, errors?: readonly InputError[]): Response {
  const body = {
    type: 'about:blank',
    title: TITLES[status] ?? 'Problem',
    status,
    detail,
    ...(errors ? { errors } : {}),
  };
  return Response.json(body, { status, headers: { 'Content-Type': 'application/problem+json' } });
}

const STATUS: Readonly<Record<Failure['kind'], number>> = {
  forbidden: 403,
  'not-found': 404,
  'edited-meanwhile': 409,
  invalid: 422,
  conflict: 409,
};

export function reply<T>(outcome: Outcome<T>, make: (value: T) => unknown = (value) => value): Response {
  if (outcome.ok) return Response.json(make(outcome.value));
  const { kind, message, fields } = outcome.error;
  return problem(
    STATUS[kind],
    message,
    fields && Object.entries(fields).map(([name, text]) => ({ pointer: pointerOf(name.split('.')), message: text })),
  );
}

/** Runs a handler for a known person; anything unforeseen becomes a plain 500 that gives nothing away. */
export async function asActor(handle: (actor: Actor) => Promise<Response>): Promise<Response> {
  try {
    const actor = await currentActor();
    if (!actor) return problem(401, 'Send a bearer token made under Settings, or sign in.');
    return await handle(actor);
  } catch (error) {
    console.error(error);
    return problem(500, 'Nothing was changed. Try again; if it stays so, see the server log.');
  }
}

const pointerOf = (path: readonly PropertyKey[]): string =>
  path.map((key) => `/${String(key).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

export const inputProblem = (error: z.ZodError): Response =>
  problem(
    422,
    'See errors: each names the place in the request.',
    error.issues.slice(0, 50).map((issue) => ({ pointer: pointerOf(issue.path), message: issue.message })),
  );

/** The JSON body, checked, or the problem to answer with. */
export async function readBody<S extends z.ZodType>(
  request: Request,
  schema: S,
): Promise<{ ok: true; value: z.output<S> } | { ok: false; response: Response }> {
  const declared = Number(request.headers.get('content-length') ?? 0);
  if (declared > MAX_BODY_BYTES) return { ok: false, response: problem(413, 'At most 1 MiB.') };
  const text = await request.text();
  if (text.length > MAX_BODY_BYTES) return { ok: false, response: problem(413, 'At most 1 MiB.') };
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { ok: false, response: problem(400, 'The body is not JSON.') };
  }
  const parsed = schema.safeParse(json);
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: inputProblem(parsed.error) };
}

/** The query as it came, a value a name. */
export const queryOf = (request: Request): Readonly<Record<string, string>> =>
  Object.fromEntries(new URL(request.url).searchParams);

/** The checked query, or the problem to answer with. A parameter that is not known is a mistake worth telling. */
export function readQuery<S extends z.ZodType>(
  request: Request,
  schema: S,
): { ok: true; value: z.output<S> } | { ok: false; response: Response } {
  const parsed = schema.safeParse(queryOf(request));
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: inputProblem(parsed.error) };
}

export const wantsCsv = (request: Request): boolean => (request.headers.get('accept') ?? '').includes('text/csv');

export const csvReply = (text: string): Response =>
  new Response(text, { headers: { 'Content-Type': 'text/csv; charset=utf-8' } });

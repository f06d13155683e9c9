import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { currentActor } from '@/app/actor';
import type { Actor } from '@/server/access';
import { once } from '@/server/auth/idempotency';
import { type Deps, deps } from '@/server/deps';
import type { Failure, Outcome } from '@/server/failure';
import { log, requestContext } from '@/server/log';

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
  429: 'Too many at once',
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

interface Call<P> {
  readonly request: Request;
  readonly actor: Actor;
  readonly params: P;
  /** Does a write once for the key that came with it. */
  readonly once: <T>(body: string, run: (deps: Deps) => Promise<Outcome<T>>) => Promise<Outcome<T>>;
}

/**
 * A handler for a known person. A request that comes by cookie must come from one of our own pages; anything unforeseen
 * becomes a plain 500 that gives nothing away. Each call is a line in the log.
 */
export function route<P extends Readonly<Record<string, string>> = Record<never, string>>(
  handle: (call: Call<P>) => Promise<Response>,
): (request: Request, context: { params: Promise<P> }) => Promise<Response> {
  return (request, { params }) => {
    const requestId = randomUUID();
    const { pathname } = new URL(request.url);
    return requestContext.run({ requestId }, async () => {
      const from = performance.now();
      const response = await answered(request, pathname, params, handle);
      response.headers.set('X-Request-Id', requestId);
      const ms = Math.round(performance.now() - from);
      log.info({ event: 'http', method: request.method, path: pathname, status: response.status, ms });
      return response;
    });
  };
}

async function answered<P>(
  request: Request,
  pathname: string,
  params: Promise<P>,
  handle: (call: Call<P>) => Promise<Response>,
): Promise<Response> {
  try {
    const actor = await currentActor();
    if (!actor) return problem(401, 'Send a bearer token made under Settings, or sign in.');
    const foreign = foreignRequest(request);
    if (foreign) return problem(403, foreign);
    const key = request.headers.get('idempotency-key');
    if (key !== null && (key === '' || key.length > MAX_KEY))
      return problem(400, `An Idempotency-Key has 1 to ${MAX_KEY} characters.`);
    const endpoint = `${request.method} ${pathname}`;
    return await handle({
      request,
      actor,
      params: await params,
      once: (body, run) => once(deps(), actor, { key, endpoint, body }, run),
    });
  } catch (err) {
    log.error({ err }, 'a request failed');
    return problem(500, 'Nothing was changed. Try again; if it stays so, see the server log.');
  }
}

const MAX_KEY = 200;
const READING = ['GET', 'HEAD'];
/** What a page of another site can send with our cookie without being asked first. */
const SIMPLE_TYPES = ['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data'];

/** Why a request that comes by cookie is not taken; null: it is, or it comes with a token. */
function foreignRequest({ headers, method }: Request): string | null {
  if (READING.includes(method) || headers.has('authorization')) return null;
  const origin = headers.get('origin');
  const hosts = [headers.get('host'), process.env.ISOBAR_URL && new URL(process.env.ISOBAR_URL).host];
  if (!origin || !URL.canParse(origin) || !hosts.includes(new URL(origin).host))
    return 'A request by cookie must come from a page of this Isobar. From elsewhere, send a bearer token.';
  const type = (headers.get('content-type') ?? '').split(';')[0]?.trim().toLowerCase() ?? '';
  return SIMPLE_TYPES.includes(type) ? 'Send application/json.' : null;
}

const pointerOf = (path: readonly PropertyKey[]): string =>
  path.map((key) => `/${String(key).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('');

const inputProblem = (error: z.ZodError): Response =>
  problem(
    422,
    'See errors: each names the place in the request.',
    error.issues.slice(0, 50).map((issue) => ({ pointer: pointerOf(issue.path), message: issue.message })),
  );

interface Refusal {
  readonly ok: false;
  readonly response: Response;
}
type Read<T> = { readonly ok: true; readonly value: T } | Refusal;

/** The body up to a limit: no more than that is ever read, whatever the request says of its length. */
export async function readBytes(request: Request, maxBytes: number): Promise<Read<Buffer>> {
  const tooLarge = () => ({
    ok: false as const,
    response: problem(413, `At most ${Number((maxBytes / 1024 / 1024).toFixed(2))} MiB.`),
  });
  if (Number(request.headers.get('content-length') ?? 0) > maxBytes) return tooLarge();
  const pieces: Uint8Array[] = [];
  let size = 0;
  for await (const piece of request.body ?? []) {
    size += piece.length;
    if (size > maxBytes) return tooLarge();
    pieces.push(piece);
  }
  return { ok: true, value: Buffer.concat(pieces) };
}

/** The JSON body, checked, with its text; or the problem to answer with. */
export async function readBody<S extends z.ZodType>(
  request: Request,
  schema: S,
  maxBytes = MAX_BODY_BYTES,
): Promise<{ readonly ok: true; readonly value: z.output<S>; readonly text: string } | Refusal> {
  const bytes = await readBytes(request, maxBytes);
  if (!bytes.ok) return bytes;
  const text = bytes.value.toString('utf8');
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { ok: false, response: problem(400, 'The body is not JSON.') };
  }
  const parsed = schema.safeParse(json);
  return parsed.success ? { ok: true, value: parsed.data, text } : { ok: false, response: inputProblem(parsed.error) };
}

/** The query as it came, a value a name. */
export const queryOf = (request: Request): Readonly<Record<string, string>> =>
  Object.fromEntries(new URL(request.url).searchParams);

/** The checked query, or the problem to answer with. A parameter that is not known is a mistake worth telling. */
export function readQuery<S extends z.ZodType>(request: Request, schema: S): Read<z.output<S>> {
  const parsed = schema.safeParse(queryOf(request));
  return parsed.success ? { ok: true, value: parsed.data } : { ok: false, response: inputProblem(parsed.error) };
}

export const wantsCsv = (request: Request): boolean => (request.headers.get('accept') ?? '').includes('text/csv');

export const csvReply = (text: string): Response =>
  new Response(text, { headers: { 'Content-Type': 'text/csv; charset=utf-8' } });

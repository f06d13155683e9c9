import { Answered } from './answered';

const WAIT_MS = 12_000;

/** Asks our own server, for so long as it is worth waiting. @throws Answered where it answers with a problem */
export async function ask(url: string, init: RequestInit = {}): Promise<Response> {
  const answer = await fetch(url, { ...init, signal: AbortSignal.timeout(WAIT_MS) });
  if (answer.ok) return answer;
  const detail = detailOf(await answer.json().catch(() => null));
  throw new Answered(answer.status, detail ?? `The server answered ${answer.status}.`);
}

/** What a problem in JSON says, RFC 9457. Read by hand: a whole library of checks would come along for one word. */
const detailOf = (body: unknown): string | null =>
  typeof body === 'object' && body !== null && 'detail' in body && typeof body.detail === 'string' ? body.detail : null;

/** Sends a body as JSON, and reads the answer as JSON. */
export async function post<T>(url: string, body: unknown): Promise<T> {
  const init = { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
  return (await ask(url, init)).json();
}

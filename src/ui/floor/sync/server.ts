import { type Answer, Answered, type Server } from './parts';

const WAIT_MS = 12_000;

async function ask(url: string, init: RequestInit = {}): Promise<Response> {
  const answer = await fetch(url, { ...init, signal: AbortSignal.timeout(WAIT_MS) });
  if (answer.ok) return answer;
  const said = detailOf(await answer.json().catch(() => null));
  throw new Answered(answer.status, said ?? `The server answered ${answer.status}.`);
}

/** What a problem in JSON says, RFC 9457. Read by hand: a whole library of checks would come along for one word. */
const detailOf = (body: unknown): string | null =>
  typeof body === 'object' && body !== null && 'detail' in body && typeof body.detail === 'string' ? body.detail : null;

const post = async (url: string, body: unknown): Promise<Answer> =>
  (
    await ask(url, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) })
  ).json();

const api = (orderId: string): string => `/api/v1/work-orders/${orderId}`;

/** The server over HTTP. */
export const httpServer: Server = {
  job: async (orderId) => (await ask(`${api(orderId)}/floor`)).json(),
  entries: (orderId, entries) => post(`${api(orderId)}/entries`, { entries }),
  working: (orderId, working) => post(`${api(orderId)}/working`, { working }),
  codes: (orderId, moment) => post(`${api(orderId)}/codes`, { moment }),
  photo: ({ orderId, id, target, at, blob }) =>
    ask(`${api(orderId)}/photos/${id}?${new URLSearchParams({ target, at })}`, {
      method: 'PUT',
      headers: { 'Content-Type': blob.type || 'application/octet-stream' },
      body: blob,
    }),
};

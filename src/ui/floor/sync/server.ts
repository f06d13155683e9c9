import { ask, post } from '@/ui/sync/ask';
import type { Answer, Server } from './parts';

const api = (orderId: string): string => `/api/v1/work-orders/${orderId}`;

/** The server over HTTP. */
export const httpServer: Server = {
  job: async (orderId) => (await ask(`${api(orderId)}/floor`)).json(),
  entries: (orderId, entries) => post<Answer>(`${api(orderId)}/entries`, { entries }),
  working: (orderId, working) => post<Answer>(`${api(orderId)}/working`, { working }),
  codes: (orderId, moment) => post<Answer>(`${api(orderId)}/codes`, { moment }),
  photo: ({ orderId, id, target, at, blob }) =>
    ask(`${api(orderId)}/photos/${id}?${new URLSearchParams({ target, at })}`, {
      method: 'PUT',
      headers: { 'Content-Type': blob.type || 'application/octet-stream' },
      body: blob,
    }),
};

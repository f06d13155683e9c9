import { readFileSync } from 'node:fs';
import { expect } from '@playwright/test';
import { walkGates } from '../builders/gate-walk';
import { test } from './app';

const token = () => readFileSync(process.env.E2E_TOKEN_FILE ?? '', 'utf8').trim();
test.use({ extraHTTPHeaders: { Authorization: `Bearer ${process.env.E2E_TOKEN_FILE ? token() : ''}` } });

test('every gate is held over HTTP, and the close waits for codes and proof', async ({ request }) => {
  const opened = await request.post('/api/v1/work-orders', { data: { unit_number: '37' } });
  expect(opened.ok()).toBe(true);
  const order = `/api/v1/work-orders/${(await opened.json()).id}`;
  const held = await walkGates({
    job: async () => (await (await request.get(`${order}/floor`)).json()).job,
    send: async (entries) => (await (await request.post(`${order}/entries`, { data: { entries } })).json()).results,
  });
  expect(held).toEqual([
    'safe',
    'parts',
    'isolated',
    'fuel',
    'temperature',
    'wells',
    'threads',
    'breakaway',
    'dropped',
    'by_hand',
    'solvent',
    'pieces',
    'counts',
    'clicks',
  ]);
  const closed = await request.post(`${order}/close`, { data: { version: 1, odometer: '99000' } });
  expect(closed.status()).toBe(409);
  // A supervisor lifts what cannot be done today, with a reason.
  const lift = await request.post(`${order}/lifts`, { data: { gate: 'proved', reason: 'road closed by snow' } });
  expect(lift.status()).toBe(200);
  expect((await lift.json()).job.lifts).toEqual([
    expect.objectContaining({ gate: 'proved', reason: 'road closed by snow' }),
  ]);
});

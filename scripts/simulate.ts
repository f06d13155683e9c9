import { readFileSync } from 'node:fs';
import path from 'node:path';
import { type Driven, playFeed } from '../src/simulators/telematics';

/* Plays the telematics stand-in into a running demo over HTTP: npm run simulate [seed]. */

const base = process.env.ISOBAR_URL ?? 'http://127.0.0.1:3000';
const folder = process.env.ISOBAR_DATA_DIR ?? '.isobar';
const seed = Number(process.argv[2] ?? 1);
const BATCH = 1000;

interface DueItem {
  unit_number: string;
  odometer_unit: 'km' | 'mi';
  odometer_km: number | null;
  odometer_on: string | null;
  rate_km_per_day: number | null;
}

function token(): string {
  try {
    return process.env.ISOBAR_TOKEN ?? readFileSync(path.join(folder, 'demo-token'), 'utf8').trim();
  } catch {
    process.stderr.write(
      `simulate: no token in ${folder}/demo-token. Start npm run demo first, or set ISOBAR_TOKEN.\n`,
    );
    process.exit(1);
  }
}

const headers = { Authorization: `Bearer ${token()}`, 'Content-Type': 'application/json' };

async function call<T>(address: string, init?: { body: string; key: string }): Promise<T> {
  const response = await fetch(`${base}/api/v1/${address}`, {
    method: init ? 'POST' : 'GET',
    headers: init ? { ...headers, 'Idempotency-Key': init.key } : headers,
    body: init?.body,
  }).catch(() => null);
  if (!response?.ok) {
    process.stderr.write(`simulate: ${base} answered ${response?.status ?? 'nothing'} to ${address}\n`);
    process.exit(1);
  }
  return response.json() as Promise<T>;
}

async function wholeFleet(): Promise<{ items: DueItem[]; today: string }> {
  const items: DueItem[] = [];
  let today = '';
  for (let cursor: number | null = 0; cursor !== null; ) {
    const page: { items: DueItem[]; next_cursor: number | null; today: string } = await call(
      `due?limit=1000&cursor=${cursor}`,
    );
    items.push(...page.items);
    today = page.today;
    cursor = page.next_cursor;
  }
  return { items, today };
}

const { items, today } = await wholeFleet();
const driven = items.flatMap((item): Driven[] =>
  item.odometer_km === null || item.odometer_on === null || item.rate_km_per_day === null
    ? []
    : [
        {
          unitNumber: item.unit_number,
          unit: item.odometer_unit,
          on: item.odometer_on,
          km: item.odometer_km,
          kmPerDay: item.rate_km_per_day,
        },
      ],
);
const counts: Record<string, number> = {};
for (const [day, batch] of playFeed(driven, today, seed).entries()) {
  for (let at = 0; at < batch.length; at += BATCH) {
    const readings = batch.slice(at, at + BATCH).map(({ unitNumber, on, text }) => {
      const [value, unit] = text.split(' ');
      return { unit_number: unitNumber, on, value: Number(value), unit, source: 'telematics stand-in' };
    });
    const { results } = await call<{ results: { state: string }[] }>('odometer-readings', {
      body: JSON.stringify({ readings }),
      key: `simulate-${seed}-${today}-${day}-${at}`,
    });
    for (const { state } of results) counts[state] = (counts[state] ?? 0) + 1;
  }
}
const words = Object.entries(counts).map(([state, n]) => `${n} ${state}`);
process.stdout.write(`${words.join(', ') || 'nothing to drive: every vehicle has been read today'}\n`);

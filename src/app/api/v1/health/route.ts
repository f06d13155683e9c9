import { readFileSync } from 'node:fs';
import { connection } from '@/server/deps';

const { version }: { version: string } = JSON.parse(readFileSync('package.json', 'utf8'));

export async function GET(): Promise<Response> {
  const database = await connection()
    .pool.query('select 1')
    .then(
      () => 'ok',
      () => 'unreachable',
    );
  const status = database === 'ok' ? 'ok' : 'degraded';
  return Response.json(
    { status, database, version },
    { status: database === 'ok' ? 200 : 503, headers: { 'Cache-Control': 'no-store' } },
  );
}

export const dynamic = 'force-dynamic';

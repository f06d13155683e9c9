import { Readable } from 'node:stream';
import { reading, readingsBody } from '@/contracts/http/resources';
import type { Actor } from '@/server/access';
import { deps } from '@/server/deps';
import { toCsv } from '@/server/exports/csv';
import { listReadings } from '@/server/odometer/list-readings';
import { awaitLoad, MAX_LOAD_BYTES, receiveReadingsFile } from '@/server/odometer/receive-readings-file';
import { recordReadings } from '@/server/odometer/record-readings';
import { toReading } from '../answers';
import { csvReply, problem, queryOf, readBody, reply, route, wantsCsv } from '../http';

/**
 * A file of any size, taken as it comes and loaded by a worker: its progress stands under odometer-loads. Answers when it is
 * loaded, or as soon as it has come where the caller would rather not wait.
 */
async function loadCsv(actor: Actor, request: Request): Promise<Response> {
  const length = Number(request.headers.get('content-length') ?? 0);
  if (length > MAX_LOAD_BYTES) return problem(413, `A file of readings may have ${MAX_LOAD_BYTES / 1024 ** 3} GB.`);
  if (!request.body) return problem(400, 'Send the file as the body.');
  const name = new URL(request.url).searchParams.get('name') ?? 'readings.csv';
  const file = Readable.from(capped(request.body, MAX_LOAD_BYTES));
  const received = await receiveReadingsFile(deps(), actor, { fileName: name, file });
  if (!received.ok) return reply(received);
  const { loadId } = received.value;
  const accepted = () => Response.json({ load_id: loadId }, { status: 202 });
  if (/\brespond-async\b/i.test(request.headers.get('prefer') ?? '')) return accepted();
  const loaded = await awaitLoad(deps(), actor, { loadId });
  if (loaded.ok && loaded.value === null) return accepted();
  return reply(loaded, (sums) => ({ load_id: loadId, ...sums }));
}

/** A stream that breaks off over a limit: nothing of the file is written then. */
async function* capped(body: AsyncIterable<Uint8Array>, maxBytes: number): AsyncGenerator<Uint8Array> {
  let size = 0;
  for await (const piece of body) {
    size += piece.length;
    if (size > maxBytes) throw new Error('the file is over its limit');
    yield piece;
  }
}

/** Readings by vehicle and day, as JSON or CSV. */
export const GET = route(async ({ request, actor }) => {
  const page = await listReadings.withUnknown(deps(), actor, queryOf(request));
  if (!page.ok) return reply(page);
  const items = page.value.items.map(toReading);
  if (!wantsCsv(request)) return Response.json({ items, next_cursor: page.value.nextCursor });
  const keys = reading.keyof().options;
  const csv = csvReply(
    toCsv(
      keys,
      items.map((item) => keys.map((key) => item[key])),
    ),
  );
  if (page.value.nextCursor) csv.headers.set('X-Next-Cursor', page.value.nextCursor);
  return csv;
});

export const POST = route(async ({ request, actor, once }) => {
  if (request.headers.get('content-type')?.startsWith('text/csv')) return loadCsv(actor, request);
  const body = await readBody(request, readingsBody);
  if (!body.ok) return body.response;
  const readings = body.value.readings.map(({ unit_number, on, value, unit, source }) => ({
    unitNumber: unit_number,
    on,
    text: unit ? `${value} ${unit}` : String(value),
    source: source ?? 'feed',
  }));
  const done = await once(body.text, (within) => recordReadings(within, actor, { readings }));
  return reply(done, (results) => ({
    results: results.map(({ unitNumber, on, state, km, hours, message }) => ({
      unit_number: unitNumber,
      on,
      state,
      odometer_km: km,
      engine_hours: hours ?? null,
      message,
    })),
  }));
});

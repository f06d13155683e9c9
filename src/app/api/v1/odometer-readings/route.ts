import { once } from '@/server/auth/idempotency';
import { deps } from '@/server/deps';
import { recordReadings } from '@/server/odometer/record-readings';
import { asActor, problem, readBody, reply } from '../http';
import { readingsBody } from '../resources';

const MOST_KEY = 200;

export async function POST(request: Request): Promise<Response> {
  return asActor(async (actor) => {
    const key = request.headers.get('idempotency-key');
    if (key !== null && (key === '' || key.length > MOST_KEY))
      return problem(400, `An Idempotency-Key has 1 to ${MOST_KEY} characters.`);
    const body = await readBody(request, readingsBody);
    if (!body.ok) return body.response;
    const readings = body.value.readings.map(({ unit_number, on, value, unit, source }) => ({
      unitNumber: unit_number,
      on,
      text: unit ? `${value} ${unit}` : String(value),
      source: source ?? 'feed',
    }));
    const done = await once(deps(), actor, key, () => recordReadings(deps(), actor, { readings }));
    return reply(done, (results) => ({
      results: results.map(({ unitNumber, on, state, km, message }) => ({
        unit_number: unitNumber,
        on,
        state,
        odometer_km: km,
        message,
      })),
    }));
  });
}

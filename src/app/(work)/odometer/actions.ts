'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { playInput, playTelematics } from '@/server/odometer/play-feed';
import { readingsInput, recordReadings } from '@/server/odometer/record-readings';
import { settleHours, settleHoursInput } from '@/server/odometer/resolve-hours';
import { settleInput, settleReadings } from '@/server/odometer/resolve-readings';
import type { PlayAnswer } from '@/ui/odometer/feed-player';
import type { WalkAnswer } from '@/ui/odometer/yard-walk';
import type { ActionAnswer } from '@/ui/primitives/action-form';

/** An item of the inbox as its form carries it. */
function itemOf(text: string): unknown {
  const [vehicleId, readOn, odometerKm] = text.split('|');
  return { vehicleId, readOn, odometerKm: Number(odometerKm) };
}

export async function settleAction(data: FormData): Promise<ActionAnswer> {
  const { how, corrected, reason } = texts(data);
  const items = data.getAll('item').map((item) => itemOf(String(item)));
  const input = settleInput.safeParse({ items, how, corrected, reason });
  if (!input.success) return invalid(input.error);
  return answer(await settleReadings(deps(), await requireActor(), input.data), ({ settled, cleared }) => ({
    message: `Settled ${settled}${cleared > 0 ? `; ${cleared} more follow now and count again` : ''}.`,
  }));
}

export async function settleHoursAction(data: FormData): Promise<ActionAnswer> {
  const input = settleHoursInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await settleHours(deps(), await requireActor(), input.data), () => ({ message: 'Settled.' }));
}

export async function yardWalkAction(
  readings: readonly { readonly unitNumber: string; readonly text: string }[],
  on: string,
): Promise<WalkAnswer> {
  const input = readingsInput.safeParse({
    readings: readings.map((reading) => ({ ...reading, on, source: 'yard walk' })),
  });
  if (!input.success) return { ok: false, message: input.error.issues[0]?.message ?? 'Something here is wrong.' };
  const done = await recordReadings(deps(), await requireActor(), input.data);
  return done.ok ? { ok: true, results: done.value } : { ok: false, message: done.error.message };
}

/** Plays the telematics stand-in; another seed drives and errs otherwise. */
export async function playFeedAction(seed: number): Promise<PlayAnswer> {
  const input = playInput.safeParse({ seed });
  if (!input.success) return { message: 'The stand-in needs a whole number to begin with.', tally: [] };
  const played = await playTelematics(deps(), await requireActor(), input.data);
  if (!played.ok) return { message: played.error.message, tally: [] };
  const { messages, tally } = played.value;
  return {
    message: messages === 0 ? 'Every vehicle has been read today: there is nothing to drive.' : `${messages} messages.`,
    tally,
  };
}

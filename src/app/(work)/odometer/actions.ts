'use server';

import { requireActor } from '@/app/actor';
import { formAction } from '@/app/form-action';
import { resolveReadingsForm } from '@/contracts/forms/vehicles';
import { deps } from '@/server/deps';
import { playTelematics } from '@/server/odometer/play-feed';
import { recordReadings } from '@/server/odometer/record-readings';
import { resolveHours } from '@/server/odometer/resolve-hours';
import { resolveReadings } from '@/server/odometer/resolve-readings';
import type { PlayAnswer } from '@/ui/odometer/feed-player';
import type { WalkAnswer } from '@/ui/odometer/yard-walk';

export const resolveAction = formAction(resolveReadings, {
  ...resolveReadingsForm,
  onDone: ({ resolved, cleared }) => ({
    message: `${resolved} resolved${cleared > 0 ? `; ${cleared} more are plausible now and count again` : ''}.`,
  }),
});
export const resolveHoursAction = formAction(resolveHours, { onDone: () => ({ message: 'Resolved.' }) });

export async function yardWalkAction(
  readings: readonly { readonly unitNumber: string; readonly text: string }[],
  on: string,
): Promise<WalkAnswer> {
  const rows = Array.isArray(readings) ? readings.map((reading) => ({ ...reading, on, source: 'yard walk' })) : [];
  const done = await recordReadings(deps(), await requireActor(), { readings: rows });
  return done.ok ? { ok: true, results: done.value } : { ok: false, message: done.error.message };
}

/** Plays the telematics stand-in; another seed drives and errs otherwise. */
export async function playFeedAction(seed: number): Promise<PlayAnswer> {
  const played = await playTelematics(deps(), await requireActor(), { seed });
  if (!played.ok) return { message: played.error.message, tally: [] };
  const { messages, tally } = played.value;
  return {
    message: messages === 0 ? 'Every vehicle has been read today: there is nothing to drive.' : `${messages} messages.`,
    tally,
  };
}

import { z } from 'zod';
import { ok } from '@/core/shared/result';
import { dueFilter, listDue } from '../due/list-due';
import { fail, type Outcome } from '../failure';
import { portsOf } from '../ports/ports';
import type { Driven, FeedFault } from '../ports/telematics';
import { useCase } from '../use-case';
import { type RecordedReading, recordReadings } from './record-readings';

const playInput = z.object({
  seed: z.coerce
    .number()
    .int()
    .min(0)
    .max(2 ** 31)
    .default(1),
});

interface PlayedFeed {
  readonly messages: number;
  /** What became of the messages of each kind. */
  readonly tally: readonly {
    readonly fault: FeedFault;
    readonly sent: number;
    readonly counts: Readonly<Record<RecordedReading['state'], number>>;
  }[];
}

const BATCH = 1000;

/**
 * Plays the telematics stand-in for the demo fleet: messages with the mistakes of a real feed, each batch recorded as
 * one that came over HTTP would be.
 */
export const playTelematics = useCase({
  permission: 'record odometer readings',
  input: playInput,
  async run(deps, actor, { seed }): Promise<Outcome<PlayedFeed>> {
    const { telematics } = await portsOf(deps.db, actor.fleetId);
    if (!telematics)
      return fail('conflict', 'The stand-in plays the demo fleet only: your own readings stay as they are.');
    const list = await listDue(deps, actor, dueFilter.parse({}));
    if (!list.ok) return list;
    const driven = list.value.items.flatMap((item): Driven[] =>
      item.odometerKm === null || item.odometerOn === null || !item.rate
        ? []
        : [
            {
              unitNumber: item.unitNumber,
              unit: item.odometerUnit,
              on: item.odometerOn,
              km: item.odometerKm,
              kmPerDay: item.rate.kmPerDay,
            },
          ],
    );
    const tally = new Map<FeedFault, { sent: number; counts: Record<RecordedReading['state'], number> }>();
    for (const batch of telematics.play(driven, deps.today(), seed)) {
      for (let at = 0; at < batch.length; at += BATCH) {
        const messages = batch.slice(at, at + BATCH);
        const recorded = await recordReadings(deps, actor, {
          readings: messages.map(({ unitNumber, on, text }) => ({
            unitNumber,
            on,
            text,
            source: telematics.name,
          })),
        });
        if (!recorded.ok) return recorded;
        for (const [i, result] of recorded.value.entries()) {
          const fault = messages[i]?.fault ?? 'none';
          const row = tally.get(fault) ?? { sent: 0, counts: { accepted: 0, suspect: 0, known: 0, refused: 0 } };
          row.sent += 1;
          row.counts[result.state] += 1;
          tally.set(fault, row);
        }
      }
    }
    const rows = [...tally].map(([fault, row]) => ({ fault, ...row }));
    return ok({ messages: rows.reduce((sum, row) => sum + row.sent, 0), tally: rows });
  },
});

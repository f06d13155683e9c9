import type { PlainDate } from '@/core/calendar/plain-date';
import type { Driven, Message } from '@/simulators/telematics';

export type { Driven, FeedFault } from '@/simulators/telematics';

/** A service that reports odometers by itself, played for some vehicles up to a day: its messages in batches, as they come. */
export interface Telematics {
  /** As it stands in the record as the source of a reading. */
  readonly name: string;
  readonly play: (vehicles: readonly Driven[], until: PlainDate, seed: number) => readonly (readonly Message[])[];
}

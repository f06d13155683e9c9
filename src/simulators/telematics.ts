import type { Km } from '@/core/shared/kinds';
import { KM_PER_MILE } from '@/core/units/unit';
import { addDays, type PlainDate } from '../core/calendar/plain-date';
import { seeded } from '../core/stats/seeded';

/* The stand-in for a telematics feed: it plays a fleet's driving and makes the mistakes that real feeds make. */

/** A vehicle as the feed knows it: where it stood last, and how it is driven. */
export interface Driven {
  readonly unitNumber: string;
  readonly unit: 'km' | 'mi';
  readonly on: PlainDate;
  readonly km: Km;
  readonly kmPerDay: number;
}

const FEED_FAULTS = ['none', 'late', 'doubled', 'out_of_order', 'wrong_unit', 'digit_dropped', 'missing'] as const;
export type FeedFault = (typeof FEED_FAULTS)[number];

export interface Message {
  readonly unitNumber: string;
  readonly on: PlainDate;
  /** The figure with the unit that the feed believes it to be in. */
  readonly text: string;
  readonly fault: FeedFault;
}

/** How often each mistake is made, of a hundred messages. */
const PER_HUNDRED: Readonly<Record<Exclude<FeedFault, 'none'>, number>> = {
  late: 6,
  doubled: 5,
  out_of_order: 5,
  wrong_unit: 3,
  digit_dropped: 2,
  missing: 8,
};

const LATE_DAYS = 3;

/**
 * Messages of a feed from the day after each vehicle was last read up to and with `until`, in batches as they arrive,
 * one a day. What is missing is in no batch; what is late arrives with a later one.
 */
export function playFeed(vehicles: readonly Driven[], until: PlainDate, seed: number): readonly (readonly Message[])[] {
  const random = seeded(seed);
  const arriving = new Map<PlainDate, Message[]>();
  for (const vehicle of vehicles) {
    let km = vehicle.km;
    for (let on = addDays(vehicle.on, 1); on <= until; on = addDays(on, 1)) {
      km += vehicle.kmPerDay * (0.4 + 1.2 * random());
      const fault = drawFault(random());
      if (fault === 'missing') continue;
      const message: Message = { unitNumber: vehicle.unitNumber, on, text: textOf(vehicle.unit, km, fault), fault };
      const arrives = fault === 'late' ? earlier(addDays(on, LATE_DAYS), until) : on;
      const batch = arriving.get(arrives) ?? [];
      if (fault === 'out_of_order') batch.unshift(message);
      else batch.push(message);
      if (fault === 'doubled') batch.push(message);
      arriving.set(arrives, batch);
    }
  }
  return [...arriving].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, batch]) => batch);
}

const earlier = (a: PlainDate, b: PlainDate): PlainDate => (a < b ? a : b);

function drawFault(chance: number): FeedFault {
  let above = 0;
  for (const [fault, share] of Object.entries(PER_HUNDRED)) {
    above += share / 100;
    if (chance < above) return fault as FeedFault;
  }
  return 'none';
}

function textOf(unit: 'km' | 'mi', km: Km, fault: FeedFault): string {
  const inMiles = (unit === 'mi') !== (fault === 'wrong_unit');
  const shown = Math.round(inMiles ? km / KM_PER_MILE : km);
  const figure = String(shown);
  return `${fault === 'digit_dropped' && figure.length > 3 ? figure.slice(0, 2) + figure.slice(3) : figure} ${unit}`;
}

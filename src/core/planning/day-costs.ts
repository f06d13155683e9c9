import { daysBetween, type PlainDate } from '../calendar/plain-date';
import { type PressureInput, pressureOf } from '../reliability/pressure';

/* What a visit costs on each day, so that days can be compared: each figure can be opened down to where it comes from. */

/** A component of the vehicle that the visit renews. */
interface WaitingComponent {
  readonly what: string;
  /** As service pressure sees it today. */
  readonly pressure: PressureInput;
  /** What its parts cost; 0: nobody knows. */
  readonly partsCost: number;
}

export interface VisitMoney {
  readonly components: readonly WaitingComponent[];
  /** Of an open misfire and of findings, money a week. */
  readonly troublePerWeek: number;
  readonly minutes: number;
  /** The vehicle stands and cools before it is begun, minutes. */
  readonly coolMinutes: number;
  /** Of the vehicle out of service. */
  readonly hourCost: number;
  /** Days from today until it leaves the fleet; null: nobody says that it does. */
  readonly leavesIn: number | null;
}

interface DayCost {
  /** Service pressure from today until then: risk and wear, all components. */
  readonly waiting: number;
  /** Life of parts that would still have lasted, and of new ones that the vehicle does not stay for. */
  readonly thrownAway: number;
  readonly downtime: number;
  readonly total: number;
}

export interface VisitCosts {
  readonly byDay: readonly DayCost[];
  /** Service pressure on each day, money a week: what another week would cost from then on. */
  readonly weekly: readonly number[];
  /** Left out of these days: it waits until their end and four weeks more, and stands all the same when it comes. */
  readonly unplanned: DayCost;
}

/** So long it is taken to wait where these days pass without it. */
export const UNPLANNED_DAYS = 28;

/** @param days in order @param today from which it waits */
export function visitCosts(visit: VisitMoney, days: readonly PlainDate[], today: PlainDate): VisitCosts {
  const last = Math.max(0, ...days.map((day) => daysBetween(today, day)));
  const waited = waitedUntil(visit, last);
  const downtime = ((visit.minutes + visit.coolMinutes) / 60) * visit.hourCost;
  const on = (offset: number, waiting: number): DayCost => {
    const thrownAway = visit.components.reduce(
      (sum, { partsCost, pressure }) =>
        sum + partsCost * (Math.max(0, 1 - lifeAfter(pressure, offset)) + unusedOf(visit, pressure, offset)),
      0,
    );
    return { waiting, thrownAway, downtime, total: waiting + thrownAway + downtime };
  };
  const weeklyOn = (offset: number): number =>
    visit.components.reduce((sum, { pressure }) => sum + weeklyAfter(pressure, offset), visit.troublePerWeek);
  /** By the last day as it goes; after it at its last pressure. */
  const waitingAt = (offset: number): number =>
    (waited[Math.min(offset, last)] ?? 0) + (weeklyOn(last) * Math.max(0, offset - last)) / 7;
  const offsets = days.map((day) => Math.max(0, daysBetween(today, day)));
  return {
    byDay: offsets.map((offset) => on(offset, waited[offset] ?? 0)),
    weekly: offsets.map(weeklyOn),
    unplanned: leavesFirst(visit, last)
      ? neverCome(waitingAt(visit.leavesIn ?? 0))
      : on(last + UNPLANNED_DAYS, waitingAt(last + UNPLANNED_DAYS)),
  };
}

/** It is gone before anybody would have to get round to it. */
const leavesFirst = ({ leavesIn }: VisitMoney, last: number): boolean =>
  leavesIn !== null && leavesIn <= last + UNPLANNED_DAYS;

/** It waits until it leaves, and is never brought in. */
const neverCome = (waiting: number): DayCost => ({ waiting, thrownAway: 0, downtime: 0, total: waiting });

/** Share of new parts that the vehicle does not use before it leaves. */
function unusedOf({ leavesIn }: VisitMoney, { weeklyLife }: PressureInput, offset: number): number {
  if (leavesIn === null) return 0;
  return Math.max(0, 1 - (weeklyLife * Math.max(0, leavesIn - offset)) / 7);
}

const lifeAfter = ({ lifeUsed, weeklyLife, mostLife }: PressureInput, days: number): number =>
  Math.min(mostLife ?? Number.POSITIVE_INFINITY, lifeUsed + (weeklyLife * days) / 7);

/** Money a week, some days from now. */
const weeklyAfter = (pressure: PressureInput, days: number): number =>
  pressureOf({ ...pressure, lifeUsed: lifeAfter(pressure, days) }).total;

/** What waiting has cost by each day from today on; 0 today. */
function waitedUntil({ components, troublePerWeek }: VisitMoney, days: number): readonly number[] {
  const sums = [0];
  for (let day = 0; day < days; day += 1) {
    const weekly = components.reduce((sum, { pressure }) => sum + weeklyAfter(pressure, day), troublePerWeek);
    sums.push((sums[day] ?? 0) + weekly / 7);
  }
  return sums;
}

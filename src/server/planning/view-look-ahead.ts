import { addDays, type PlainDate } from '@/core/calendar/plain-date';
import { type ComingWork, fallingDue } from '@/core/due/horizon';
import { lookAhead, type MonthAhead, type MonthHours, waitingCost, withMore } from '@/core/planning/look-ahead';
import { minutesIn } from '@/core/planning/plan-problem';
import { present } from '@/core/planning/presence';
import { pressureOf } from '@/core/reliability/pressure';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { type ComingRow, loadComing } from '@/db/queries/due';
import { comingWork } from '../due/coming-work';
import { ensureDueStatus } from '../due/ensure-due-status';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { engineTimes } from '../work-orders/engine-times';
import { awayOf, type FleetData, loadFleetData } from './fleet-data';
import { baysIn, depotWeek, usualShift } from './fleet-problem';

const MONTHS = 6;

/** A month that is looked at; the first is what is left of this one. */
interface Month {
  readonly name: string;
  readonly days: readonly PlainDate[];
}

interface DepotAhead {
  readonly name: string;
  readonly months: readonly MonthAhead[];
  /** What waiting for hours costs in all of them. */
  readonly cost: number;
  /** The same with something more; each by itself. */
  readonly options: readonly { readonly what: 'bay_day' | 'person'; readonly cost: number; readonly left: number }[];
}

/** Where hours run out by depot and month, and what a bay day a week or a person more would change. */
export const viewLookAhead = useCase({
  permission: 'read the fleet',
  async run(
    deps,
    actor,
  ): Promise<Outcome<{ months: readonly string[]; depots: readonly DepotAhead[]; currency: string }>> {
    const today = deps.today();
    await ensureDueStatus(deps.db, actor.fleetId, today);
    const months = monthsFrom(today);
    const data = await loadFleetData(deps.db, actor.fleetId);
    const coming = await loadComing(deps.db, actor.fleetId, months.at(-1)?.days.at(-1) ?? today);
    const times = new Map(data.families.map((family) => [family.id, engineTimes(family, data.ratios.get(family.id))]));
    const byDepot = groupBy(coming, ({ depot }) => depot);
    const ends = months.map(({ days }) => days.at(-1) ?? today);
    const work = data.depots.map(({ name }) => {
      const rows = byDepot.get(name) ?? [];
      const visits = comingWork(rows, times);
      return { falling: fallingDue(visits, ends), rate: pressureRate(rows, visits, data.costs.wearCostPerPercent) };
    });
    const share = shareOf(work.map(({ falling }) => falling.reduce((sum, { mean }) => sum + mean, 0)));
    const depots = data.depots.map((depot, i): DepotAhead => {
      const hours = months.map((month) => hoursOf(data, depot, month, share));
      const { falling = [], rate = 0 } = work[i] ?? {};
      const ahead = (hoursAhead: readonly MonthHours[]) => lookAhead(falling, hoursAhead, rate);
      const dayMinutes = depot.closesMin - depot.opensMin;
      const more = {
        bay_day: months.map(({ days }) => ({ bays: (days.length / 7) * dayMinutes })),
        person: months.map(({ days }) => ({
          people: minutesIn(present(depotWeek(depot), awayOf(data, `depot ${depot.id}`), days)),
        })),
      };
      const options = (['bay_day', 'person'] as const).map((what) => {
        const after = ahead(withMore(hours, more[what]));
        return { what, cost: waitingCost(after), left: after.at(-1)?.left ?? 0 };
      });
      const base = ahead(hours);
      return { name: depot.name, months: base, cost: waitingCost(base), options };
    });
    return ok({ months: months.map(({ name }) => name), depots, currency: data.costs.currency });
  },
});

/** What is left of this month, and those after it. */
function monthsFrom(today: PlainDate): readonly Month[] {
  const months: { name: string; days: PlainDate[] }[] = [];
  for (let day = today; months.length <= MONTHS; day = addDays(day, 1)) {
    const name = day.slice(0, 7);
    const last = months.at(-1);
    if (last?.name === name) last.days.push(day);
    else months.push({ name, days: [day] });
  }
  return months.slice(0, MONTHS);
}

type Depot = FleetData['depots'][number];

/** Who works at several depots is where the work of all these months is. */
const shareOf =
  (work: readonly number[]) =>
  (depotIndex: number, among: readonly number[]): number => {
    const all = among.reduce((sum, i) => sum + (work[i] ?? 0), 0);
    return all > 0 ? (work[depotIndex] ?? 0) / all : 1 / Math.max(1, among.length);
  };

/** Minutes of bays and people of a depot in a month, less what is away; people as far as its work asks for them. */
function hoursOf(data: FleetData, depot: Depot, { days }: Month, share: ReturnType<typeof shareOf>): MonthHours {
  const closed = awayOf(data, `depot ${depot.id}`);
  const bays = baysIn(data, days).filter((bay) => bay.depot === depot.name);
  const place = data.depots.indexOf(depot);
  const people = data.people.reduce((sum, person) => {
    const at = data.depots.flatMap(({ id }, i) =>
      person.depotIds.length === 0 || person.depotIds.includes(id) ? [i] : [],
    );
    if (!at.includes(place)) return sum;
    const there = present(
      person.hours ?? usualShift(depot, person),
      [...awayOf(data, `person ${person.id}`), ...closed],
      days,
    );
    return sum + minutesIn(there) * share(place, at);
  }, 0);
  const open = bays.reduce((sum, bay) => sum + minutesIn(bay.open), 0);
  return { bays: (open * data.costs.bayPercent) / 100, people };
}

/** Service pressure of work at its limit for each minute of bay time, money a week. */
function pressureRate(rows: readonly ComingRow[], visits: readonly ComingWork[], wearCostPerPercent: number): number {
  const minutes = visits.reduce((sum, visit) => sum + visit.minutes, 0);
  const atLimit = rows.reduce((sum, { lifeUsed, lifeIn28, failureCost }) => {
    const weeklyLife = lifeUsed === null || lifeIn28 === null ? 0 : Math.max(0, (lifeIn28 - lifeUsed) / 4);
    return sum + pressureOf({ lifeUsed: 1, weeklyLife, failureCost, wearCostPerPercent, model: ASSUMED_LIFE }).total;
  }, 0);
  return minutes > 0 ? atLimit / minutes : 0;
}

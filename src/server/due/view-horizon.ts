import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { addDays, mondayOf } from '@/core/calendar/plain-date';
import { computeDueStatus } from '@/core/due/due-status';
import { type HorizonWeek, horizon } from '@/core/due/horizon';
import { layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import { minutesAWeek } from '@/core/planning/hours';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { loadFamilies, loadParts } from '@/db/queries/catalogue';
import { depotHours } from '@/db/queries/depots';
import { loadComing } from '@/db/queries/due';
import { loadRecorded } from '@/db/queries/due-inputs';
import { loadTimeRatios } from '@/db/queries/work-entries';
import { bays, depots, dueStatus, specSheets, vehicles } from '@/db/schema';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { engineTimes } from '../work-orders/engine-times';
import { comingWork } from './coming-work';
import { loadCosts } from './costs';
import { moneyOf, ratesOf, recordedOf } from './due-status';
import { ensureDueStatus } from './ensure-due-status';

export const HORIZON_WEEKS = 13;

interface HorizonView {
  readonly weeks: readonly HorizonWeek[];
  /** Bay time of an ordinary week, minutes; of the depot asked for, else of all. */
  readonly bayMinutes: number;
  readonly depots: readonly {
    readonly name: string;
    readonly bays: number;
    readonly bayMinutesIn4: number;
    readonly minutesIn4: number;
  }[];
}

/** Work falling due by week and depot, with hours and what the bays can take. */
export const viewHorizon = useCase({
  permission: 'read the fleet',
  /** The depot; none: all. */
  input: z.string().max(120).optional(),
  async run(deps, actor, depot): Promise<Outcome<HorizonView>> {
    const { db } = deps;
    const today = deps.today();
    await ensureDueStatus(db, actor.fleetId, today);
    const end = addDays(mondayOf(today), 7 * HORIZON_WEEKS - 1);
    const [coming, families, bayRows, costs] = await Promise.all([
      loadComing(db, actor.fleetId, end),
      loadFamilies(db, actor.fleetId),
      db
        .select({ depot: depots.name, hours: depotHours })
        .from(bays)
        .innerJoin(depots, eq(depots.id, bays.depotId))
        .where(eq(bays.fleetId, actor.fleetId)),
      loadCosts(db, actor.fleetId),
    ]);
    const ratios = await loadTimeRatios(db, actor.fleetId, null);
    const engines = new Map(families.map((family) => [family.id, engineTimes(family, ratios.get(family.id))]));
    const shown = depot ? coming.filter((row) => row.depot === depot) : coming;
    /** Minutes a week of the bays of one depot, or of all, that this work may have. */
    const bayWeek = (name: string | undefined): number =>
      bayRows.filter((row) => !name || row.depot === name).reduce((sum, { hours }) => sum + minutesAWeek(hours), 0) *
      (costs.bayPercent / 100);
    const byDepot = groupBy(coming, (row) => row.depot);
    return ok({
      weeks: horizon(comingWork(shown, engines), today, HORIZON_WEEKS),
      bayMinutes: bayWeek(depot),
      depots: [...byDepot]
        .map(([name, rows]) => ({
          name,
          bays: bayRows.filter((row) => row.depot === name).length,
          bayMinutesIn4: bayWeek(name) * 4,
          minutesIn4: horizon(comingWork(rows, engines), today, 4).reduce((sum, week) => sum + week.mean, 0),
        }))
        .sort((a, b) => a.name.localeCompare(b.name)),
    });
  },
});

/** What one way of setting the interval comes to over the next eight weeks. */
export interface PolicyOutcome {
  readonly vehicles: number;
  readonly plugs: number;
  readonly minutes: number;
  /** Of the plugs, by their catalogue price; plugs without a price count nothing. */
  readonly partsCost: number;
  /** Expected cost of failures on the road and of wear in a week, if nothing is done meanwhile. */
  readonly pressure: number;
}

export interface WhatIf {
  readonly share: number;
  readonly now: PolicyOutcome;
  readonly changed: PolicyOutcome;
  readonly currency: string;
}

const WHAT_IF_DAYS = 56;

/** What changing the plugs of every vehicle at another share of its limit would do, before it is chosen. Nothing is written. */
export const whatIf = useCase({
  permission: 'read the fleet',
  /** The share of its limit at which each vehicle is changed. */
  input: z.number().gt(0).max(1),
  async run(deps, actor, share): Promise<Outcome<WhatIf>> {
    const { db } = deps;
    const [rows, families, chosen, costs, ratios] = await Promise.all([
      loadRecorded(db, actor.fleetId, null),
      loadFamilies(db, actor.fleetId),
      db
        .select({ id: vehicles.id, family: vehicles.engineFamilyId, partId: specSheets.partId })
        .from(vehicles)
        .leftJoin(dueStatus, and(eq(dueStatus.vehicleId, vehicles.id), eq(dueStatus.component, 'plug')))
        .leftJoin(specSheets, eq(specSheets.id, dueStatus.specSheetId))
        .where(eq(vehicles.fleetId, actor.fleetId)),
      loadCosts(db, actor.fleetId),
      loadTimeRatios(db, actor.fleetId, null),
    ]);
    const price = new Map((await loadParts(db, actor.fleetId)).map((part) => [part.id, part.price ?? 0]));
    const work = new Map(
      families.map((family) => [
        family.id,
        {
          minutes: engineTimes(family, ratios.get(family.id)).minutesOf(['plug']),
          plugs: quantityOf(layoutOf(family.model), 'plug'),
        },
      ]),
    );
    const vehicleOf = new Map(chosen.map((row) => [row.id, row]));
    const rates = ratesOf(rows);
    const until = addDays(deps.today(), WHAT_IF_DAYS);
    const outcome = (shareOf: (own: number) => number): PolicyOutcome => {
      const sum = { vehicles: 0, plugs: 0, minutes: 0, partsCost: 0, pressure: 0 };
      for (const row of rows) {
        const plugs = row.components.find(({ component }) => component === 'plug');
        if (!plugs) continue;
        const recorded = recordedOf(row, { ...plugs, limitShare: shareOf(plugs.limitShare) });
        const group = rates.get(row.dutyGroup) ?? null;
        const { dates, pressure } = computeDueStatus(recorded, group, moneyOf(row), ASSUMED_LIFE, deps.today());
        const vehicle = vehicleOf.get(row.id);
        const job = work.get(vehicle?.family ?? '');
        if (!dates || dates.p50 > until) {
          sum.pressure += pressure ?? 0;
          continue;
        }
        if (!job) continue;
        sum.vehicles += 1;
        sum.plugs += job.plugs;
        sum.minutes += job.minutes;
        sum.partsCost += job.plugs * (price.get(vehicle?.partId ?? '') ?? 0);
      }
      return sum;
    };
    return ok({ share, now: outcome((own) => own), changed: outcome(() => share), currency: costs.currency });
  },
});

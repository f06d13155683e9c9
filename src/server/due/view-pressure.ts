import type { ChartPoint } from '@/core/reliability/chart-point';
import { ASSUMED_LIFE, type LifeModel } from '@/core/reliability/weibull';
import { ok } from '@/core/shared/result';
import { loadChartPoints, medianWeeklyLife } from '@/db/queries/due';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { loadCosts } from './costs';
import { ensureDueStatus } from './ensure-due-status';
import { dueFilter } from './list-due';

interface PressureView {
  /** Highest pressure first; the chart's limit at most. */
  readonly points: readonly ChartPoint[];
  readonly model: LifeModel;
  /** What an ordinary week of this fleet adds to life used: the lines of equal pressure are drawn for it. */
  readonly weeklyLife: number;
  readonly wearCostPerPercent: number;
  readonly currency: string;
}

/** More than this nobody can tell apart; the rest have the lowest pressure. */
const MAX_POINTS = 5000;
/** Of a fleet in which nothing moves yet. */
const ORDINARY_WEEK = 0.01;

/** The fleet on the pressure chart: every vehicle whose life and costs are known. */
export const viewPressure = useCase({
  permission: 'read the fleet',
  input: dueFilter.pick({ component: true, depot: true, group: true, search: true }),
  async run(deps, actor, filter): Promise<Outcome<PressureView>> {
    await ensureDueStatus(deps.db, actor.fleetId, deps.today());
    const [points, weekly, costs] = await Promise.all([
      loadChartPoints(deps.db, actor.fleetId, filter, MAX_POINTS),
      medianWeeklyLife(deps.db, actor.fleetId),
      loadCosts(deps.db, actor.fleetId),
    ]);
    return ok({
      points,
      model: ASSUMED_LIFE,
      weeklyLife: weekly ?? ORDINARY_WEEK,
      wearCostPerPercent: costs.wearCostPerPercent,
      currency: costs.currency,
    });
  },
});

import { z } from 'zod';
import { daysBetween, type PlainDate } from '@/core/calendar/plain-date';
import type { BackTest } from '@/core/due/back-test';
import { DUE_STATES, type DueState } from '@/core/due/due';
import { type BreakdownLine, dueBreakdown } from '@/core/due/due-breakdown';
import { DUE_SORTS, type DueItem } from '@/core/due/due-item';
import { pressureFor } from '@/core/due/due-status';
import type { Forecast } from '@/core/due/forecast';
import { seizingRisk } from '@/core/due/seizing-risk';
import { type WeekCost, weekCost } from '@/core/due/week-cost';
import { COMPONENTS, type Component } from '@/core/engine/quantities';
import { effectiveRate, type GroupRate, groupRate, type UseRate } from '@/core/odometer/use-rate';
import type { Pressure } from '@/core/reliability/pressure';
import { ASSUMED_LIFE } from '@/core/reliability/weibull';
import type { Km } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { loadFleetBackTest } from '@/db/queries/back-tests';
import {
  countByPlace,
  countComponentByPlace,
  type DueRow,
  loadDueComponents,
  loadDueIds,
  loadDueRows,
} from '@/db/queries/due';
import { loadGroupRates, loadRecorded, type RecordedRow } from '@/db/queries/due-inputs';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { borrowsGroupRate, dueStatusOf, forecastOf, moneyOf, ownRateOf, recordedOf } from './due-status';
import { ensureDueStatus } from './ensure-due-status';

/** A list parameter that is wrong falls back rather than losing the page: it only filters what is shown. */
export const dueFilter = z.object({
  /** One row for each vehicle that has such a component; left out: each vehicle with what binds first. */
  component: z.enum(COMPONENTS).optional().catch(undefined),
  depot: z.string().max(120).optional().catch(undefined),
  group: z.string().max(120).optional().catch(undefined),
  state: z.enum(DUE_STATES).optional().catch(undefined),
  search: z.string().max(60).optional().catch(undefined),
  before: z.iso.date().optional().catch(undefined),
  minLife: z.coerce.number().min(0).max(100).optional().catch(undefined),
  minPressure: z.coerce.number().min(0).optional().catch(undefined),
  /** A selection made on the chart. */
  ids: z.array(z.uuid()).max(1000).optional().catch(undefined),
  sort: z.enum(DUE_SORTS).default('life').catch('life'),
  descending: z.boolean().optional().catch(undefined),
});
type DueFilter = z.output<typeof dueFilter>;

/** How many past forecasts there are, and how many of them held what came. */
type Tested = Pick<BackTest, 'forecasts' | 'held'>;

export interface DueList {
  /** The page asked for, or all that fit the filter. */
  readonly items: readonly DueItem[];
  /** How many fit the filter. */
  readonly matching: number;
  /** Vehicles of the fleet, whatever the filter. */
  readonly total: number;
  readonly counts: Readonly<Record<DueState, number>>;
  /** Components of which some vehicle has a due status. */
  readonly components: readonly Component[];
  /** How past forecasts of the fleet have done; null: too few. */
  readonly tested: Tested | null;
  readonly depots: readonly string[];
  readonly groups: readonly string[];
}

/** The fleet by life used and due band. */
export const listDue = useCase({
  permission: 'read the fleet',
  input: dueFilter.extend({
    page: z.object({ from: z.number().int().min(0), limit: z.number().int().min(1) }).optional(),
  }),
  async run(deps, actor, { page, ...filter }): Promise<Outcome<DueList>> {
    const { db } = deps;
    await ensureDueStatus(db, actor.fleetId, deps.today());
    const { component } = filter;
    const [places, { ids, found: counted }, tested, components] = await Promise.all([
      component ? countComponentByPlace(db, actor.fleetId, component) : countByPlace(db, actor.fleetId),
      loadDueIds(db, actor.fleetId, filter, { page, isCounted: !countedByPlace(filter) }),
      loadFleetBackTest(db, actor.fleetId),
      loadDueComponents(db, actor.fleetId),
    ]);
    const total = counted ?? sumOfPlaces(places, filter);
    const counts = Object.fromEntries(DUE_STATES.map((state) => [state, 0])) as Record<DueState, number>;
    for (const { state, n } of places) counts[state] += n;
    return ok({
      items: (await loadDueRows(db, actor.fleetId, ids, component)).map((row) => toItem(row, deps.today())),
      matching: total,
      total: places.reduce((sum, { n }) => sum + n, 0),
      counts,
      components,
      tested,
      depots: [...new Set(places.map((place) => place.depot))].sort(),
      groups: [...new Set(places.map((place) => place.dutyGroup))].sort(),
    });
  },
});

/** Whether the counts by depot, group and state say already how many fit. */
const countedByPlace = ({ search, before, minLife, minPressure, ids }: DueFilter): boolean =>
  [search?.trim() || undefined, before, minLife, minPressure, ids].every((part) => part === undefined);

function sumOfPlaces(
  places: Awaited<ReturnType<typeof countByPlace>>,
  { depot, group, state }: Pick<DueFilter, 'depot' | 'group' | 'state'>,
): number {
  const fits = places.filter(
    (place) =>
      (!depot || place.depot === depot) && (!group || place.dutyGroup === group) && (!state || place.state === state),
  );
  return fits.reduce((sum, { n }) => sum + n, 0);
}

/** One component of a vehicle with the reckoning behind its date, and the parts of its pressure. */
interface ComponentDueView extends DueItem {
  readonly breakdown: readonly BreakdownLine[];
  readonly pressureParts: Pressure | null;
}

/** One vehicle: what binds first, and each of its components beside it. */
export interface DueView extends ComponentDueView {
  /** The one that binds first leads. */
  readonly components: readonly ComponentDueView[];
  readonly week: WeekCost;
  readonly useRate: UseRate | null;
  readonly forecast: Forecast;
  /** Past forecasts of its duty group, or of the fleet; null: too few. */
  readonly tested: Tested | null;
}

export const viewDue = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, vehicleId): Promise<Outcome<DueView>> {
    await ensureDueStatus(deps.db, actor.fleetId, deps.today());
    const [row] = await loadRecorded(deps.db, actor.fleetId, [vehicleId]);
    const shown = await loadDueRows(deps.db, actor.fleetId, [vehicleId], 'each');
    const group =
      row && borrowsGroupRate(row) ? groupRate(await loadGroupRates(deps.db, actor.fleetId, row.dutyGroup)) : null;
    const components = row ? shown.map((item) => componentView(row, item, group, deps.today())) : [];
    const [first] = components;
    if (!row || !first) return notFound('vehicle');
    const week = weekCost(components, row, row.failureCost);
    return ok({
      ...first,
      components,
      week,
      useRate: effectiveRate(ownRateOf(row), group),
      forecast: forecastOf(row),
      tested: row.forecasts && row.held !== null ? { forecasts: row.forecasts, held: row.held } : null,
      pressure: week.total,
    });
  },
});

function componentView(row: RecordedRow, item: DueRow, group: GroupRate | null, today: PlainDate): ComponentDueView {
  const componentOf = row.components.find(({ component }) => component === item.component);
  if (!componentOf) return { ...toItem(item, today), breakdown: [], pressureParts: null };
  const recorded = recordedOf(row, componentOf);
  const { worst, lifeIn7, rate } = dueStatusOf(row, componentOf, group, today);
  const { odometer, limits, meter } = recorded;
  return {
    ...toItem(item, today),
    breakdown:
      worst && odometer ? dueBreakdown({ today, odometer, rate, installed: worst.site.installed, limits, meter }) : [],
    pressureParts: worst && lifeIn7 !== null ? pressureFor(recorded, worst, lifeIn7, moneyOf(row), ASSUMED_LIFE) : null,
  };
}

const toItem = (row: DueRow, today: PlainDate): DueItem => ({
  component: row.component,
  others: row.others,
  fittedOn: row.fittedOn,
  fittedKm: row.fittedKm,
  vehicleId: row.id,
  unitNumber: row.unitNumber,
  name: row.name,
  depot: row.depot,
  dutyGroup: row.dutyGroup,
  engineCode: row.engineCode,
  partNumber: row.partNumber,
  state: row.state,
  lifeUsed: row.lifeUsed,
  pressure: row.pressure,
  failureCost: row.failureCost,
  binds: row.binds,
  limitKm: row.limitKm,
  limitBy: row.limitBy,
  limitMonths: row.limitMonths,
  limitShare: row.limitShare,
  certainty: row.certainty,
  due: row.dueP10 && row.dueP50 && row.dueP90 ? { p10: row.dueP10, p50: row.dueP50, p90: row.dueP90 } : null,
  dueAtDashKm: dueAtDashKm(row, today),
  reminderOn: row.reminderOn,
  misfire: row.misfire,
  seizing:
    row.component === 'plug'
      ? seizingRisk({
          today,
          fittedOn: row.fittedOn,
          fittedKm: row.fittedKm,
          odometerKm: row.odometerNowKm,
          head: row.headMaterial,
          shell: row.shell,
          isKnownFor: row.seizes,
        })
      : null,
  odometerUnit: row.odometerUnit,
  odometerKm: row.odometerKm,
  odometerOn: row.odometerOn,
  odometerNowKm: row.odometerNowKm,
  rate: rateOf(row),
  suspectReadings: row.suspectReadings,
  fitmentWhy: row.fitmentWhy,
  openWorkOrder:
    row.openWorkOrderId === null
      ? null
      : { id: row.openWorkOrderId, number: row.openWorkOrderNumber ?? 0, plannedOn: row.plannedOn },
});

/** By its rate from today on: what is past has no figure to wait for. */
function dueAtDashKm(
  { binds, dueP50, odometerNowKm, rateKmPerDay, dashBehindKm }: DueRow,
  today: PlainDate,
): Km | null {
  if (binds !== 'distance' || dueP50 === null || dueP50 <= today || odometerNowKm === null || rateKmPerDay === null)
    return null;
  return Math.round(odometerNowKm + rateKmPerDay * daysBetween(today, dueP50) - dashBehindKm);
}

function rateOf(row: DueRow): DueItem['rate'] {
  if (row.rateKmPerDay === null) return null;
  return {
    kmPerDay: row.rateKmPerDay,
    used: row.rateReadings,
    borrowed: row.rateBorrowed,
  };
}

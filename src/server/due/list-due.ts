import { z } from 'zod';
import type { PlainDate } from '@/core/calendar/plain-date';
import {
  type Binding,
  type Certainty,
  DUE_STATES,
  type DueDates,
  type DueState,
  dueState,
  type WorstSite,
  worstSite,
} from '@/core/interval/due';
import { dueSum, type SumLine } from '@/core/interval/sum';
import { type GroupRate, groupRate, settledRate, type UseRate } from '@/core/odometer/use-rate';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { type DueLabels, loadDueLabels, loadGroupRates, loadStandings, type StandingRow } from '@/db/queries/status';
import { type Actor, refusal } from '../access';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';

export interface DueItem {
  readonly vehicleId: string;
  readonly unitNumber: string;
  readonly name: string;
  readonly depot: string;
  readonly dutyGroup: string;
  readonly engineCode: string;
  readonly partNumber: string | null;
  readonly state: DueState;
  /** Share of the binding limit used by the worst site. */
  readonly lifeUsed: number | null;
  readonly binds: Binding | null;
  readonly limitKm: number | null;
  readonly limitMonths: number | null;
  /** Below 1 under the school of early change. */
  readonly limitShare: number;
  readonly certainty: Certainty | null;
  readonly due: DueDates | null;
  /** The reckoning behind the date, for one vehicle; empty in lists. */
  readonly sum: readonly SumLine[];
  /** What the dash shows. */
  readonly odometerUnit: 'km' | 'mi';
  readonly odometerKm: number | null;
  readonly odometerOn: PlainDate | null;
  readonly odometerNowKm: number | null;
  readonly rate: UseRate | null;
  readonly suspectReadings: number;
  readonly fitmentWhy: string | null;
  readonly openWorkOrder: { readonly id: string; readonly number: number; readonly plannedOn: PlainDate | null } | null;
}

export const SORTS = ['life', 'due', 'unit', 'depot', 'odometer'] as const;

/** A list parameter that is wrong falls back rather than losing the page: it only filters what is shown. */
export const dueFilter = z.object({
  depot: z.string().max(120).optional().catch(undefined),
  group: z.string().max(120).optional().catch(undefined),
  state: z.enum(DUE_STATES).optional().catch(undefined),
  search: z.string().max(60).optional().catch(undefined),
  before: z.iso.date().optional().catch(undefined),
  minLife: z.coerce.number().min(0).max(100).optional().catch(undefined),
  sort: z.enum(SORTS).default('life').catch('life'),
  descending: z.boolean().optional().catch(undefined),
});
export type DueFilter = z.output<typeof dueFilter>;

export interface DueList {
  /** The page asked for, or all that fit the filter. */
  readonly items: readonly DueItem[];
  /** How many fit the filter. */
  readonly found: number;
  /** Vehicles of the fleet, whatever the filter. */
  readonly total: number;
  readonly counts: Readonly<Record<DueState, number>>;
  readonly depots: readonly string[];
  readonly groups: readonly string[];
}

export interface Page {
  readonly from: number;
  readonly limit: number;
}

/** The fleet by life used and due band. */
export async function listDue(deps: Deps, actor: Actor, filter: DueFilter, page?: Page): Promise<Outcome<DueList>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const rows = await loadStandings(deps.db, actor.fleetId);
  const groups = groupRates(rows);
  const all = rows.map((row) => standingOf(row, groups.get(row.dutyGroup) ?? null, deps.today()));
  const fitting = all.filter((standing) => matches(standing, filter)).sort(bySort(filter));
  const shown = page ? fitting.slice(page.from, page.from + page.limit) : fitting;
  const counts = Object.fromEntries(DUE_STATES.map((state) => [state, 0])) as Record<DueState, number>;
  for (const standing of all) counts[standing.state] += 1;
  const items = await withLabels(deps, actor, shown);
  return ok({
    items,
    found: fitting.length,
    total: all.length,
    counts,
    depots: distinct(rows, 'depot'),
    groups: distinct(rows, 'dutyGroup'),
  });
}

/** One vehicle's standing. */
export async function viewDue(deps: Deps, actor: Actor, vehicleId: string): Promise<Outcome<DueItem>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const [row] = await loadStandings(deps.db, actor.fleetId, vehicleId);
  if (!row) return notFound('vehicle');
  const group = groupRate(await loadGroupRates(deps.db, actor.fleetId, row.dutyGroup));
  const standing = standingOf(row, group, deps.today());
  const [item] = await withLabels(deps, actor, [standing]);
  return item ? ok({ ...item, sum: sumOf(row, standing, deps.today()) }) : notFound('vehicle');
}

const distinct = (rows: readonly StandingRow[], key: 'depot' | 'dutyGroup'): readonly string[] =>
  [...new Set(rows.map((row) => row[key]))].sort();

function groupRates(rows: readonly StandingRow[]): ReadonlyMap<string, GroupRate | null> {
  const byGroup = groupBy(rows, (row) => row.dutyGroup);
  return new Map(
    [...byGroup].map(([group, members]) => [group, groupRate(members.flatMap((row) => row.rateKmPerDay ?? []))]),
  );
}

interface Standing {
  readonly row: StandingRow;
  readonly state: DueState;
  readonly worst: WorstSite | null;
  readonly rate: UseRate | null;
}

function standingOf(row: StandingRow, group: GroupRate | null, today: PlainDate): Standing {
  const rate = settledRate(ownRateOf(row), group);
  const worst = worstOf(row, rate, today);
  const state =
    row.fitment !== 'match' ? 'no-match' : worst ? dueState(worst.due, worst.site.certainty, today) : 'no-odometer';
  return { row, state, worst, rate };
}

async function withLabels({ db }: Deps, actor: Actor, standings: readonly Standing[]): Promise<readonly DueItem[]> {
  const labels = await loadDueLabels(
    db,
    actor.fleetId,
    standings.map(({ row }) => row.id),
  );
  return standings.flatMap((standing) => {
    const label = labels.get(standing.row.id);
    return label ? [toItem(standing, label)] : [];
  });
}

function toItem({ row, state, worst, rate }: Standing, label: DueLabels): DueItem {
  return {
    vehicleId: row.id,
    unitNumber: row.unitNumber,
    name: row.name,
    depot: row.depot,
    dutyGroup: row.dutyGroup,
    engineCode: label.engineCode,
    partNumber: label.partNumber,
    state,
    lifeUsed: worst?.due.lifeUsed ?? null,
    binds: worst?.due.binds ?? null,
    limitKm: row.limitKm,
    limitMonths: row.limitMonths,
    limitShare: row.limitShare,
    certainty: worst?.site.certainty ?? null,
    due: worst?.due.due ?? null,
    sum: [],
    odometerUnit: label.odometerUnit,
    odometerKm: row.odometerKm,
    odometerOn: row.odometerOn,
    odometerNowKm: odometerNow({ row, worst }),
    rate,
    suspectReadings: label.suspectReadings,
    fitmentWhy: label.fitmentWhy,
    openWorkOrder:
      label.openWorkOrderId === null
        ? null
        : { id: label.openWorkOrderId, number: label.openWorkOrderNumber ?? 0, plannedOn: label.plannedOn },
  };
}

const odometerNow = ({ row, worst }: Pick<Standing, 'row' | 'worst'>): number | null =>
  worst?.due.odometerNowKm ?? row.odometerKm;

function ownRateOf(row: StandingRow): UseRate | null {
  if (row.rateKmPerDay === null) return null;
  return {
    kmPerDay: row.rateKmPerDay,
    ci80: [row.rateLowKmPerDay ?? 0, row.rateHighKmPerDay ?? 0],
    used: row.rateReadings,
    borrowed: false,
  };
}

function worstOf(row: StandingRow, rate: UseRate | null, today: PlainDate): WorstSite | null {
  if (row.fitment !== 'match' || row.odometerOn === null || row.odometerKm === null) return null;
  if (row.limitKm === null && row.limitMonths === null) return null;
  return worstSite(row.clocks, {
    today,
    odometer: { on: row.odometerOn, km: row.odometerKm },
    rate,
    limits: { distanceKm: row.limitKm, months: row.limitMonths, share: row.limitShare },
  });
}

function sumOf(row: StandingRow, { worst, rate }: Standing, today: PlainDate): readonly SumLine[] {
  if (!worst || row.odometerOn === null || row.odometerKm === null) return [];
  return dueSum({
    today,
    odometer: { on: row.odometerOn, km: row.odometerKm },
    rate,
    installed: worst.site.installed,
    limits: { distanceKm: row.limitKm, months: row.limitMonths, share: row.limitShare },
  });
}

function matches({ row, state, worst }: Standing, filter: DueFilter): boolean {
  const { before, minLife } = filter;
  const search = filter.search?.trim().toLowerCase();
  const dates = worst?.due.due ?? null;
  return (
    (!filter.depot || row.depot === filter.depot) &&
    (!filter.group || row.dutyGroup === filter.group) &&
    (!filter.state || state === filter.state) &&
    (!before || (dates !== null && dates.p50 <= before)) &&
    (minLife === undefined || (worst?.due.lifeUsed ?? -1) >= minLife) &&
    (!search || row.unitNumber.toLowerCase().includes(search) || row.name.toLowerCase().includes(search))
  );
}

const plainOrder = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

const unitOrder = new Intl.Collator('en', { numeric: true });

function bySort({ sort, descending }: DueFilter): (a: Standing, b: Standing) => number {
  const compare: Record<(typeof SORTS)[number], (a: Standing, b: Standing) => number> = {
    life: (a, b) => (b.worst?.due.lifeUsed ?? -1) - (a.worst?.due.lifeUsed ?? -1),
    due: (a, b) => plainOrder(a.worst?.due.due?.p50 ?? '9999', b.worst?.due.due?.p50 ?? '9999'),
    unit: (a, b) => unitOrder.compare(a.row.unitNumber, b.row.unitNumber),
    depot: (a, b) => plainOrder(a.row.depot, b.row.depot),
    odometer: (a, b) => (odometerNow(b) ?? -1) - (odometerNow(a) ?? -1),
  };
  const sign = descending ? -1 : 1;
  return (a, b) => sign * compare[sort](a, b) || unitOrder.compare(a.row.unitNumber, b.row.unitNumber);
}

import { z } from 'zod';
import type { PlainDate } from '@/core/calendar/plain-date';
import {
  type Binding,
  type Certainty,
  DUE_STATES,
  type DueDates,
  type DueState,
  dueState,
  worstSite,
} from '@/core/interval/due';
import { type GroupRate, groupRate, settledRate, type UseRate } from '@/core/odometer/use-rate';
import { groupBy } from '@/core/shared/group-by';
import { ok } from '@/core/shared/result';
import { type DueRow, loadDueRows, loadGroupRates } from '@/db/queries/status';
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
  readonly certainty: Certainty | null;
  readonly due: DueDates | null;
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
  readonly items: readonly DueItem[];
  readonly total: number;
  /** Over the whole fleet, whatever the filter. */
  readonly counts: Readonly<Record<DueState, number>>;
  readonly depots: readonly string[];
  readonly groups: readonly string[];
}

/** The fleet by life used and due band. */
export async function listDue(deps: Deps, actor: Actor, filter: DueFilter): Promise<Outcome<DueList>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const rows = await loadDueRows(deps.db, actor.fleetId);
  const groups = groupRates(rows);
  const all = rows.map((row) => toItem(row, groups.get(row.dutyGroup) ?? null, deps.today()));
  const items = all.filter((item) => matches(item, filter)).sort(bySort(filter));
  const counts = Object.fromEntries(DUE_STATES.map((state) => [state, 0])) as Record<DueState, number>;
  for (const item of all) counts[item.state] += 1;
  return ok({ items, total: all.length, counts, depots: distinct(rows, 'depot'), groups: distinct(rows, 'dutyGroup') });
}

/** One vehicle's standing. */
export async function viewDue(deps: Deps, actor: Actor, vehicleId: string): Promise<Outcome<DueItem>> {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const [row] = await loadDueRows(deps.db, actor.fleetId, vehicleId);
  if (!row) return notFound('vehicle');
  return ok(toItem(row, groupRate(await loadGroupRates(deps.db, actor.fleetId, row.dutyGroup)), deps.today()));
}

const distinct = (rows: readonly DueRow[], key: 'depot' | 'dutyGroup'): readonly string[] =>
  [...new Set(rows.map((row) => row[key]))].sort();

function groupRates(rows: readonly DueRow[]): ReadonlyMap<string, GroupRate | null> {
  const byGroup = groupBy(rows, (row) => row.dutyGroup);
  return new Map(
    [...byGroup].map(([group, members]) => [group, groupRate(members.flatMap((row) => row.rateKmPerDay ?? []))]),
  );
}

function toItem(row: DueRow, group: GroupRate | null, today: PlainDate): DueItem {
  const rate = settledRate(ownRateOf(row), group);
  const worst = worstOf(row, rate, today);
  return {
    vehicleId: row.id,
    unitNumber: row.unitNumber,
    name: row.name,
    depot: row.depot,
    dutyGroup: row.dutyGroup,
    engineCode: row.engineCode,
    partNumber: row.partNumber,
    state:
      row.fitment !== 'match' ? 'no-match' : worst ? dueState(worst.due, worst.site.certainty, today) : 'no-odometer',
    lifeUsed: worst?.due.lifeUsed ?? null,
    binds: worst?.due.binds ?? null,
    limitKm: row.limitKm,
    limitMonths: row.limitMonths,
    certainty: worst?.site.certainty ?? null,
    due: worst?.due.due ?? null,
    odometerKm: row.odometerKm,
    odometerOn: row.odometerOn,
    odometerNowKm: worst?.due.odometerNowKm ?? row.odometerKm,
    rate,
    suspectReadings: row.suspectReadings,
    fitmentWhy: row.fitmentWhy,
    openWorkOrder:
      row.openWorkOrderId === null
        ? null
        : { id: row.openWorkOrderId, number: row.openWorkOrderNumber ?? 0, plannedOn: row.plannedOn },
  };
}

function ownRateOf(row: DueRow): UseRate | null {
  if (row.rateKmPerDay === null) return null;
  return {
    kmPerDay: row.rateKmPerDay,
    ci80: [row.rateLowKmPerDay ?? 0, row.rateHighKmPerDay ?? 0],
    used: row.rateReadings,
    borrowed: false,
  };
}

function worstOf(row: DueRow, rate: UseRate | null, today: PlainDate) {
  if (row.fitment !== 'match' || row.odometerOn === null || row.odometerKm === null) return null;
  if (row.limitKm === null && row.limitMonths === null) return null;
  return worstSite(row.clocks, {
    today,
    odometer: { on: row.odometerOn, km: row.odometerKm },
    rate,
    limits: { distanceKm: row.limitKm, months: row.limitMonths },
  });
}

function matches(item: DueItem, filter: DueFilter): boolean {
  const { depot, group, state, before, minLife } = filter;
  const search = filter.search?.trim().toLowerCase();
  return (
    (!depot || item.depot === depot) &&
    (!group || item.dutyGroup === group) &&
    (!state || item.state === state) &&
    (!before || (item.due !== null && item.due.p50 <= before)) &&
    (minLife === undefined || (item.lifeUsed ?? -1) >= minLife) &&
    (!search || item.unitNumber.toLowerCase().includes(search) || item.name.toLowerCase().includes(search))
  );
}

const plainOrder = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

const unitOrder = new Intl.Collator('en', { numeric: true });

function bySort({ sort, descending }: DueFilter): (a: DueItem, b: DueItem) => number {
  const compare: Record<(typeof SORTS)[number], (a: DueItem, b: DueItem) => number> = {
    life: (a, b) => (b.lifeUsed ?? -1) - (a.lifeUsed ?? -1),
    due: (a, b) => plainOrder(a.due?.p50 ?? '9999', b.due?.p50 ?? '9999'),
    unit: (a, b) => unitOrder.compare(a.unitNumber, b.unitNumber),
    depot: (a, b) => plainOrder(a.depot, b.depot),
    odometer: (a, b) => (b.odometerNowKm ?? -1) - (a.odometerNowKm ?? -1),
  };
  const sign = descending ? -1 : 1;
  return (a, b) => sign * compare[sort](a, b) || unitOrder.compare(a.unitNumber, b.unitNumber);
}

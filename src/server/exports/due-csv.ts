import type { DueItem } from '@/core/due/due-item';
import { ok } from '@/core/shared/result';
import { roundTo } from '@/core/units/round';
import { dueFilter, listDue } from '../due/list-due';
import type { Outcome } from '../failure';
import { useCase } from '../use-case';
import { type Cell, toCsv } from './csv';

const HEADER = [
  'unit_number',
  'name',
  'depot',
  'duty_group',
  'engine_family',
  'component',
  'part_number',
  'state',
  'life_used_percent',
  'binds',
  'limit_km',
  'limit_months',
  'history',
  'due_p10',
  'due_p50',
  'due_p90',
  'odometer_km',
  'odometer_on',
  'odometer_now_km',
  'rate_km_per_day',
  'rate_borrowed',
  'fitted_on',
  'fitted_km',
  'also_due',
  'work_order',
  'planned_on',
];

/** The due list, filtered and sorted as on screen. */
export const exportDue = useCase({
  permission: 'read the fleet',
  input: dueFilter,
  async run(deps, actor, filter): Promise<Outcome<string>> {
    const list = await listDue(deps, actor, filter);
    return list.ok ? ok(toCsv(HEADER, list.value.items.map(toRow))) : list;
  },
});

const yesNo = (value: boolean): string => (value ? 'yes' : 'no');
const rounded = (value: number | null | undefined, digits: number): number | null =>
  value == null ? null : roundTo(value, digits);

function toRow(item: DueItem): Cell[] {
  return [
    item.unitNumber,
    item.name,
    item.depot,
    item.dutyGroup,
    item.engineCode,
    item.component,
    item.partNumber,
    item.state,
    rounded(item.lifeUsed === null ? null : item.lifeUsed * 100, 1),
    item.binds,
    item.limitKm,
    item.limitMonths,
    item.certainty,
    item.due?.p10 ?? null,
    item.due?.p50 ?? null,
    item.due?.p90 ?? null,
    item.odometerKm,
    item.odometerOn,
    rounded(item.odometerNowKm, 0),
    rounded(item.rate?.kmPerDay, 1),
    item.rate && yesNo(item.rate.borrowed),
    item.fittedOn,
    item.fittedKm,
    item.others
      .filter(({ due }) => due !== null)
      .map(({ component, due }) => `${component} ${due}`)
      .join('; '),
    item.openWorkOrder?.number ?? null,
    item.openWorkOrder?.plannedOn ?? null,
  ];
}

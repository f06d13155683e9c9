import type { z } from 'zod';
import type { dueItem, finding, followUp, loadItem, reading } from '@/contracts/http/resources';
import { workOrder, type workOrderWhole } from '@/contracts/http/work-orders';
import type { DueItem } from '@/core/due/due-item';
import { siteId } from '@/core/engine/model';
import { toCsv } from '@/server/exports/csv';
import type { FindingView } from '@/server/findings/findings-of';
import type { FollowUpItem } from '@/server/findings/follow-up';
import type { listLoads } from '@/server/odometer/list-loads';
import type { ReadingPage } from '@/server/odometer/list-readings';
import type { listWorkOrders } from '@/server/work-orders/list-work-orders';
import { stepFields } from '@/server/work-orders/order-state';
import { placeFields } from '@/server/work-orders/place-record';
import type { WorkOrderView } from '@/server/work-orders/view-work-order';

/* What the use-cases give, in the shapes of the HTTP interface. */

type Load = Extract<Awaited<ReturnType<typeof listLoads>>, { ok: true }>['value'][number];

type Row = Extract<Awaited<ReturnType<typeof listWorkOrders>>, { ok: true }>['value']['items'][number];

export const toDueItem = (item: DueItem): z.output<typeof dueItem> => ({
  vehicle_id: item.vehicleId,
  unit_number: item.unitNumber,
  name: item.name,
  depot: item.depot,
  duty_group: item.dutyGroup,
  engine_family: item.engineCode,
  component: item.component,
  part_number: item.partNumber,
  state: item.state,
  life_used: item.lifeUsed,
  binds: item.binds,
  limit_km: item.limitKm,
  limit_months: item.limitMonths,
  history: item.certainty,
  fitted_on: item.fittedOn,
  fitted_km: item.fittedKm,
  due_at_dash_km: item.dueAtDashKm,
  may_be_seized: item.seizing !== null,
  due: item.due,
  others: item.others.map(({ component, state, lifeUsed, due }) => ({ component, state, life_used: lifeUsed, due })),
  pressure_per_week: item.pressure,
  failure_cost: item.failureCost,
  odometer_unit: item.odometerUnit,
  odometer_km: item.odometerKm,
  odometer_on: item.odometerOn,
  odometer_now_km: item.odometerNowKm,
  rate_km_per_day: item.rate?.kmPerDay ?? null,
  rate_borrowed: item.rate?.borrowed ?? null,
  work_order: item.openWorkOrder?.number ?? null,
});

export const toLoadItem = (load: Load): z.output<typeof loadItem> => ({
  load_id: load.id,
  file_name: load.fileName,
  state: load.state,
  step: load.step,
  rows_read: load.rowsRead,
  rows_judged: load.rowsJudged,
  added: load.added,
  suspect: load.suspect,
  known: load.known,
  refused: load.refused,
  refusals: load.refusals ?? [],
  message: load.message,
  started_at: load.startedAt.toISOString(),
  started_by: load.who,
});

export const toReading = (row: ReadingPage['items'][number]): z.output<typeof reading> => ({
  unit_number: row.unitNumber,
  on: row.readOn,
  odometer_km: row.odometerKm,
  as_typed: row.asTyped,
  unit: row.unit,
  source: row.source,
  certainty: row.certainty,
  state: row.state,
  doubt: row.doubt,
  suggested_km: row.suggestedKm,
});

export const toFollowUp = ({ followUp: row, ...item }: FollowUpItem): z.output<typeof followUp> => ({
  id: row.id,
  unit_number: item.unitNumber,
  work_order: item.orderNumber,
  misfire: item.caseNumber,
  what: row.what,
  owner: item.owner,
  due_on: row.dueOn,
  due_km: row.dueKm,
  is_due: item.isDue,
  done_at: row.doneAt?.toISOString() ?? null,
  outcome: row.outcome,
});

export const toFinding = ({ verdict, answers, ...rest }: FindingView): z.output<typeof finding> => ({
  ...rest,
  sites: [...rest.sites],
  evidence: [...rest.evidence],
  against: [...rest.against],
  next: [...rest.next],
  answers: answers.map(({ places, ...answer }) => ({ ...answer, places: places === 'all' ? places : [...places] })),
  said: verdict && {
    verdict: verdict.verdict.verdict,
    instead: verdict.verdict.insteadText,
    reason: verdict.verdict.reason,
    by: verdict.who,
  },
});

export const toWorkOrder = (row: Row): z.output<typeof workOrder> => ({
  id: row.id,
  number: row.number,
  unit_number: row.unitNumber,
  engine: row.engineCode,
  depot: row.depot,
  state: row.state,
  planned_at: row.startsAt,
  person: row.person,
  opened_on: row.openedOn,
  closed_on: row.closedOn,
});

/** Work orders as CSV, with the columns of the HTTP interface. */
export function workOrdersCsv(rows: readonly Row[]): string {
  const keys = workOrder.keyof().options;
  return toCsv(
    keys,
    rows.map(toWorkOrder).map((item) => keys.map((key) => item[key])),
  );
}

export const toWorkOrderWhole = (view: WorkOrderView): z.output<typeof workOrderWhole> => ({
  ...toWorkOrder(view.row),
  version: view.order.version,
  part_number: view.plug?.spec.part.number ?? null,
  gap_min_mm: view.plug?.spec.gapMinMm ?? null,
  gap_max_mm: view.plug?.spec.gapMaxMm ?? null,
  torque_min_nm: view.plug?.threads.torqueNm.min ?? null,
  torque_max_nm: view.plug?.threads.torqueNm.max ?? null,
  minutes: view.order.minutes,
  other_work: view.order.otherWork,
  tasks: view.tasks.map(({ row, sheet, places }) => ({
    id: row.id,
    action: row.action,
    component: row.component,
    why: row.why,
    note: row.note,
    part_number: sheet?.part.number ?? null,
    places: places.map(({ place, id, target, state, redo }) => ({
      place: id,
      target,
      state,
      redo,
      fields: { ...placeFields(place) },
    })),
  })),
  kit: view.kit.map(({ partNumber, component, quantity }) => ({ part_number: partNumber, component, quantity })),
  sites: view.sites.map((site) => ({
    site: siteId(site),
    expected_number: site.expectedNumber,
    removed_gap_mm: site.removedGapMm,
    new_gap_mm: site.newGapMm,
    installed_torque_nm: site.installedTorqueNm,
    done: site.doneAt !== null,
    redo: site.redo,
    fields: { ...placeFields(site) },
  })),
  steps: view.steps.map((step) => ({
    key: step.key,
    title: step.title,
    caution: step.caution,
    fields: { ...stepFields(step) },
  })),
  counts: view.counts.map(({ key, what, expected, out, back }) => ({ key, what, expected, out, back })),
  blockers: view.missing.map(({ says }) => says),
});

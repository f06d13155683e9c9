import { ok } from '@/core/shared/result';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import type { Outcome } from '../failure';
import { viewWorkOrder } from '../work-orders/view-work-order';
import { makePdf, type PaperSize } from './pdf';
import { finishedRecord, jobCard, pickList, type Sheet, trayLabel } from './sheets';

const NAMES: Readonly<Record<Sheet, string>> = {
  'job-card': 'Job card',
  'pick-list': 'Pick list',
  'tray-label': 'Tray label',
  record: 'Service record',
};

/** A sheet of a work order as PDF. @param address where this Isobar is reached, for the code on the tray */
export async function printOrder(
  deps: Deps,
  actor: Actor,
  input: { readonly workOrderId: string; readonly sheet: Sheet; readonly size: PaperSize; readonly address: string },
): Promise<Outcome<{ readonly fileName: string; readonly bytes: Buffer }>> {
  const view = await viewWorkOrder(deps, actor, input.workOrderId);
  if (!view.ok) return view;
  const { order } = view.value;
  const content =
    input.sheet === 'job-card'
      ? jobCard(view.value)
      : input.sheet === 'pick-list'
        ? pickList(view.value)
        : input.sheet === 'tray-label'
          ? await trayLabel(view.value, input.address)
          : finishedRecord(view.value);
  const title = `${NAMES[input.sheet]}, work order ${order.number}, unit ${view.value.vehicle.unitNumber}`;
  return ok({ fileName: `${input.sheet}-${order.number}.pdf`, bytes: await makePdf(title, input.size, content) });
}

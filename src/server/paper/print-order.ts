import type { Content } from 'pdfmake/interfaces';
import { z } from 'zod';
import { ok } from '@/core/shared/result';
import type { UnitSystem } from '@/core/units/person-units';
import { useCase } from '../use-case';
import { viewWorkOrder, type WorkOrderView } from '../work-orders/view-work-order';
import { jobCard } from './job-card';
import { makePdf, PAPER_SIZES } from './pdf';
import { finishedRecord, pickList, SHEETS, type Sheet, trayLabel } from './sheets';

const NAMES: Readonly<Record<Sheet, string>> = {
  'job-card': 'Job card',
  'pick-list': 'Pick list',
  'tray-label': 'Tray label',
  record: 'Service record',
};

/** A sheet of a work order as PDF. */
export const printOrder = useCase({
  permission: 'read the fleet',
  input: z.object({
    workOrderId: z.uuid(),
    sheet: z.enum(SHEETS),
    size: z.enum(PAPER_SIZES),
    /** Where this Isobar is reached, for the code on the tray. */
    address: z.string(),
  }),
  async run(deps, actor, { workOrderId, sheet, size, address }) {
    const view = await viewWorkOrder(deps, actor, workOrderId);
    if (!view.ok) return view;
    const { order, vehicle } = view.value;
    const title = `${NAMES[sheet]}, work order ${order.number}, unit ${vehicle.unitNumber}`;
    const bytes = await makePdf(title, size, await contentOf(sheet, view.value, actor.unitSystem, address));
    return ok({ fileName: `${sheet}-${order.number}.pdf`, bytes });
  },
});

function contentOf(sheet: Sheet, view: WorkOrderView, system: UnitSystem, address: string): Content | Promise<Content> {
  switch (sheet) {
    case 'job-card':
      return jobCard(view, system);
    case 'pick-list':
      return pickList(view);
    case 'tray-label':
      return trayLabel(view, address);
    case 'record':
      return finishedRecord(view, system);
  }
}

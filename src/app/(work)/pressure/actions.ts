'use server';

import { formAction } from '@/app/form-action';
import { setCosts } from '@/server/due/costs';
import { blockByFault, deferDue, takeBackDeferral } from '@/server/due/defer';
import { openWorkOrders } from '@/server/work-orders/open-work-order';

const listed = (ids: string | undefined): string[] => (ids ?? '').split(',').filter(Boolean);

export const openSelectedAction = formAction(openWorkOrders, {
  read: ({ ids, take }) => ({ vehicleIds: listed(ids), take }),
  onDone: ({ opened, refused }) => ({
    message: [`${opened.length} opened.`, ...refused].join(' '),
    links: opened.map(({ workOrderId, number }) => ({
      href: `/work-orders/${workOrderId}`,
      label: `Work order ${number}`,
    })),
  }),
});
export const deferAction = formAction(deferDue, {
  read: ({ ids, component, ...rest }) => ({
    ...rest,
    component: component || undefined,
    vehicleIds: listed(ids),
  }),
  onDone: ({ deferred, undo }) => ({ message: `${deferred} deferred.`, undo }),
});
export const blockAction = formAction(blockByFault, {
  onDone: ({ undo }) => ({ message: 'Blocked by another fault.', undo }),
});
export const takeBackAction = formAction(takeBackDeferral, { onDone: () => ({ message: 'Taken back.' }) });
export const setCostsAction = formAction(setCosts, {
  read: ({
    currency,
    failureCost,
    wearCostPerPercent,
    labourPerHour,
    downtimePerVisit,
    hourCost,
    moveCost,
    breakMinutes,
    bayPercent,
    ...rest
  }) => ({
    currency,
    failureCost,
    wearCostPerPercent,
    labourPerHour,
    downtimePerVisit,
    hourCost,
    moveCost,
    breakMinutes,
    bayPercent,
    groups: Object.fromEntries(
      Object.entries(rest).flatMap(([name, value]) =>
        name.startsWith('group:') && value.trim() !== '' ? [[name.slice('group:'.length), value]] : [],
      ),
    ),
  }),
  fieldName: (name) => name.replace(/^groups\./, 'group:'),
  onDone: () => ({ message: 'Saved. The pressure of every vehicle is computed anew.' }),
});

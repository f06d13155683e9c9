'use server';

import { formAction } from '@/app/form-action';
import { costsForm, deferForm } from '@/contracts/forms/due';
import { setCosts } from '@/server/due/costs';
import { blockByFault, deferDue, takeBackDeferral } from '@/server/due/defer';
import { openWorkOrders } from '@/server/work-orders/open-work-order';

export const openSelectedAction = formAction(openWorkOrders, {
  read: ({ ids = '', take }) => ({ vehicleIds: ids.split(',').filter(Boolean), take }),
  onDone: ({ opened, refused }) => ({
    message: [`${opened.length} opened.`, ...refused].join(' '),
    links: opened.map(({ workOrderId, number }) => ({
      href: `/work-orders/${workOrderId}`,
      label: `Work order ${number}`,
    })),
  }),
});
export const deferAction = formAction(deferDue, {
  ...deferForm,
  onDone: ({ deferred, undo }) => ({ message: `${deferred} deferred.`, undo }),
});
export const blockAction = formAction(blockByFault, {
  onDone: ({ undo }) => ({ message: 'Blocked by another fault.', undo }),
});
export const takeBackAction = formAction(takeBackDeferral, { onDone: () => ({ message: 'Taken back.' }) });
export const setCostsAction = formAction(setCosts, {
  ...costsForm,
  onDone: ({ undo }) => ({ message: 'Saved. The pressure of every vehicle is computed anew.', undo }),
});

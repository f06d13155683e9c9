'use server';

import { formAction } from '@/app/form-action';
import { fromJson } from '@/contracts/forms/form-input';
import { splitForm } from '@/contracts/forms/work-orders';
import type { WorkOrderId } from '@/core/shared/kinds';
import { addFollowUp, finishFollowUp } from '@/server/findings/follow-up';
import { judgeFinding } from '@/server/findings/judge-finding';
import { gradePlug } from '@/server/findings/trainer';
import { planWorkOrder, unplanWorkOrder } from '@/server/planning/plan-work-order';
import { approvePart } from '@/server/work-orders/approve-part';
import { addOtherWork, addTasks, splitVisit, takeOffTask } from '@/server/work-orders/change-tasks';
import { chooseWay } from '@/server/work-orders/choose-way';
import { cancelWorkOrder, closeWorkOrder, reopenWorkOrder } from '@/server/work-orders/close-work-order';
import { clearCodes, keepCodes } from '@/server/work-orders/codes';
import { handOver } from '@/server/work-orders/hand-over';
import { liftGate } from '@/server/work-orders/lift-gate';
import { openWorkOrder } from '@/server/work-orders/open-work-order';
import { releaseSite, takeOverSheet } from '@/server/work-orders/take-over-sheet';
import { endWait, waitFor } from '@/server/work-orders/wait-for';

const orderOnly = { read: ({ workOrderId }: { readonly workOrderId?: WorkOrderId }) => workOrderId };

export const openWorkOrderAction = formAction(openWorkOrder, {
  onDone: ({ workOrderId }) => ({ to: `/work-orders/${workOrderId}` }),
});
/** One task is put on at a time; its fields are the form's. */
export const addTaskAction = formAction(addTasks, {
  read: ({ workOrderId, releaseReason, ...task }) => ({ workOrderId, releaseReason, tasks: [task] }),
  onDone: ({ undo }) => ({ message: 'Task added. Its steps are among the others.', undo }),
  fieldName: (name) => name.replace('tasks.0.', ''),
});
export const addOtherWorkAction = formAction(addOtherWork, {
  read: ({ workOrderId }, data) => ({ workOrderId, what: data.getAll('what') }),
  onDone: () => ({ message: 'Added, as a step of closing.' }),
});
export const approvePartAction = formAction(approvePart, {
  onDone: () => ({ message: 'Approved. Its number is accepted at the vehicle.' }),
});
export const liftGateAction = formAction(liftGate, {
  onDone: () => ({ message: 'Lifted for this visit. The reason stays on its record.' }),
});
export const chooseWayAction = formAction(chooseWay);
export const takeOffTaskAction = formAction(takeOffTask, {
  onDone: ({ undo }) => ({ message: 'Task taken off.', undo }),
});
export const splitAction = formAction(splitVisit, {
  ...splitForm,
  onDone: ({ workOrderId }) => ({ to: `/work-orders/${workOrderId}` }),
});
/** A visit for one task, as from a vehicle's page or a finding. */
export const openForTaskAction = formAction(openWorkOrder, {
  read: ({ vehicleId, releaseReason, ...task }) => ({ vehicleId, releaseReason, tasks: [task] }),
  onDone: ({ workOrderId }) => ({ to: `/work-orders/${workOrderId}` }),
  fieldName: (name) => name.replace('tasks.0.', ''),
});
/** A visit with what a person took of what was proposed. */
export const openVisitAction = formAction(openWorkOrder, {
  read: ({ vehicleId }, data) => ({
    vehicleId,
    tasks: data.getAll('take').map((task) => fromJson(String(task))),
    otherWork: data.getAll('otherWork'),
  }),
  onDone: ({ workOrderId }) => ({ to: `/work-orders/${workOrderId}` }),
});
export const planAction = formAction(planWorkOrder, { onDone: ({ undo }) => ({ message: 'Planned.', undo }) });
export const unplanAction = formAction(unplanWorkOrder, {
  ...orderOnly,
  onDone: ({ undo }) => ({ message: 'Taken off the plan.', undo }),
});
export const closeAction = formAction(closeWorkOrder);
export const reopenAction = formAction(reopenWorkOrder);
export const cancelAction = formAction(cancelWorkOrder);
export const verdictAction = formAction(judgeFinding, { onDone: () => ({ message: 'Saved.' }) });
export const followUpAction = formAction(addFollowUp, { onDone: () => ({ message: 'Added.' }) });
export const finishFollowUpAction = formAction(finishFollowUp, { onDone: () => ({ message: 'Done.' }) });
export const keepCodesAction = formAction(keepCodes);
export const clearCodesAction = formAction(clearCodes, orderOnly);
export const waitAction = formAction(waitFor, {
  onDone: () => ({ message: 'The job is stopped. What the job waits for is listed under Waiting.' }),
});
export const endWaitAction = formAction(endWait);
export const takeOverSheetAction = formAction(takeOverSheet, orderOnly);
export const releaseSiteAction = formAction(releaseSite);
export const handOverAction = formAction(handOver, {
  ...orderOnly,
  onDone: () => ({ message: 'Handed over. A supervisor verifies and closes it.' }),
});
export const gradeAction = formAction(gradePlug);

'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { addFollowUp, doneInput, finishFollowUp, followUpInput } from '@/server/findings/follow-up';
import { judgeFinding, verdictInput } from '@/server/findings/judge-finding';
import { gradeInput, gradePlug } from '@/server/findings/trainer';
import { planInput, planWorkOrder, unplanWorkOrder } from '@/server/planning/plan-work-order';
import {
  cancelWorkOrder,
  closeInput,
  closeWorkOrder,
  reasonInput,
  reopenWorkOrder,
} from '@/server/work-orders/close-work-order';
import { clearCodes, codesInput, keepCodes } from '@/server/work-orders/codes';
import { handOver } from '@/server/work-orders/hand-over';
import { openWorkOrder } from '@/server/work-orders/open-work-order';
import { releaseSite, releaseSiteInput, takeOverSheet } from '@/server/work-orders/take-over-sheet';
import { endWait, waitFor, waitInput } from '@/server/work-orders/wait-for';
import type { ActionAnswer } from '@/ui/primitives/action-form';

export async function openWorkOrderAction(data: FormData): Promise<ActionAnswer> {
  const { vehicleId = '', releaseReason } = texts(data);
  return answer(await openWorkOrder(deps(), await requireActor(), { vehicleId, releaseReason }), ({ workOrderId }) => ({
    to: `/work-orders/${workOrderId}`,
  }));
}

export async function planAction(data: FormData): Promise<ActionAnswer> {
  const { minutes, ...rest } = texts(data);
  const input = planInput.safeParse({ ...rest, minutes: Number(minutes) });
  if (!input.success) return invalid(input.error);
  return answer(await planWorkOrder(deps(), await requireActor(), input.data), () => ({ message: 'Planned.' }));
}

export async function unplanAction(data: FormData): Promise<ActionAnswer> {
  return answer(await unplanWorkOrder(deps(), await requireActor(), texts(data).workOrderId ?? ''));
}

export async function closeAction(data: FormData): Promise<ActionAnswer> {
  const text = texts(data);
  const input = closeInput.safeParse({ ...text, version: Number(text.version) });
  if (!input.success) return invalid(input.error);
  return answer(await closeWorkOrder(deps(), await requireActor(), input.data));
}

export async function reopenAction(data: FormData): Promise<ActionAnswer> {
  const input = reasonInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await reopenWorkOrder(deps(), await requireActor(), input.data));
}

export async function cancelAction(data: FormData): Promise<ActionAnswer> {
  const input = reasonInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await cancelWorkOrder(deps(), await requireActor(), input.data));
}

export async function verdictAction(data: FormData): Promise<ActionAnswer> {
  const input = verdictInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await judgeFinding(deps(), await requireActor(), input.data), () => ({ message: 'Kept.' }));
}

export async function followUpAction(data: FormData): Promise<ActionAnswer> {
  const input = followUpInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await addFollowUp(deps(), await requireActor(), input.data), () => ({ message: 'Added.' }));
}

export async function finishFollowUpAction(data: FormData): Promise<ActionAnswer> {
  const input = doneInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await finishFollowUp(deps(), await requireActor(), input.data), () => ({ message: 'Done.' }));
}

export async function keepCodesAction(data: FormData): Promise<ActionAnswer> {
  const input = codesInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await keepCodes(deps(), await requireActor(), input.data));
}

export async function clearCodesAction(data: FormData): Promise<ActionAnswer> {
  return answer(await clearCodes(deps(), await requireActor(), texts(data).workOrderId ?? ''));
}

export async function waitAction(data: FormData): Promise<ActionAnswer> {
  const input = waitInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await waitFor(deps(), await requireActor(), input.data), () => ({
    message: 'The job stands. What it waits for is on the list.',
  }));
}

export async function endWaitAction(data: FormData): Promise<ActionAnswer> {
  const { workOrderId = '', waitId = '' } = texts(data);
  return answer(await endWait(deps(), await requireActor(), workOrderId, waitId));
}

export async function takeOverSheetAction(data: FormData): Promise<ActionAnswer> {
  return answer(await takeOverSheet(deps(), await requireActor(), texts(data).workOrderId ?? ''));
}

export async function releaseSiteAction(data: FormData): Promise<ActionAnswer> {
  const input = releaseSiteInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await releaseSite(deps(), await requireActor(), input.data));
}

export async function handOverAction(data: FormData): Promise<ActionAnswer> {
  return answer(await handOver(deps(), await requireActor(), texts(data).workOrderId ?? ''), () => ({
    message: 'Handed over. A supervisor verifies and closes it.',
  }));
}

export async function gradeAction(data: FormData): Promise<ActionAnswer> {
  const input = gradeInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await gradePlug(deps(), await requireActor(), input.data));
}

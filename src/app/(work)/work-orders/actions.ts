'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { addFollowUp, doneInput, finishFollowUp, followUpInput } from '@/server/findings/follow-up';
import { judgeFinding, verdictInput } from '@/server/findings/judge-finding';
import { planInput, planWorkOrder, unplanWorkOrder } from '@/server/planning/plan-work-order';
import {
  cancelWorkOrder,
  closeInput,
  closeWorkOrder,
  reasonInput,
  reopenWorkOrder,
} from '@/server/work-orders/close-work-order';
import { markStep, stepInput } from '@/server/work-orders/mark-step';
import { openWorkOrder } from '@/server/work-orders/open-work-order';
import { recordSite, siteInput } from '@/server/work-orders/record-site';
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

export async function stepAction(data: FormData): Promise<ActionAnswer> {
  const input = stepInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await markStep(deps(), await requireActor(), input.data));
}

/** The form names where to go when the site is done. */
export async function siteAction(data: FormData): Promise<ActionAnswer> {
  const text = texts(data);
  const done = text.intent === 'done';
  const input = siteInput.safeParse({
    ...text,
    cylinder: Number(text.cylinder),
    version: Number(text.version),
    // Nothing chosen means that nobody looked: a healthy plug has its own words.
    conditions: data.has('conditions') ? data.getAll('conditions') : null,
    breakawayFeel: text.breakawayFeel || null,
    torqueMethod: text.torqueMethod || null,
    done,
  });
  if (!input.success) return invalid(input.error);
  const saved = await recordSite(deps(), await requireActor(), input.data);
  return answer(saved, () =>
    done
      ? { to: text.next ?? `/work-orders/${input.data.workOrderId}` }
      : { message: 'Saved. This site is not done yet.' },
  );
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

'use server';

import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { deps } from '@/server/deps';
import { costsInput, setCosts } from '@/server/due/costs';
import { blockByFault, blockInput, deferDue, deferInput, takeBackDeferral } from '@/server/due/defer';
import { openWorkOrders } from '@/server/work-orders/open-work-order';
import type { ActionAnswer } from '@/ui/primitives/action-form';

const listed = (ids: string | undefined): string[] => (ids ?? '').split(',').filter(Boolean);

export async function openSelectedAction(data: FormData): Promise<ActionAnswer> {
  const outcome = await openWorkOrders(deps(), await requireActor(), listed(texts(data).ids));
  return answer(outcome, ({ opened, refused }) => ({
    message: [`${opened} opened.`, ...refused].join(' '),
  }));
}

export async function deferAction(data: FormData): Promise<ActionAnswer> {
  const { ids, ...rest } = texts(data);
  const input = deferInput.safeParse({ ...rest, vehicleIds: listed(ids) });
  if (!input.success) return invalid(input.error);
  return answer(await deferDue(deps(), await requireActor(), input.data), ({ deferred }) => ({
    message: `${deferred} deferred.`,
  }));
}

export async function blockAction(data: FormData): Promise<ActionAnswer> {
  const input = blockInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await blockByFault(deps(), await requireActor(), input.data), () => ({ message: 'Kept.' }));
}

export async function takeBackAction(data: FormData): Promise<ActionAnswer> {
  const { vehicleId = '' } = texts(data);
  return answer(await takeBackDeferral(deps(), await requireActor(), { vehicleId }), () => ({
    message: 'Taken back.',
  }));
}

export async function setCostsAction(data: FormData): Promise<ActionAnswer> {
  const { currency, failureCost, wearCostPerPercent, bayPercent, ...rest } = texts(data);
  const groups = Object.fromEntries(
    Object.entries(rest).flatMap(([name, value]) =>
      name.startsWith('group:') && value.trim() !== '' ? [[name.slice('group:'.length), value]] : [],
    ),
  );
  const input = costsInput.safeParse({ currency, failureCost, wearCostPerPercent, bayPercent, groups });
  if (!input.success) {
    const faults = invalid(input.error);
    // A group's field is named as it stands in the form.
    const fields = Object.fromEntries(
      Object.entries(faults.fields ?? {}).map(([key, value]) => [key.replace(/^groups\./, 'group:'), value]),
    );
    return { ...faults, fields };
  }
  return answer(await setCosts(deps(), await requireActor(), input.data), () => ({
    message: 'Kept; every vehicle is weighed anew.',
  }));
}

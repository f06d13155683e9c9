'use server';

import { z } from 'zod';
import { requireActor } from '@/app/actor';
import { answer, invalid, texts } from '@/app/answer';
import { keepResult, keptInput } from '@/server/bench/keep-result';
import { addWrench, calibrationInput, updateWrench, wrenchInput } from '@/server/bench/wrenches';
import { deps } from '@/server/deps';
import type { ActionAnswer } from '@/ui/primitives/action-form';

const typed = z.record(z.string(), z.string());

export async function keepResultAction(data: FormData): Promise<ActionAnswer> {
  const { input: json = '{}', ...rest } = texts(data);
  const input = keptInput.safeParse({ ...rest, input: typed.catch({}).parse(safeJson(json)) });
  if (!input.success) return invalid(input.error);
  return answer(await keepResult(deps(), await requireActor(), input.data), ({ workOrderId }) => ({
    message: workOrderId ? `Kept on work order ${input.data.workOrderNumber}.` : 'Kept.',
  }));
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return {};
  }
}

export async function addWrenchAction(data: FormData): Promise<ActionAnswer> {
  const input = wrenchInput.safeParse(texts(data));
  if (!input.success) return invalid(input.error);
  return answer(await addWrench(deps(), await requireActor(), input.data), () => ({ message: 'In the register.' }));
}

export async function updateWrenchAction(data: FormData): Promise<ActionAnswer> {
  const { wrenchId, calibratedOn, retire } = texts(data);
  const input = calibrationInput.safeParse({ wrenchId, ...(retire ? { retired: true } : { calibratedOn }) });
  if (!input.success) return invalid(input.error);
  return answer(await updateWrench(deps(), await requireActor(), input.data), () => ({ message: 'Saved.' }));
}

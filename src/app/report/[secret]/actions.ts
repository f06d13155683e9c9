'use server';

import { posting } from '@/app/form-action';
import { reportField, reportFrom } from '@/app/misfire-report';
import { deps } from '@/server/deps';
import { reportByAddress } from '@/server/misfire/driver-address';
import type { ActionAnswer } from '@/ui/primitives/action-form';

/** What a driver sends by the address, without an account. */
export async function reportByAddressAction(
  secret: string,
  before: ActionAnswer | null,
  data: FormData,
): Promise<ActionAnswer> {
  return posting((sent) => report(secret, sent))(before, data);
}

async function report(secret: string, data: FormData): Promise<ActionAnswer> {
  // Whoever sends it by hand may send anything.
  if (!(data instanceof FormData)) return { ok: false, message: 'This is no report.' };
  const done = await reportByAddress(deps(), secret, reportFrom(data));
  if (done.ok) {
    const { number, driving } = done.value;
    return { ok: true, to: `/report/${secret}?done=${number ?? 'kept'}&driving=${driving.driving}` };
  }
  const { message, fields } = done.error;
  return {
    ok: false,
    message,
    fields: fields && Object.fromEntries(Object.entries(fields).map(([name, text]) => [reportField(name), text])),
  };
}

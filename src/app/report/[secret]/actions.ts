'use server';

import { posting, refused } from '@/app/form-action';
import { texts } from '@/contracts/forms/form-input';
import { driverReportForm } from '@/contracts/forms/misfire';
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
  const done = await reportByAddress(deps(), secret, driverReportForm.read(texts(data), data));
  if (done.ok) {
    const { number, driving } = done.value;
    return { ok: true, to: `/report/${secret}?done=${number ?? 'kept'}&driving=${driving.driving}` };
  }
  return refused(done.error, driverReportForm.fieldName);
}

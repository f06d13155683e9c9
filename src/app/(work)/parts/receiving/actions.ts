'use server';

import { formAction } from '@/app/form-action';
import { deliveryForm } from '@/contracts/forms/parts';
import { banSeller, liftBan } from '@/server/stock/ban-seller';
import { receiveDelivery } from '@/server/stock/check-delivery';
import { quarantineBatch } from '@/server/stock/quarantine-batch';
import { resolveDelivery } from '@/server/stock/resolve-delivery';

export const receiveAction = formAction(receiveDelivery, {
  ...deliveryForm,
  onDone: ({ message }) => ({ message }),
});
export const resolveAction = formAction(resolveDelivery, { onDone: () => ({ message: 'Resolved.' }) });
export const quarantineAction = formAction(quarantineBatch, {
  onDone: ({ taken }) => ({ message: `${taken} taken off the shelf.` }),
});
export const banAction = formAction(banSeller, { onDone: () => ({ message: 'Banned.' }) });
export const liftAction = formAction(liftBan, { onDone: () => ({ message: 'The ban is lifted.' }) });

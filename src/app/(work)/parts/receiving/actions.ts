'use server';

import { formAction } from '@/app/form-action';
import { banSeller, liftBan } from '@/server/stock/ban-seller';
import { receiveDelivery } from '@/server/stock/check-delivery';
import { quarantineBatch } from '@/server/stock/quarantine-batch';
import { resolveDelivery } from '@/server/stock/resolve-delivery';

export const receiveAction = formAction(receiveDelivery, {
  read: (texts, data) => ({ ...texts, differsFromSample: data.getAll('differsFromSample') }),
  then: ({ message }) => ({ message }),
});
export const resolveAction = formAction(resolveDelivery, { then: () => ({ message: 'Resolved.' }) });
export const quarantineAction = formAction(quarantineBatch, {
  then: ({ taken }) => ({ message: `${taken} taken off the shelf.` }),
});
export const banAction = formAction(banSeller, { then: () => ({ message: 'Banned.' }) });
export const liftAction = formAction(liftBan, { then: () => ({ message: 'The ban is lifted.' }) });

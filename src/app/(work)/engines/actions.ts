'use server';

import { formAction } from '@/app/form-action';
import { fromJson } from '@/contracts/forms/form-input';
import { saveAccessItems } from '@/server/catalogue/access-items';
import { checkSheet } from '@/server/catalogue/check-sheet';
import { enterRow } from '@/server/catalogue/enter-row';

const NEXT: Readonly<Record<string, string>> = {
  'engine-families': '/engines',
  parts: '/parts',
  supersessions: '/parts',
};

/** A page of our own and no other: `back` comes from the form. */
const ownPage = (path: string | undefined): string | undefined =>
  path?.startsWith('/') && !/^\/[/\\]/.test(path) ? path : undefined;

/** Enters one row of the catalogue by hand; `back` says where to go on. */
export const enterRowAction = formAction(enterRow, {
  read: ({ kind = '', back: _, ...fields }) => ({ kind, fields }),
  onDone: ({ what }, { kind = '', back }) => ({
    message: `Saved: ${what}.`,
    to: ownPage(back) ?? NEXT[kind] ?? '/engines',
  }),
});

export const saveAccessItemsAction = formAction(saveAccessItems, {
  read: ({ familyId, version, rows = '[]' }) => ({ familyId, version, rows: fromJson(rows) }),
  onDone: (_, { familyId }) => ({ message: 'Saved.', to: `/engines/${familyId}/access` }),
});

export const checkSheetAction = formAction(checkSheet, {
  onDone: (_, { back }) => ({ message: 'Checked.', to: ownPage(back) }),
});

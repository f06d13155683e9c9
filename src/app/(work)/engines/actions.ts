'use server';

import { requireActor } from '@/app/actor';
import { answer, texts } from '@/app/answer';
import { checkSheet } from '@/server/catalogue/check-sheet';
import { enterRow } from '@/server/catalogue/enter-row';
import { deps } from '@/server/deps';
import type { ActionAnswer } from '@/ui/primitives/action-form';

const NEXT: Readonly<Record<string, string>> = {
  'engine-families': '/engines',
  parts: '/parts',
  supersessions: '/parts',
};

/** Enters one row of the catalogue by hand; `back` says where to go on. */
export async function enterRowAction(data: FormData): Promise<ActionAnswer> {
  const { kind = '', back, ...fields } = texts(data);
  const to = back?.startsWith('/') && !back.startsWith('//') ? back : (NEXT[kind] ?? '/engines');
  return answer(await enterRow(deps(), await requireActor(), kind, fields), ({ what }) => ({
    message: `Saved: ${what}.`,
    to,
  }));
}

export async function checkSheetAction(data: FormData): Promise<ActionAnswer> {
  const { sheetId = '', back } = texts(data);
  return answer(await checkSheet(deps(), await requireActor(), { sheetId }), () => ({ message: 'Checked.', to: back }));
}

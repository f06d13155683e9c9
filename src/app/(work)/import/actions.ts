'use server';

import { requireActor } from '@/app/actor';
import { formAction, posting } from '@/app/form-action';
import { texts } from '@/contracts/forms/form-input';
import { deps } from '@/server/deps';
import { adjustImport, confirmImport, discardImport, uploadFile } from '@/server/imports/import-file';
import { isKindName } from '@/server/imports/kinds';
import type { ActionAnswer } from '@/ui/primitives/action-form';

/** Takes one or several files; each that can be read is kept, each that cannot says why. */
export const uploadAction = posting(async (data): Promise<ActionAnswer> => {
  const actor = await requireActor();
  const files = data.getAll('files').filter((file): file is File => file instanceof File && file.name !== '');
  if (files.length === 0)
    return { ok: false, message: 'Choose one or more CSV files first.', fields: { files: 'No file chosen.' } };
  const kind = texts(data).kind ?? '';
  const kept: string[] = [];
  const refused: string[] = [];
  for (const file of files.slice(0, 20)) {
    const done = await uploadFile(deps(), actor, {
      fileName: file.name,
      bytes: new Uint8Array(await file.arrayBuffer()),
      kind: isKindName(kind) ? kind : undefined,
      background: true,
    });
    if (done.ok) kept.push(done.value.importId);
    else refused.push(done.error.message);
  }
  const [only] = kept;
  if (refused.length > 0) return { ok: kept.length > 0, message: refused.join(' '), fields: {} };
  return { ok: true, to: kept.length === 1 && only ? `/import/${only}` : '/import' };
});

export const adjustAction = formAction(adjustImport, {
  read: (text) => {
    const pick = (prefix: string) =>
      Object.fromEntries(
        Object.entries(text).flatMap(([key, value]) =>
          key.startsWith(prefix) && value !== '' ? [[key.slice(prefix.length), value]] : [],
        ),
      );
    const hasMapping = Object.keys(text).some((key) => key.startsWith('column.'));
    return {
      importId: text.importId,
      kind: text.kind,
      mapping: hasMapping ? pick('column.') : undefined,
      options: pick('option.'),
    };
  },
});
export const confirmAction = formAction(confirmImport, {
  // A large file is watched on its own page, which says how far it is.
  onDone: (_, { background }) => (background === 'yes' ? {} : { to: '/import' }),
});
export const discardAction = formAction(discardImport, {
  read: ({ importId }) => importId,
  onDone: () => ({ to: '/import' }),
});

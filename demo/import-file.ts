import type { Actor } from '../src/server/access';
import type { Deps } from '../src/server/deps';
import { confirmImport, uploadFile } from '../src/server/imports/import-file';
import type { ImportKindName } from '../src/server/imports/kind';
import { must } from './must';

/** Imports a file as a person would; every row of it goes in, or the demo is not loaded. */
export async function importFile(
  deps: Deps,
  actor: Actor,
  file: { readonly fileName: string; readonly kind?: ImportKindName; readonly bytes: Uint8Array },
): Promise<void> {
  const { importId } = must(file.fileName, await uploadFile(deps, actor, file));
  const { counts } = must(file.fileName, await confirmImport(deps, actor, { importId }));
  if (counts.refuse > 0) throw new Error(`demo: ${file.fileName}: ${counts.refuse} rows refused`);
}

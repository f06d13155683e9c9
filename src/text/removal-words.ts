import type { RemovalReason } from '@/core/components/history';

/** Why a part came out, as a person chooses it. */
export const REMOVAL_WORDS: Readonly<Record<RemovalReason, string>> = {
  planned: 'planned: it was due',
  with_other_work: 'with other work, while it was open',
  failed: 'it failed in service',
  found_damaged: 'found damaged',
  damaged_by_work: 'damaged by the work',
  wrong_part: 'it was the wrong part',
  recalled_lot: 'its lot was recalled',
  swap: 'swapped with another cylinder',
  unknown: 'not known',
};

export const removalChoices = (reasons: readonly RemovalReason[]) =>
  reasons.map((value) => ({ value, label: REMOVAL_WORDS[value] }));

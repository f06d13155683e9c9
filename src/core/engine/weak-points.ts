/** What goes wrong with an engine family that is known for it: what the procedure goes by. */
export const WEAK_POINT_KINDS = ['seizing', 'intake', 'brittle', 'other'] as const;
type WeakPointKind = (typeof WEAK_POINT_KINDS)[number];

export interface WeakPoint {
  /** Plugs that seize, a part of the intake, a boot or tab that breaks, or something else. */
  readonly kind: WeakPointKind;
  /** In words, as shown. */
  readonly says: string;
}

const WORDS: readonly (readonly [WeakPointKind, RegExp])[] = [
  ['seizing', /seiz/i],
  ['intake', /intake|duct|manifold/i],
  ['brittle', /brittle/i],
];

/**
 * A weak point as a person writes it: "seizing: long shields", or its words alone, which then tell the kind. Read once, where
 * it comes in; after that the kind is a fact.
 */
export function weakPointFromText(text: string): WeakPoint {
  const at = text.indexOf(':');
  const named = WEAK_POINT_KINDS.find((kind) => at > 0 && text.slice(0, at).trim().toLowerCase() === kind);
  if (named) return { kind: named, says: text.slice(at + 1).trim() };
  return { kind: WORDS.find(([, word]) => word.test(text))?.[0] ?? 'other', says: text };
}

/** The text that `weakPointFromText` reads back. */
export const weakPointText = ({ kind, says }: WeakPoint): string => `${kind}: ${says}`;

/* What an entry can be about: one site, step or count of an order, or the order itself. */

export const siteTarget = (id: string): string => `site ${id}`;
export const stepTarget = (key: string): string => `step ${key}`;
export const countTarget = (key: string): string => `count ${key}`;
export const ORDER_TARGET = 'order';

const TARGET_KINDS = ['site', 'step', 'count', ORDER_TARGET] as const;
type TargetKind = (typeof TARGET_KINDS)[number];

/** The kind of a target, null for one that no order has, and which one it is. */
export function readTarget(target: string): { readonly kind: TargetKind | null; readonly key: string } {
  const [name = '', ...rest] = target.split(' ');
  return { kind: TARGET_KINDS.find((kind) => kind === name) ?? null, key: rest.join(' ') };
}

/** The answer to an ask, as a field of its step. */
export const answerField = (ask: string): string => `answer.${ask}`;

/** Cylinders that an engine rests at part load. */
export interface Resting {
  /** Null: in every variant of the family. */
  readonly variant: string | null;
  readonly cylinders: readonly number[];
}

type Read = { readonly ok: true; readonly value: readonly Resting[] } | { readonly ok: false; readonly error: string };

/**
 * Reads "1 4 6 7", which holds for every variant, or "with deactivation: 1 3 5", entries separated by a vertical bar.
 *
 * @param family the variants that may be named and the cylinders that there are
 * @returns the entries, or in words what is wrong with the first that cannot be
 */
export function restingFromText(
  text: string,
  family: { readonly variants: readonly string[]; readonly cylinders: readonly number[] },
): Read {
  const entries = text
    .split('|')
    .map((part) => part.trim())
    .filter(Boolean);
  const value: Resting[] = [];
  for (const entry of entries) {
    const cut = entry.lastIndexOf(':');
    const variant = cut < 0 ? null : entry.slice(0, cut).trim();
    const words = entry
      .slice(cut + 1)
      .split(/[\s,]+/)
      .filter(Boolean);
    const cylinders = words.map(Number);
    if (words.length === 0 || words.some((word) => !/^\d{1,2}$/.test(word)))
      return wrong(`“${entry}” cannot be read. Write 1 4 6 7, or “variant: 1 3 5”`);
    if (variant !== null && !family.variants.includes(variant))
      return wrong(`“${variant}” is none of the variants (${family.variants.join(', ') || 'there are none'})`);
    const stranger = cylinders.find((cylinder) => !family.cylinders.includes(cylinder));
    if (stranger !== undefined) return wrong(`cylinder ${stranger} is none of this engine`);
    if (new Set(cylinders).size >= family.cylinders.length)
      return wrong('an engine never rests all its cylinders: name those that do');
    if (value.some((entry) => entry.variant === variant))
      return wrong(`“${variant ?? 'every variant'}” stands there twice`);
    value.push({ variant, cylinders: [...new Set(cylinders)].sort((a, b) => a - b) });
  }
  return { ok: true, value };
}

const wrong = (error: string): Read => ({ ok: false, error });

/** The text that `restingFromText` reads back. */
export const restingText = (list: readonly Resting[]): string =>
  list.map(({ variant, cylinders }) => (variant === null ? '' : `${variant}: `) + cylinders.join(' ')).join(' | ');

/** The cylinders that rest in one vehicle. Where nobody has said its variant, only what holds for every variant counts. */
export const restingCylinders = (list: readonly Resting[], variant: string | null): readonly number[] =>
  list.find((entry) => entry.variant !== null && entry.variant === variant)?.cylinders ??
  list.find((entry) => entry.variant === null)?.cylinders ??
  [];

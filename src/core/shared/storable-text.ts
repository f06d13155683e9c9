/** A high surrogate without its low one, or the other way round. */
const HALF_PAIR = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

/** Whether a database, a file and another program can all take this text: no NUL, no half of a surrogate pair. */
export const isStorableText = (text: string): boolean => !text.includes('\0') && !HALF_PAIR.test(text);

/**
 * Where in a value of plain data stands text that cannot be stored, keys included.
 *
 * @param value strings, numbers, lists and plain objects; anything else (a stream, bytes, a date) is passed over
 * @returns the path of the first such text; null where all can be stored
 */
export function unstorablePath(value: unknown): readonly string[] | null {
  if (typeof value === 'string') return isStorableText(value) ? null : [];
  if (typeof value !== 'object' || value === null) return null;
  if (!Array.isArray(value) && Object.getPrototypeOf(value) !== Object.prototype) return null;
  for (const [key, inner] of Object.entries(value)) {
    if (!isStorableText(key)) return [];
    const path = unstorablePath(inner);
    if (path) return [key, ...path];
  }
  return null;
}

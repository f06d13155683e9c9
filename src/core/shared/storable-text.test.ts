import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isStorableText, unstorablePath } from './storable-text';

describe('isStorableText', () => {
  it.each(['', 'a', 'µm', '🙂', 'line\nnext\ttab'])('takes %j', (text) => expect(isStorableText(text)).toBe(true));
  it.each(['\0', 'a\0b', '\ud83d', '\ude42', 'x\ud83dy', '\ude42\ud83d'])('refuses %j', (text) =>
    expect(isStorableText(text)).toBe(false),
  );

  it('agrees with what survives UTF-8', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const survives = new TextDecoder().decode(new TextEncoder().encode(text)) === text && !text.includes('\0');
        // A byte order mark at the head is dropped by the decoder, not by the store.
        if (!text.startsWith('\ufeff')) expect(isStorableText(text)).toBe(survives);
      }),
    );
  });
});

describe('unstorablePath', () => {
  it('names the place, in lists, objects and keys', () => {
    expect(unstorablePath({ a: [{ b: 'ok' }, { b: '\0' }] })).toEqual(['a', '1', 'b']);
    expect(unstorablePath({ 'k\0': 1 })).toEqual([]);
    expect(unstorablePath({ a: 1, b: null, c: [true], d: new Date() })).toBeNull();
  });
});

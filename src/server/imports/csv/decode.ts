import { err, ok, type Result } from '@/core/shared/result';

const MAX_BYTES = 32 * 1024 * 1024;

/** Byte order marks of UTF-16. */
const MARKS = [
  [[0xff, 0xfe], 'utf-16le'],
  [[0xfe, 0xff], 'utf-16be'],
] as const;

/**
 * Text of an uploaded file: UTF-8 or UTF-16 by its byte order mark, else UTF-8, else Windows-1252 as older spreadsheets
 * write it. @returns why the bytes are no text
 */
export function decodeText(bytes: Uint8Array): Result<string, string> {
  if (bytes.length === 0) return err('The file is empty.');
  if (bytes.length > MAX_BYTES)
    return err(
      `The file has ${Math.ceil(bytes.length / 1048576)} MB; at most ${MAX_BYTES / 1048576} MB can be read at once. Split it.`,
    );
  if (bytes[0] === 0x50 && bytes[1] === 0x4b)
    return err('This is a workbook or ZIP file, not text. Save the sheet as CSV and upload that.');
  const [, utf16 = null] = MARKS.find(([mark]) => mark.every((byte, i) => bytes[i] === byte)) ?? [];
  const text = utf16 ? new TextDecoder(utf16).decode(bytes) : decodeBytes(bytes);
  // biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what tells binary from text
  if (/[\u0000-\u0008\u000e-\u001f\ufffe\uffff]/.test(text))
    return err('The file holds binary data, not text. Save the sheet as CSV (UTF-8) and upload that.');
  return text.trim() === '' ? err('The file holds only blank lines.') : ok(text);
}

function decodeBytes(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Files as they go wrong in life: none of them may be applied, and none may fail without words. */
interface Malformed {
  readonly name: string;
  readonly bytes: Uint8Array;
}

const utf8 = (text: string): Uint8Array => new TextEncoder().encode(text);

/** @param header of a good file @param row a good row, cell by cell */
export function malformedFiles(header: readonly string[], row: readonly string[]): readonly Malformed[] {
  const file = (...rows: readonly (readonly string[])[]): string =>
    [header, ...rows].map((cells) => cells.join(',')).join('\n');
  const withCell = (index: number, cell: string): Uint8Array => utf8(file(row.map((c, i) => (i === index ? cell : c))));
  const good = file(row);
  const whole: readonly (readonly [string, Uint8Array])[] = [
    ['empty', new Uint8Array()],
    ['one space', utf8(' ')],
    ['only line ends', utf8('\n\r\n\n')],
    ['only a byte order mark', new Uint8Array([0xef, 0xbb, 0xbf])],
    ['zeros', new Uint8Array(2048)],
    ['random bytes', Uint8Array.from({ length: 4096 }, (_, i) => (i * 7919 + 13) % 256)],
    ['a ZIP', new Uint8Array([0x50, 0x4b, 3, 4, 20, 0, 0, 0])],
    ['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13])],
    ['UTF-16 without mark', new Uint8Array(Buffer.from(good, 'utf16le'))],
    ['header only', utf8(header.join(','))],
    ['header and blank rows', utf8(`${header.join(',')}\n,,,\n\n,,`)],
    ['no header', utf8(row.join(','))],
    ['other columns', utf8('colour,size\nred,9')],
    ['100,000 columns', utf8(`${Array.from({ length: 100_000 }, (_, i) => `c${i}`).join(',')}\n1`)],
    ['100,000 separators', utf8(`${header.join(',')}\n${','.repeat(100_000)}x`)],
    ['truncated in a quote', utf8(`${header.join(',')}\n"${row[0]}`)],
    ['a stray quote', utf8(`${header.join(',')}\n${row[0]}"x,${row.slice(1).join(',')}`)],
    ['text after a quote', utf8(`${header.join(',')}\n"${row[0]}"x,${row.slice(1).join(',')}`)],
    ['a huge cell', utf8(`${header.join(',')}\n"${'x'.repeat(250_000)}"`)],
    ['half a row', utf8(`${header.join(',')}\n${row[0]}`)],
    ['JSON', utf8('{"vehicles":[{"unit":1}]}')],
    ['a web page', utf8('<!doctype html><html><body><table><tr><td>1</td></tr></table></body></html>')],
    ['wrong separator inside quotes', utf8(`"${header.join(',')}"\n"${row.join(',')}"`)],
    ['duplicate headers', utf8(`${header.map(() => header[0]).join(',')}\n${row.join(',')}`)],
    ['header in capitals of another language', utf8('НОМЕР;ДАТА\n1;2')],
    ['an empty first line of separators', utf8(`,,,,\n${good}`)],
  ];
  const cells = [
    "=cmd|' /C calc'!A0",
    '@SUM(A1)',
    '+1+1',
    '-cmd',
    '\t=1',
    '99999999999999999999',
    '-1',
    '1e309',
    'NaN',
    '2026-02-30',
    '31/31/2031',
    '',
    '💥'.repeat(80),
    "'; drop table vehicles; --",
    '<script>alert(1)</script>',
    '\u202eevil',
    'null',
    '0x1F',
  ];
  return [
    ...whole.map(([name, bytes]) => ({ name, bytes })),
    ...cells.map((cell) => ({
      name: `every cell is ${JSON.stringify(cell).slice(0, 40)}`,
      bytes: utf8(file(row.map(() => cell))),
    })),
    ...header.slice(0, 3).map((name, i) => ({ name: `formula in ${name}`, bytes: withCell(i, '=HYPERLINK(1)') })),
  ];
}

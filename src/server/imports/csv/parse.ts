import { CsvError, parse } from 'csv-parse/sync';
import { err, ok, type Result } from '@/core/shared/result';

export interface CsvRow {
  /** Line of the file on which the row ends, from 1. */
  readonly line: number;
  readonly cells: readonly string[];
}

export interface CsvTable {
  readonly header: readonly string[];
  readonly rows: readonly CsvRow[];
  readonly delimiter: string;
}

const MAX_COLUMNS = 200;
const MAX_ROWS = 1_000_000;
const DELIMITERS = [',', ';', '\t', '|'] as const;

/** Rows with more or fewer cells than the header before a file is taken for another one. */
const MAX_OTHER_WIDTH = 1000;

/** So many rows are not as wide as the header that this is no table. */
class OtherWidths extends Error {
  constructor(readonly line: number) {
    super('rows of other widths');
  }
}

/**
 * The same text with rows of nothing but separators left empty, as spreadsheets write them below their data: each of them would
 * take the parser as long as a hundred rows. Within quotes nothing is touched, and lines keep their numbers.
 */
function withoutBlankRows(text: string, delimiter: string): string {
  const isBlank = (line: string): boolean => {
    for (const mark of line) if (mark !== delimiter && mark !== ' ' && mark !== '\t' && mark !== '\r') return false;
    return true;
  };
  let isQuoted = false;
  const lines = text.split('\n');
  for (const [i, line] of lines.entries()) {
    // A first line without names is told as that.
    if (i > 0 && !isQuoted && isBlank(line)) lines[i] = '';
    else if (line.includes('"')) isQuoted = isQuoted !== (line.split('"').length % 2 === 0);
  }
  return lines.join('\n');
}

/** So much of a text is read to find its header line, characters. */
const HEADER_WITHIN = 256 * 1024;

/** The names of the columns alone, from the head of a text however long it is. @returns why there are none */
export function parseHeader(text: string): Result<readonly string[], string> {
  const head = text.slice(0, HEADER_WITHIN);
  const whole = head.length === text.length ? head : head.slice(0, head.lastIndexOf('\n'));
  const table = parseCsv(whole);
  return table.ok ? ok(table.value.header) : table;
}

/** Rows of a CSV text with any usual separator. @returns why it cannot be read, with the line */
export function parseCsv(text: string): Result<CsvTable, string> {
  const plain = text.replace(/^\ufeff/, '');
  const firstLine = plain.slice(0, plain.search(/\r|\n|$/));
  const delimiter = likelyDelimiter(firstLine);
  if (firstLine.split(delimiter).length > MAX_COLUMNS)
    return err(`Line 1 has more than ${MAX_COLUMNS} columns. Is it the right file?`);
  let other = 0;
  try {
    const records: unknown = parse(withoutBlankRows(plain, delimiter), {
      delimiter,
      info: true,
      relax_column_count: true,
      skip_empty_lines: true,
      trim: true,
      to: MAX_ROWS + 2,
      max_record_size: 200_000,
      on_record: (record, { error, lines }) => {
        other += Number(error !== undefined);
        if (other > MAX_OTHER_WIDTH) throw new OtherWidths(lines);
        return record;
      },
    });
    // With `info` each record comes with the line it ends on.
    return toTable(records as readonly { record: string[]; info: { lines: number } }[], delimiter);
  } catch (error) {
    if (error instanceof CsvError) return err(inWords(error));
    if (error instanceof OtherWidths)
      return err(
        `Line ${error.line}: over ${MAX_OTHER_WIDTH} rows have another number of cells than the header line. Is this the right file, and “${delimiter === '\t' ? 'tab' : delimiter}” its separator?`,
      );
    throw error;
  }
}

function toTable(
  records: readonly { record: string[]; info: { lines: number } }[],
  delimiter: string,
): Result<CsvTable, string> {
  const [first, ...rest] = records;
  if (!first || first.record.every((cell) => cell === ''))
    return err('The file has no header line. The first line names the columns; see the template.');
  if (rest.length > MAX_ROWS) return err(`The file has over ${MAX_ROWS.toLocaleString('en')} rows. Split it.`);
  const rows = rest
    .filter(({ record }) => record.some((cell) => cell !== ''))
    .map(({ record, info }) => ({ line: info.lines, cells: record }));
  return rows.length === 0
    ? err('The file has a header line but no rows.')
    : ok({ header: first.record, rows, delimiter });
}

function likelyDelimiter(line: string): string {
  const unquoted = line.replace(/"[^"]*"/g, '');
  const counts = DELIMITERS.map((mark) => unquoted.split(mark).length);
  return DELIMITERS[counts.indexOf(Math.max(...counts))] ?? ',';
}

function inWords(error: CsvError): string {
  const line = 'lines' in error ? Number(error.lines) : 0;
  const where = line > 0 ? `Line ${line}: ` : '';
  switch (error.code) {
    case 'CSV_QUOTE_NOT_CLOSED':
      return `${where}a quote (") is opened and never closed. The file may be cut short.`;
    case 'INVALID_OPENING_QUOTE':
    case 'CSV_INVALID_CLOSING_QUOTE':
      return `${where}a quote (") stands in the middle of a cell. Double it ("") or remove it.`;
    case 'CSV_MAX_RECORD_SIZE':
      return `${where}a row is longer than 200,000 characters. A quote may be missing.`;
    default:
      return `${where}this is not CSV we can read (${error.code}).`;
  }
}

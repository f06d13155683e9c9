import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { ok } from '@/core/shared/result';
import { toCsv } from '../exports/csv';
import { notFound, type Outcome } from '../failure';
import { isKindName, kindOf } from './kinds';

/** An empty file of a kind: its header and an example row, or several where they tell more. */
export function templateOf(name: string): Outcome<string> {
  if (!isKindName(name)) return notFound('file');
  const { columns, moreExamples = [] } = kindOf(name);
  return ok(
    toCsv(
      columns.map((column) => column.key),
      [columns.map((column) => column.example), ...moreExamples.map((row) => columns.map(({ key }) => row[key] ?? ''))],
    ),
  );
}

/** The ready sample of a kind, invented data. */
export async function sampleOf(name: string): Promise<Outcome<string>> {
  if (!isKindName(name)) return notFound('file');
  return ok(await readFile(path.join(process.cwd(), 'samples', `${name}.csv`), 'utf8'));
}

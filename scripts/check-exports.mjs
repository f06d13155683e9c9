import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { parseSync } from '@swc/core';

/* Nothing is exported that no other file reads. What the framework and the tools read by name is theirs to read. */

const READ_BY_NAME = [
  /^src\/app\/.*(page|layout|route|loading|error|global-error|not-found|template)\.tsx?$/,
  /^src\/app\/(icon|manifest|robots)/,
  /^src\/(instrumentation|proxy)\.ts$/,
  /^src\/db\/schema\//,
  /^(next|vitest|playwright|drizzle)\.config\.ts$/,
  /\.d\.ts$/,
];

const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '*.ts', '*.tsx'], { encoding: 'utf8' })
  .split('\n')
  .filter((file) => file && existsSync(file));

/** The file that a specifier means, among our own. */
function resolve(from, specifier) {
  const base = specifier.startsWith('@/') ? join('src', specifier.slice(2)) : join(dirname(from), specifier);
  if (!specifier.startsWith('@/') && !specifier.startsWith('.')) return null;
  const found = ['', '.ts', '.tsx', '/index.ts'].map((end) => normalize(base + end));
  return found.find((file) => files.includes(file)) ?? null;
}

/** By file: the names it exports, and those it reads of others. `*` stands for all. */
function read(file) {
  const { body } = parseSync(readFileSync(file, 'utf8'), { syntax: 'typescript', tsx: file.endsWith('.tsx') });
  const exported = [];
  const reads = [];
  const of = (specifier, name) => reads.push({ file: resolve(file, specifier), name });
  for (const item of body) {
    if (item.type === 'ImportDeclaration')
      for (const one of item.specifiers)
        of(item.source.value, one.type === 'ImportSpecifier' ? (one.imported ?? one.local).value : '*');
    else if (item.type === 'ExportAllDeclaration') of(item.source.value, '*');
    else if (item.type === 'ExportNamedDeclaration')
      for (const one of item.specifiers) {
        exported.push((one.exported ?? one.orig).value);
        if (item.source) of(item.source.value, one.orig?.value ?? '*');
      }
    else if (item.type === 'ExportDeclaration') exported.push(...namesOf(item.declaration));
  }
  return { exported, reads };
}

const namesOf = (declaration) =>
  declaration.type === 'VariableDeclaration'
    ? declaration.declarations.flatMap(({ id }) => (id.type === 'Identifier' ? [id.value] : []))
    : [(declaration.identifier ?? declaration.id).value];

const all = new Map(files.map((file) => [file, read(file)]));
const used = new Map(files.map((file) => [file, new Set()]));
for (const { reads } of all.values()) for (const { file, name } of reads) if (file) used.get(file).add(name);
// What is only loaded when it is wanted is read as a whole.
for (const file of files)
  for (const [, specifier] of readFileSync(file, 'utf8').matchAll(/\bimport\((?:\s*\/\*.*?\*\/)?\s*'([^']+)'/g)) {
    const target = resolve(file, specifier);
    if (target) used.get(target).add('*');
  }

const unread = [...all].flatMap(([file, { exported }]) => {
  const names = used.get(file);
  if (names.has('*') || READ_BY_NAME.some((pattern) => pattern.test(file))) return [];
  return exported.filter((name) => !names.has(name)).map((name) => `${file}: ${name}`);
});
if (files.length < 100) throw new Error(`only ${files.length} files were read`);
for (const line of unread) process.stderr.write(`exported and read by nobody: ${line}\n`);
process.stdout.write(`exports: ${files.length} files, ${unread.length} read by nobody\n`);
process.exit(unread.length > 0 ? 1 : 0);

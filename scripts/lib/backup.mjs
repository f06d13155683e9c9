import { spawnSync } from 'node:child_process';
import { existsSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { isHeld } from './app.mjs';
import { startCluster } from './cluster.mjs';
import { giveUp, say } from './say.mjs';
import { postgresBin } from './setup.mjs';

/** Runs a PostgreSQL program with its errors shown; its output, or the end of this program. */
function tool(program, args, what) {
  const { status, stdout, error } = spawnSync(path.join(postgresBin() ?? '', program), args, {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
    maxBuffer: 64 * 1024 * 1024,
  });
  if (status !== 0) giveUp(`${what} failed${error ? `: ${error.message}` : ''}. The lines above say why.`);
  return stdout;
}

const rowsOf = (url) =>
  tool(
    'psql',
    [
      '-XtAc',
      `select table_name || ' ' || (xpath('/row/n/text()', query_to_xml(format('select count(*) as n from %I', table_name), false, true, '')))[1]
       from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
      url,
    ],
    'counting the rows',
  );

/** The address of the database, and how to leave it as it was found. */
export async function reach(dataDir) {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, leave: () => undefined };
  const held = isHeld(dataDir);
  const cluster = await startCluster(dataDir);
  return { url: cluster.url, leave: held ? () => undefined : cluster.stop };
}

/** Writes the whole database into a file, and reads the file's own list to see that it is whole. */
export async function writeBackup(dataDir, file) {
  if (!file) giveUp('Name the file: npm run backup -- isobar.dump');
  if (!process.env.DATABASE_URL && !existsSync(dataDir)) giveUp(`There is no data folder ${dataDir}.`);
  const { url, leave } = await reach(dataDir);
  const unfinished = `${file}.unfinished`;
  tool('pg_dump', ['--format=custom', '--no-owner', `--file=${unfinished}`, url], 'the backup');
  tool('pg_restore', ['--list', unfinished], 'reading the backup again');
  renameSync(unfinished, file);
  leave();
  say(`backed up to ${file}, ${(statSync(file).size / 1e6).toFixed(1)} MB`);
}

/** Puts a backup into the data folder, and counts its rows. What stood there is kept under another name. */
export async function restoreBackup(dataDir, file) {
  if (!file || !existsSync(file)) giveUp(`There is no file ${file ?? ''}. Name it: npm run restore -- isobar.dump`);
  tool('pg_restore', ['--list', file], 'reading the backup');
  if (isHeld(dataDir)) giveUp('Isobar runs from this folder. Stop it first.');
  const cluster = process.env.DATABASE_URL ? null : await startCluster(dataDir);
  const url = process.env.DATABASE_URL || cluster.url;
  const name = new URL(url).pathname.slice(1);
  const admin = Object.assign(new URL(url), { pathname: '/postgres' }).href;
  const kept = `${name}_before_${new Date()
    .toISOString()
    .slice(0, 19)
    .replace(/[^0-9]/g, '')}`;
  const fresh = `${name}_restored`;
  const sql = (text) => tool('psql', ['-XqtAc', text, admin], 'the restore');
  sql(`drop database if exists "${fresh}"`);
  sql(`create database "${fresh}"`);
  const freshUrl = Object.assign(new URL(url), { pathname: `/${fresh}` }).href;
  tool('pg_restore', ['--no-owner', '--exit-on-error', `--dbname=${freshUrl}`, file], 'the restore');
  const rows = rowsOf(freshUrl);
  // Only a backup that came in whole takes the place of what is there.
  sql(`alter database "${name}" rename to "${kept}"`);
  sql(`alter database "${fresh}" rename to "${name}"`);
  cluster?.stop();
  const total = rows.split('\n').reduce((sum, line) => sum + Number(line.split(' ')[1] ?? 0), 0);
  say(`restored ${total.toLocaleString('en')} rows from ${file}. What stood there is kept as database ${kept}.`);
  rmSync(`${file}.unfinished`, { force: true });
}

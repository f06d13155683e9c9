import { spawn, spawnSync } from 'node:child_process';
import os from 'node:os';
import { giveUp } from './say.mjs';

/** Runs a program to its end with its output shown; gives up when it fails. */
export function run(program, args, { env, cwd, what } = {}) {
  const { status, error } = spawnSync(program, args, {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
    cwd,
  });
  if (error) giveUp(`${program} could not be started: ${error.message}`);
  if (status !== 0)
    giveUp(`${what ?? `${program} ${args.join(' ')}`} failed (exit ${status}). The lines above say why.`);
}

/**
 * Runs programs side by side, as many at once as there are processors. A single one shows its output as it comes; of several
 * each shows its output when it ends, whole.
 *
 * @param {readonly {program: string, args: readonly string[], env?: object}[]} programs
 * @returns whether all of them ended well; the rest is not begun after one that did not
 */
export async function together(programs) {
  const waiting = [...programs];
  let ok = true;
  const next = async () => {
    for (let given = waiting.shift(); given && ok; given = waiting.shift())
      if (!(await ranWell(given, programs.length === 1))) ok = false;
  };
  await Promise.all(Array.from({ length: os.availableParallelism() }, next));
  return ok;
}

function ranWell({ program, args, env }, live) {
  const stdio = live ? ['ignore', 'inherit', 'inherit'] : ['ignore', 'pipe', 'pipe'];
  const child = spawn(program, args, { stdio, env: { ...process.env, ...env } });
  const said = [];
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk) => said.push(chunk));
  return new Promise((resolve) => {
    child.once('error', ({ message }) => {
      process.stderr.write(`isobar: ${program} could not be started: ${message}\n`);
      resolve(false);
    });
    child.once('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      resolve(status === 0);
    });
  });
}

/** The output of a program, or null when it fails. */
export function output(program, args, options = {}) {
  const { status, stdout } = spawnSync(program, args, { encoding: 'utf8', ...options });
  return status === 0 ? stdout.trim() : null;
}

/** Node on a package's own file, not through npm or npx, so that signals reach it. */
export const nodeArgs = {
  next: 'node_modules/next/dist/bin/next',
  tsx: 'node_modules/tsx/dist/cli.mjs',
};

/** The bundled worker that does background work: Node runs the file by itself. */
export const JOB_WORKER = 'generated/worker.mjs';

/** Debian's Chromium without windows: starts faster, and draws pages with a third less of the processor. */
export const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell';

export const start = (args, env) =>
  spawn(process.execPath, args, { stdio: 'inherit', env: { ...process.env, ...env } });

import { spawn, spawnSync } from 'node:child_process';
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

export const start = (args, env) =>
  spawn(process.execPath, args, { stdio: 'inherit', env: { ...process.env, ...env } });

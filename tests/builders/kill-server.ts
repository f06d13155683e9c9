import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';

const told = (command: string, ...args: string[]): string[] =>
  spawnSync(command, args, { encoding: 'utf8' }).stdout.split('\n').filter(Boolean);

/**
 * Kills the head of a database server, as a power cut would.
 * @param cluster the server's folder, as `startCluster` names it
 * @returns how many of its processes are still there: each ends once it sees that the head is gone, and before the last has,
 *   no server starts in that folder
 */
export function killServer(cluster: string): () => number {
  const head = Number(readFileSync(path.join(cluster, 'data', 'postmaster.pid'), 'utf8').split('\n')[0]);
  const others = told('pgrep', '-P', String(head)).join(',');
  process.kill(head, 'SIGKILL');
  const living = () => told('ps', '-o', 'stat=', '-p', others).filter((state) => !state.startsWith('Z')).length;
  // PostgreSQL takes a head that has ended and was not yet collected for one that lives.
  return () => living() + Number(existsSync(`/proc/${head}`));
}

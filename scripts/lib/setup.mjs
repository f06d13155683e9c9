import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { CHROMIUM, JOB_WORKER, output, run } from './command.mjs';
import { giveUp, say } from './say.mjs';

const isRoot = () => process.getuid?.() === 0;

/** Where Debian keeps the PostgreSQL server programs, newest first; null when there are none. */
export function postgresBin() {
  const root = '/usr/lib/postgresql';
  if (!existsSync(root)) return null;
  const versions = readdirSync(root).filter((v) => existsSync(path.join(root, v, 'bin/initdb')));
  const [newest] = versions.sort((a, b) => Number(b) - Number(a));
  return newest ? path.join(root, newest, 'bin') : null;
}

const DEBIAN = {
  postgresql: () => postgresBin() !== null,
  'chromium-headless-shell': () => existsSync(CHROMIUM),
};

/** Installs what is missing of Debian's packages: as root, else through sudo, else it names the command to run. */
export function ensureDebian(...names) {
  const missing = names.filter((name) => !DEBIAN[name]());
  if (missing.length === 0) return;
  const install = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  const asRoot = isRoot() ? [] : ['sudo', '-n'];
  if (output('apt-get', ['--version']) === null)
    giveUp(
      `needs ${missing.join(' and ')}, and this machine has no apt-get. Install ${missing.length > 1 ? 'them' : 'it'}, then try again.`,
    );
  if (!isRoot() && output('sudo', ['-n', 'true']) === null)
    giveUp(
      `needs Debian's ${missing.join(' and ')}. Run this, then try again:\n\n  sudo apt-get update && sudo ${install}\n`,
    );
  say(`installing Debian's ${missing.join(' and ')}…`);
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (args) => {
    const [program, ...rest] = [...asRoot, 'apt-get', ...args];
    run(program, rest, { env, what: `apt-get ${args[0]}` });
  };
  apt(['update', '-qq']);
  apt(['install', '-y', '-qq', '--no-install-recommends', ...missing]);
}

/** Installs node packages when the lock file changed since the last time. */
export function ensurePackages() {
  const lock = digestOf(['package-lock.json', 'package.json']);
  const stamp = 'node_modules/.isobar-lock';
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('installing node packages…');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { what: 'npm ci' });
  writeFileSync(stamp, lock);
}

/** Builds the app when its sources changed since the last build. */
export function ensureBuild() {
  const sources = digestOf(
    [
      'src',
      'package-lock.json',
      'next.config.ts',
      'tsconfig.json',
      'scripts/worker.ts',
      'scripts/lib/build-workers.mjs',
    ].filter((name) => existsSync(name)),
  );
  const stamp = '.next/isobar-sources';
  if (
    existsSync(stamp) &&
    existsSync('.next/BUILD_ID') &&
    existsSync('public/sw.js') &&
    existsSync('generated/planner-thread.mjs') &&
    existsSync(JOB_WORKER) &&
    readFileSync(stamp, 'utf8') === sources
  )
    return;
  say('building the app…');
  run(process.execPath, ['scripts/build.mjs'], { what: 'the build' });
  mkdirSync('.next', { recursive: true });
  writeFileSync(stamp, sources);
}

function digestOf(names) {
  const hash = createHash('sha256');
  const visit = (name) => {
    if (statSync(name).isDirectory()) for (const child of readdirSync(name).sort()) visit(path.join(name, child));
    else hash.update(name).update(readFileSync(name));
  };
  names.forEach(visit);
  return hash.digest('hex');
}

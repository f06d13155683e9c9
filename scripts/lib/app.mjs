import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { portIsTaken, startCluster } from './cluster.mjs';
import { JOB_WORKER, nodeArgs, run, start } from './command.mjs';
import { giveUp, say } from './say.mjs';
import { ensureBuild, ensureDebian, ensurePackages } from './setup.mjs';
import { keepRunning, watchCluster } from './supervise.mjs';

/**
 * Installs, builds and runs Isobar until it is told to stop.
 * @param mode 'demo' loads the scenario and fixes its day; 'own' serves a customer's workspace; 'dev' reloads on change
 */
export async function serve(mode) {
  const dataDir = process.env.ISOBAR_DATA_DIR ?? '.isobar';
  const port = Number(process.env.PORT ?? 3000);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    giveUp(`PORT is “${process.env.PORT}”: give a number from 1 to 65535.`);
  mkdirSync(dataDir, { recursive: true });
  const unlock = lock(dataDir);
  if (await portIsTaken(port)) {
    unlock();
    giveUp(
      `port ${port} is in use. Stop what uses it, or choose another: PORT=${port + 1} npm run ${mode === 'own' ? 'start' : mode}`,
    );
  }
  if (!process.env.DATABASE_URL) ensureDebian('postgresql');
  ensurePackages();
  if (mode !== 'dev') ensureBuild();
  else run(process.execPath, [nodeArgs.tsx, 'scripts/stylesheet.ts'], { what: 'writing the style sheet' });
  const cluster = process.env.DATABASE_URL ? null : await startCluster(dataDir);
  const fixedDay =
    mode === 'own'
      ? {}
      : { ISOBAR_TODAY: process.env.ISOBAR_TODAY ?? JSON.parse(readFileSync('demo/scenario.json', 'utf8')).today };
  const env = {
    DATABASE_URL: process.env.DATABASE_URL || cluster?.url,
    ISOBAR_DATA_DIR: dataDir,
    ISOBAR_SECRET: secretOf(dataDir),
    ISOBAR_URL: process.env.ISOBAR_URL ?? `http://127.0.0.1:${port}`,
    NEXT_TELEMETRY_DISABLED: '1',
    ...fixedDay,
  };
  process.on('exit', () => unlock());
  run(process.execPath, [nodeArgs.tsx, 'scripts/migrate.ts'], {
    env,
    what: 'bringing the database to the newest schema',
  });
  if (mode !== 'own')
    run(process.execPath, [nodeArgs.tsx, 'scripts/load-demo.ts'], { env, what: 'loading the demo scenario' });
  const address = ['-H', process.env.HOST ?? '127.0.0.1', '-p', String(port)];
  const program = mode === 'dev' ? [nodeArgs.next, 'dev', ...address] : ['scripts/serve.mjs', ...address];
  await keep(program, env, { cluster, port, mode });
}

/** Keeps app and database running until somebody stops them; ends with 1 where one of them cannot be kept. */
async function keep(program, env, { cluster, port, mode }) {
  const unwatch = cluster ? watchCluster(cluster) : () => undefined;
  let stopping = false;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    unwatch();
    await Promise.all([app.stop(), worker.stop()]);
    cluster?.stop();
    say('stopped');
    process.exit(code);
  };
  const failed = (why) => {
    process.stderr.write(`\nisobar: ${why}. The lines above say why.\n`);
    void stop(1);
  };
  const app = keepRunning('the app', () => start(program, { ...env, ISOBAR_SUPERVISED: '1' }), failed);
  const worker = keepRunning('the worker', () => start([JOB_WORKER], { ...env, ISOBAR_SUPERVISED: '1' }), failed);
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  await answering(port, app);
  announce(mode, port);
}

/** One Isobar a data folder: a second one would stop the first one's database. */
function lock(dataDir) {
  const holder = holderOf(dataDir);
  if (holder !== null)
    giveUp(
      `Isobar already runs from ${dataDir} (process ${holder}). Stop it, or set ISOBAR_DATA_DIR to another folder.`,
    );
  const file = holderFile(dataDir);
  writeFileSync(file, String(process.pid));
  return () => rmSync(file, { force: true });
}

/** Whether an Isobar runs from this folder. */
export const isHeld = (dataDir) => holderOf(dataDir) !== null;

const holderFile = (dataDir) => path.join(dataDir, 'running');

/** The process of the Isobar that runs from this folder; null: none does. */
function holderOf(dataDir) {
  const file = holderFile(dataDir);
  const pid = existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0;
  return pid > 0 && isIsobar(pid) ? pid : null;
}

/** Whether that process is one of ours: its number may have been given to another program since. */
function isIsobar(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('scripts/');
  } catch {
    return false;
  }
}

function secretOf(dataDir) {
  if (process.env.ISOBAR_SECRET) return process.env.ISOBAR_SECRET;
  const file = path.join(dataDir, 'secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

async function answering(port, app) {
  for (let i = 0; i < 300; i++) {
    if (!app.isRunning()) return;
    const ok = await fetch(`http://127.0.0.1:${port}/api/v1/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ok) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

function announce(mode, port) {
  const lines = ['', `  Isobar:   http://127.0.0.1:${port}`];
  if (mode === 'own') lines.push('            the first page makes the first supervisor');
  else {
    const { supervisor, people, password } = JSON.parse(readFileSync('demo/scenario.json', 'utf8'));
    lines.push(`  Sign in:  ${supervisor.email} (supervisor)`);
    const shown = people.filter((p, i) => people.findIndex((q) => q.role === p.role) === i);
    for (const person of shown) lines.push(`            ${person.email} (${person.role.replace('_', ' ')})`);
    lines.push(`  Password: ${password}`, '  All of it is invented demo data; none of it is for real work.');
  }
  process.stdout.write(`${[...lines, '  Ctrl-C stops app and database.', ''].join('\n')}\n`);
}

import { spawnSync } from 'node:child_process';
import { say } from './lib/say.mjs';
import { ensureBuild, ensureDebian, ensurePackages } from './lib/setup.mjs';

/* Everything that must hold before a change lands, on a machine that may have nothing yet. */

const began = Date.now();
ensureDebian('postgresql', 'chromium');
ensurePackages();

const passed = [];
const check = (name, script) => {
  say(`${name}…`);
  const { status } = spawnSync('npm', ['run', '--silent', script], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  });
  if (status !== 0) {
    process.stderr.write(`\nisobar: ${name} failed. Passed before it: ${passed.join(', ') || 'nothing'}.\n`);
    process.exit(status ?? 1);
  }
  passed.push(name);
};

check('format and lint', 'lint');
check('types', 'types');
check('import directions and exports', 'imports');
check('unit tests', 'unit');
check('integration tests', 'integration');
say('build…');
ensureBuild();
passed.push('build');
check('benchmarks, on very little', 'bench-small');
check('browser tests', 'scenarios');
say(`all passed in ${Math.round((Date.now() - began) / 1000)} s: ${passed.join(', ')}`);

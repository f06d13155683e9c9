import { together } from './lib/command.mjs';
import { say } from './lib/say.mjs';
import { ensureBuild, ensureDebian, ensurePackages } from './lib/setup.mjs';

/* Everything that must hold before a change lands, on a machine that may have nothing yet. */

const began = Date.now();
ensureDebian('postgresql', 'chromium-headless-shell');
ensurePackages();

const passed = [];
const check = async (name, ...scripts) => {
  say(`${name}…`);
  const from = Date.now();
  const env = { NEXT_TELEMETRY_DISABLED: '1' };
  const ok = await together(scripts.map((script) => ({ program: 'npm', args: ['run', '--silent', script], env })));
  const seconds = Math.round((Date.now() - from) / 1000);
  if (!ok) {
    process.stderr.write(
      `\nisobar: ${name} failed after ${seconds} s. Passed before it: ${passed.join(', ') || 'nothing'}.\n`,
    );
    process.exit(1);
  }
  passed.push(`${name} (${seconds} s)`);
};

await check('format, lint, types, import directions and exports', 'types', 'lint', 'imports');
await check('unit tests', 'unit');
await check('integration tests', 'integration');
say('build…');
ensureBuild();
passed.push('build');
await check('benchmarks, on very little', 'bench-small');
await check('browser tests', 'scenarios');
say(`all passed in ${Math.round((Date.now() - began) / 1000)} s: ${passed.join(', ')}`);

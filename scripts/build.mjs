import { buildWorkers } from './lib/build-workers.mjs';
import { nodeArgs, run } from './lib/command.mjs';

/* npm run build: the workers, the sheet that every page shares, and the app. */
await buildWorkers();
run(process.execPath, [nodeArgs.tsx, 'scripts/stylesheet.ts'], { what: 'writing the style sheet' });
run(process.execPath, [nodeArgs.next, 'build'], { env: { NEXT_TELEMETRY_DISABLED: '1' }, what: 'the build' });

import { buildServiceWorker } from './lib/build-service-worker.mjs';
import { nodeArgs, run } from './lib/command.mjs';

/* npm run build: the service worker, the sheet that every page shares, and the app. */
await buildServiceWorker();
run(process.execPath, [nodeArgs.tsx, 'scripts/stylesheet.ts'], { what: 'writing the style sheet' });
run(process.execPath, [nodeArgs.next, 'build'], { env: { NEXT_TELEMETRY_DISABLED: '1' }, what: 'the build' });

import { serve } from './lib/app.mjs';
import { buildServiceWorker } from './lib/build-service-worker.mjs';

await buildServiceWorker();
await serve('dev');

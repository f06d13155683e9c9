import { serve } from './lib/app.mjs';
import { buildWorkers } from './lib/build-workers.mjs';

await buildWorkers();
await serve('dev');

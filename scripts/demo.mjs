import { serve } from './lib/app.mjs';

await serve('demo');

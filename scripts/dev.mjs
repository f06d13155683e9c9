import { serve } from './lib/app.mjs';

await serve('dev');

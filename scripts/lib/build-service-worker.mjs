import { build } from 'esbuild';

/** Builds the service worker into the one file that a browser asks for at the root: public/sw.js. */
export const buildServiceWorker = () =>
  build({
    entryPoints: ['src/workers/service-worker/service-worker.ts'],
    outfile: 'public/sw.js',
    bundle: true,
    minify: true,
    target: 'es2022',
    logLevel: 'warning',
  });

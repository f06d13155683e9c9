import { work } from '../src/jobs/worker';

/* npm run worker: with DATABASE_URL on any machine; started and stopped by npm start beside the app. */

const stop = new AbortController();
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => stop.abort());
if (process.env.ISOBAR_SUPERVISED) {
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && stop.abort(), 1000).unref();
}
const url = process.env.DATABASE_URL;
if (!url) {
  process.stderr.write('DATABASE_URL is not set: it says whose work this worker does.\n');
  process.exit(1);
}
await work(url, stop.signal);
process.exit(0);

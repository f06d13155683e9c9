import { createServer } from 'node:http';
import { parseArgs } from 'node:util';
import next from 'next';
import pg from 'pg';

/* The app's own HTTP server in front of Next: it caps what it reads of people it does not know, and says plainly when the
   database is away. Run by npm start; by itself: node scripts/serve.mjs -H 127.0.0.1 -p 3000 */

process.env.NODE_ENV = 'production';
const { values } = parseArgs({
  options: {
    host: { type: 'string', short: 'H', default: '127.0.0.1' },
    port: { type: 'string', short: 'p', default: '3000' },
  },
});

/** Of a request by nobody we know: enough for a sign-in form. */
const MAX_STRANGER_BYTES = 64 * 1024;
/** Of the body of a refused request, so much goes by before the connection is cut. */
const MAX_PASSING_BYTES = 1024 * 1024;
const MAX_PASSING_MS = 1000;
const WITH_BODY = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);
/** So long an answer of the database is believed, ms. */
const BELIEVED_MS = 200;

const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 1, connectionTimeoutMillis: 2000 });
pool.on('error', () => undefined);
let last = { at: 0, up: Promise.resolve(false) };

/** Whether the database answers, asked anew only now and then. */
function databaseAnswers() {
  if (Date.now() - last.at > BELIEVED_MS) {
    const up = pool.query('select 1').then(
      () => true,
      () => false,
    );
    last = { at: Date.now(), up };
  }
  return last.up;
}

const AWAY = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><meta http-equiv="refresh" content="3">
<title>Isobar: one moment</title>
<style>body{font:17px/1.5 system-ui,sans-serif;max-width:34rem;margin:15vh auto;padding:0 1.5rem;background:Canvas;color:CanvasText;color-scheme:light dark}h1{font-size:1.4rem}</style></head>
<body><h1>The database is being started</h1>
<p>Nothing is lost: every write is done whole or not at all. This page tries again by itself every three seconds.</p>
<p>If it stays so for a minute, tell whoever runs Isobar: the terminal or the service log says why.</p></body></html>
`;

function answerAway(request, response) {
  const api = request.url?.startsWith('/api/');
  const body = api
    ? JSON.stringify({
        type: 'about:blank',
        title: 'The database does not answer',
        status: 503,
        detail: 'Nothing was changed. Try again in a few seconds.',
      })
    : AWAY;
  response.writeHead(503, {
    'Content-Type': api ? 'application/problem+json' : 'text/html; charset=utf-8',
    'Retry-After': '3',
    'Cache-Control': 'no-store',
  });
  response.end(body);
}

/** Answers at once. What is on its way goes by unread, or the sender would lose the answer; not for long, and not much. */
function refuse(request, response, status, words) {
  response.writeHead(status, { 'Content-Type': 'text/plain; charset=utf-8' });
  response.end(words);
  const cut = () => request.socket.destroy();
  const late = setTimeout(cut, MAX_PASSING_MS);
  let passed = 0;
  request.on('data', ({ length }) => {
    passed += length;
    if (passed > MAX_PASSING_BYTES) cut();
  });
  request.once('close', () => clearTimeout(late));
}

const isStranger = ({ headers }) =>
  headers.authorization === undefined && !(headers.cookie ?? '').includes('session_token=');

/** Why a request is not read at all; null: it is. */
function tooMuch(request) {
  if (!WITH_BODY.has(request.method ?? '') || !isStranger(request)) return null;
  if (request.headers['transfer-encoding'] !== undefined) return [411, 'Sign in, or say how long the request is.'];
  const length = Number(request.headers['content-length'] ?? 0);
  return length > MAX_STRANGER_BYTES ? [413, 'Sign in to send as much as this.'] : null;
}

const isFile = (url) => url.startsWith('/_next/') || /^\/[\w.-]+\.(js|svg|png|ico|webmanifest|woff2?)$/.test(url);
const isHealth = (url) => url.startsWith('/api/v1/health');

const app = next({ dev: false, hostname: values.host, port: Number(values.port) });
await app.prepare();
const handle = app.getRequestHandler();
const server = createServer(async (request, response) => {
  const url = request.url ?? '/';
  const refusal = tooMuch(request);
  if (refusal) return refuse(request, response, ...refusal);
  if (!isFile(url) && !isHealth(url) && !(await databaseAnswers())) return answerAway(request, response);
  await handle(request, response);
});
server.listen(Number(values.port), values.host);

const stop = () => {
  server.close(() => process.exit(0));
  server.closeIdleConnections();
  setTimeout(() => process.exit(0), 5000).unref();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);

// Whoever started this looks after it: when that process is gone, nobody would stop this one.
if (process.env.ISOBAR_SUPERVISED) {
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && stop(), 1000).unref();
}

import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { nextCookies } from 'better-auth/next-js';
import { and, count, eq, gt } from 'drizzle-orm';
import { ok } from '@/core/shared/result';
import type { Querier } from '@/db/client';
import { account, session, signInFailures, user, verification } from '@/db/schema';
import type { Deps } from '../deps';
import { fail, type Outcome } from '../failure';
import { log } from '../log';

const SESSION_SECONDS = 12 * 60 * 60;
const MAX_FAILURES = 8;
const FAILURE_WINDOW_MS = 15 * 60 * 1000;

declare global {
  /** One a process, whatever the framework loads anew. */
  var isobarAuth: ReturnType<typeof build> | undefined;
}

function build(db: Querier) {
  const secret = process.env.ISOBAR_SECRET;
  if (!secret) throw new Error('ISOBAR_SECRET is not set: start Isobar with npm run demo or npm start.');
  return betterAuth({
    secret,
    baseURL: process.env.ISOBAR_URL ?? 'http://127.0.0.1:3000',
    database: drizzleAdapter(db, { provider: 'pg', schema: { user, session, account, verification } }),
    // People are made by a supervisor, never by themselves.
    emailAndPassword: { enabled: true, disableSignUp: true },
    session: { expiresIn: SESSION_SECONDS, updateAge: SESSION_SECONDS / 4 },
    advanced: {
      useSecureCookies: (process.env.ISOBAR_URL ?? '').startsWith('https:'),
      defaultCookieAttributes: { sameSite: 'lax', httpOnly: true },
    },
    telemetry: { enabled: false },
    logger: { disabled: true },
    plugins: [nextCookies()],
  });
}

export function auth(db: Querier) {
  globalThis.isobarAuth ??= build(db);
  return globalThis.isobarAuth;
}

/** Signs a person in and sets the session cookie. Many failures for one address make it wait. */
export async function signIn(
  deps: Deps,
  input: { email: string; password: string },
  headers: Headers,
): Promise<Outcome<null>> {
  const email = input.email.trim().toLowerCase();
  const since = new Date(deps.now().getTime() - FAILURE_WINDOW_MS);
  const [failures] = await deps.db
    .select({ n: count() })
    .from(signInFailures)
    .where(and(eq(signInFailures.email, email), gt(signInFailures.at, since)));
  if ((failures?.n ?? 0) >= MAX_FAILURES) {
    log.warn({ event: 'sign-in refused', why: 'too many tries' });
    return fail(
      'forbidden',
      'Too many wrong passwords for this address. Wait 15 minutes, or ask a supervisor for a new one.',
    );
  }
  try {
    await auth(deps.db).api.signInEmail({ body: { email, password: input.password }, headers });
    log.info({ event: 'signed in' });
    return ok(null);
  } catch (error) {
    if (!(error instanceof Error && error.name === 'APIError')) throw error;
    await deps.db.insert(signInFailures).values({ email: email.slice(0, 200), at: deps.now() });
    log.warn({ event: 'sign-in refused', why: 'wrong address or password' });
    return fail('forbidden', 'This address and password do not go together.');
  }
}

export async function signOut(deps: Deps, headers: Headers): Promise<void> {
  await auth(deps.db).api.signOut({ headers });
}

import type PgBoss from 'pg-boss';
import { isPlainDate, type PlainDate } from '@/core/calendar/plain-date';
import { wallClock } from '@/core/calendar/zone';
import { type Connection, openConnection, type Querier } from '@/db/client';
import { type JobQueue, openQueue, queueOf } from './queue';

/** What a use-case may reach besides its input. */
export interface Deps {
  readonly db: Querier;
  readonly now: () => Date;
  /** Asks for background work. */
  readonly jobs: JobQueue;
  /** The calendar day of the work. */
  readonly today: () => PlainDate;
}

declare global {
  /** One a process, whatever the framework loads anew. */
  var isobarConnection: Connection | undefined;
  var isobarQueue: Promise<PgBoss> | undefined;
}

function databaseUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: start Isobar with npm run demo or npm start.');
  return url;
}

/** One pool a process, opened at the first use, so that a build needs no database. */
export function connection(): Connection {
  globalThis.isobarConnection ??= openConnection(databaseUrl());
  return globalThis.isobarConnection;
}

/** The app's side of the queue, opened at the first use. */
function queue(): Promise<PgBoss> {
  globalThis.isobarQueue ??= openQueue(databaseUrl(), false).catch((error: unknown) => {
    // Asked again, it is opened anew.
    globalThis.isobarQueue = undefined;
    throw error;
  });
  return globalThis.isobarQueue;
}

export function deps(): Deps {
  return {
    db: connection().db,
    now: () => new Date(),
    today,
    jobs: { send: async (q, name, data) => queueOf(queue()).send(q, name, data) },
  };
}

/** `ISOBAR_TODAY` fixes the day, for the demo scenario and for tests. */
export function today(): PlainDate {
  const fixed = process.env.ISOBAR_TODAY;
  if (fixed && isPlainDate(fixed)) return fixed;
  return wallClock(new Date(), process.env.ISOBAR_TIME_ZONE ?? 'Etc/UTC').day;
}

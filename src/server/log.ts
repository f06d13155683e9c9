import { AsyncLocalStorage } from 'node:async_hooks';
import pino, { type Logger } from 'pino';

/** What is known of the request that is being answered: it stands in every line that is logged meanwhile. */
export const requestContext = new AsyncLocalStorage<{ readonly requestId: string }>();

/**
 * The log: a JSON object a line, with time and request. What people typed and what they sign in with never goes in: errors
 * are cut to their kind and place, and nothing of a request but its method and path is written.
 */
export const log: Logger = pino({
  base: undefined,
  level: process.env.ISOBAR_LOG_LEVEL ?? (process.env.VITEST ? 'silent' : 'info'),
  timestamp: pino.stdTimeFunctions.isoTime,
  mixin: () => requestContext.getStore() ?? {},
  serializers: { err: plainError },
});

interface PlainError {
  readonly type: string;
  readonly message: string;
  readonly code?: string;
  readonly constraint?: string;
  readonly stack?: string;
  readonly cause?: PlainError;
}

/** An error without the parameters of its query: they are what somebody typed. */
export function plainError(error: unknown): PlainError {
  if (!(error instanceof Error)) return { type: typeof error, message: 'something that is no error was thrown' };
  const { code, constraint } = error as { code?: unknown; constraint?: unknown };
  const ofDatabase = typeof code === 'string' && /^[0-9A-Z]{5}$/.test(code);
  return {
    type: error.name === 'Error' ? error.constructor.name : error.name,
    // The database repeats values in its messages; its code and constraint say as much.
    message: ofDatabase ? `PostgreSQL ${code}` : (error.message.split('\nparams:')[0] ?? '').slice(0, 2000),
    ...(ofDatabase ? { code } : {}),
    ...(typeof constraint === 'string' ? { constraint } : {}),
    stack: error.stack
      ?.split('\n')
      .filter((line) => line.startsWith('    at '))
      .slice(0, 20)
      .join('\n'),
    ...(error.cause === undefined ? {} : { cause: plainError(error.cause) }),
  };
}

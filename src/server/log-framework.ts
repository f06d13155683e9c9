import { log } from './log';

/** Sends what the framework prints to the log. Of what is no error only the kind is told: it may be what somebody typed. */
export function logFramework(): void {
  if (process.env.NODE_ENV !== 'production') return;
  console.error = (...parts: readonly unknown[]) => {
    const err = parts.find((part) => part instanceof Error);
    if (err) log.error({ err }, 'a request failed');
    else log.error({ event: 'framework' }, firstLine(parts));
  };
  console.warn = (...parts: readonly unknown[]) => log.warn({ event: 'framework' }, firstLine(parts));
}

const firstLine = (parts: readonly unknown[]): string =>
  (parts.find((part): part is string => typeof part === 'string') ?? '').split('\n')[0]?.slice(0, 200) ?? '';

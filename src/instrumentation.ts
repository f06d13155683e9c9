/** Everything that the framework would print goes through the log, so that no line lacks its time or says too much. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { logFramework } = await import('./server/log-framework');
  logFramework();
}

import { say } from './say.mjs';

/** So often within a minute a process may end by itself before it is given up. */
const MAX_ENDS = 5;
const MINUTE = 60_000;

/**
 * Keeps a process running: when it ends by itself, by a signal or otherwise, it is started again.
 *
 * @param name for the terminal
 * @param start starts it anew and gives the child process
 * @param giveUp is told when it ends again and again
 */
export function keepRunning(name, start, giveUp) {
  let child = null;
  let stopping = false;
  let ends = [];
  const begin = () => {
    child = start();
    child.once('exit', (code, signal) => {
      if (stopping) return;
      ends = [...ends.filter((at) => Date.now() - at < MINUTE), Date.now()];
      const how = signal ? `was ended by ${signal}` : `ended with code ${code}`;
      if (ends.length >= MAX_ENDS) return giveUp(`${name} ${how}, ${ends.length} times within a minute`);
      say(`${name} ${how}: starting it again`);
      setTimeout(() => !stopping && begin(), 500 * ends.length);
    });
  };
  begin();
  return {
    /** Whether it is there at this moment. */
    isRunning: () => child !== null && child.exitCode === null && child.signalCode === null,
    /** Ends it in good order; by force after eight seconds. */
    stop: () =>
      new Promise((resolve) => {
        stopping = true;
        if (!child || child.exitCode !== null || child.signalCode !== null) return resolve();
        child.once('exit', resolve);
        child.kill('SIGTERM');
        setTimeout(() => child.kill('SIGKILL'), 8000).unref();
      }),
  };
}

/**
 * Looks at the private database server every second, and starts it again when it is gone.
 *
 * @param cluster as startCluster gave it
 */
export function watchCluster(cluster) {
  const timer = setInterval(() => {
    if (cluster.isRunning()) return;
    say('PostgreSQL is gone: starting it again');
    try {
      cluster.startAgain();
    } catch (error) {
      say(`PostgreSQL did not start: ${error.message}. Trying again.`);
    }
  }, 1000);
  return () => clearInterval(timer);
}

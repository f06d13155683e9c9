import { rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { TestProject } from 'vitest/node';
import { buildJobWorker, buildPlannerThread } from '../../scripts/lib/build-workers.mjs';
import { startCluster } from '../../scripts/lib/cluster.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    serverUrl: string;
  }
}

/** One throw-away PostgreSQL server for the run; each test file makes its own database in it. */
export default async function setup(project: TestProject): Promise<() => void> {
  await Promise.all([buildPlannerThread(), buildJobWorker()]);
  const folder = path.join(os.tmpdir(), `isobar-test-${process.pid}`);
  const cluster = await startCluster(folder, { durable: false });
  project.provide('serverUrl', cluster.url);
  return () => {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

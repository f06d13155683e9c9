import { defineConfig, devices } from '@playwright/test';

/* Run by scripts/scenarios.mjs, which prepares the two databases and names the ports. */

const needed = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run npm run scenarios`);
  return value;
};
const ports = { empty: needed('E2E_EMPTY_PORT'), demo: needed('E2E_DEMO_PORT') };
const server = (port: string, database: string) => ({
  // Node on the bin file, not npm or npx: the signal then reaches the server itself.
  command: `node scripts/serve.mjs -H 127.0.0.1 -p ${port}`,
  url: `http://127.0.0.1:${port}/api/v1/health`,
  env: {
    DATABASE_URL: database,
    ISOBAR_SECRET: 'only-for-tests-0123456789abcdef0123',
    ISOBAR_TODAY: '2026-11-16',
    ISOBAR_URL: `http://127.0.0.1:${port}`,
    NEXT_TELEMETRY_DISABLED: '1',
  },
  reuseExistingServer: false,
  timeout: 60_000,
  gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 5000 },
  stdout: 'ignore' as const,
  stderr: 'pipe' as const,
});

export default defineConfig({
  testDir: './tests/scenarios',
  outputDir: './test-results',
  workers: 2,
  retries: 0,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  forbidOnly: Boolean(process.env.CI),
  reporter: [['list']],
  use: {
    ...devices['Desktop Chrome'],
    viewport: { width: 1280, height: 800 },
    trace: 'retain-on-failure',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  projects: [
    { name: 'empty workspace', testMatch: 'whole-loop.spec.ts', use: { baseURL: `http://127.0.0.1:${ports.empty}` } },
    // Alone on its database: it compares all that a fleet has before and after.
    { name: 'access', testMatch: 'access.spec.ts', use: { baseURL: `http://127.0.0.1:${ports.demo}` } },
    {
      name: 'demo',
      testIgnore: ['whole-loop.spec.ts', 'access.spec.ts', 'plan.spec.ts'],
      dependencies: ['access'],
      use: { baseURL: `http://127.0.0.1:${ports.demo}` },
    },
    // After all others: it opens orders for everything that is due.
    {
      name: 'plan',
      testMatch: 'plan.spec.ts',
      dependencies: ['demo'],
      use: { baseURL: `http://127.0.0.1:${ports.demo}` },
    },
  ],
  webServer: [server(ports.empty, needed('E2E_EMPTY_URL')), server(ports.demo, needed('E2E_DEMO_URL'))],
});

import { defineConfig, devices } from '@playwright/test';
import { CHROMIUM } from './scripts/lib/command.mjs';

/* Run by scripts/scenarios.mjs, which prepares the databases; tests/scenarios/app.ts starts an app for each file. */

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
    launchOptions: {
      executablePath: CHROMIUM,
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
});

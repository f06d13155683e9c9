import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const alias = { '@': fileURLToPath(new URL('./src', import.meta.url)) };

export default defineConfig({
  resolve: { alias },
  test: {
    // All processors: by default the runner leaves one idle.
    maxWorkers: Math.max(2, availableParallelism()),
    // Until the state is there, however busy the machine.
    expect: { poll: { timeout: 300_000 } },
    projects: [
      {
        extends: true,
        // Nothing that a unit test changes outlives the test, so files share their modules.
        test: { name: 'unit', include: ['src/**/*.test.ts'], testTimeout: 600_000, isolate: false },
      },
      {
        extends: true,
        test: {
          name: 'component',
          include: ['tests/component/**/*.test.tsx'],
          setupFiles: ['tests/component/setup.ts'],
          environment: 'happy-dom',
          testTimeout: 600_000,
        },
      },
      {
        extends: true,
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.{ts,tsx}'],
          globalSetup: ['tests/integration/cluster.ts'],
          testTimeout: 600_000,
          hookTimeout: 600_000,
          isolate: false,
        },
      },
    ],
  },
});

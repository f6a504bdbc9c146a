import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    env: { TZ: 'UTC' },
    // For a busy machine: nothing here takes nearly as long on a quiet one.
    testTimeout: 240_000,
    hookTimeout: 600_000,
    projects: [
      { extends: true, test: { name: 'unit', include: ['src/**/*.test.ts'] } },
      {
        extends: true,
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          fileParallelism: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: ['tests/browser/global.ts'],
          testTimeout: 900_000,
          maxWorkers: 2,
        },
      },
    ],
  },
});

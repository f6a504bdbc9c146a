import { defineConfig } from 'vitest/config';
import { TEST_ZONE } from './scripts/test-zone.mjs';

/** The tests that deliberate faults are tried against: a mutation tester takes no projects. */
const area = process.env['MUTANTS_AREA'] ?? 'core';
const asked = process.env['MUTANTS_TESTS']?.split(' ');

export default defineConfig({
  test: {
    env: { TZ: TEST_ZONE },
    include:
      asked ?? (area === 'app' ? ['tests/integration/**/*.test.ts', 'src/a*/**/*.test.ts'] : ['src/**/*.test.ts']),
    // Those that start the built server know nothing of a fault in the sources.
    exclude: ['**/*.bench.test.ts', '**/{start,faults,notices}.test.ts', 'node_modules/**'],
    globalSetup: area === 'app' ? ['tests/integration/global.ts'] : [],
    setupFiles: ['tests/support/fixed-seed.ts'],
    isolate: false,
    testTimeout: 60_000,
    hookTimeout: 120_000,
  },
});

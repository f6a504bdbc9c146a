import { defineConfig } from 'vitest/config';
import { TEST_ZONE } from './scripts/test-zone.mjs';
import { SlowestFirst } from './tests/slowest-first';

/** Tests of the simulated bench, and those that burn and photograph on it. */
const BENCH = ['src/bench/**/*.test.ts', 'src/**/*.bench.test.ts'];
/** Tests that draw whole photos and look into them: seconds each. */
const PHOTOS = ['src/**/*.photo.test.ts'];
/** Tests that try many made-up cases and count how often a claim holds. */
const TRIALS = ['src/**/*.trials.test.ts'];

/** Time limits of the runner, longer where much else is to be done (`npm run loaded`). */
const patience = Number(process.env['TEST_PATIENCE'] ?? 1);

export default defineConfig({
  test: {
    env: { TZ: TEST_ZONE },
    // For a busy machine: nothing here takes nearly as long on a quiet one.
    testTimeout: 240_000 * patience,
    hookTimeout: 600_000 * patience,
    sequence: { sequencer: SlowestFirst },
    // What the sources are compiled to is kept by their content: half a minute less of each run, and projects take it from each other.
    experimental: { fsModuleCache: true },
    projects: [
      // Nothing here keeps state between files, and loading the sources anew for each would take most of the time.
      {
        extends: true,
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts'],
          exclude: [...BENCH, ...PHOTOS, ...TRIALS],
          isolate: false,
          maxWorkers: 3,
        },
      },
      { extends: true, test: { name: 'photos', include: PHOTOS, isolate: false, maxWorkers: 3 } },
      { extends: true, test: { name: 'trials', include: TRIALS, isolate: false, maxWorkers: 3 } },
      // What burns and photographs: slow, and about the whole line from plan to finding.
      { extends: true, test: { name: 'bench', include: BENCH, isolate: false, maxWorkers: 3 } },
      {
        extends: true,
        test: {
          name: 'integration',
          isolate: false,
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: ['tests/integration/global.ts'],
          maxWorkers: 3,
        },
      },
      {
        extends: true,
        test: {
          name: 'browser',
          include: ['tests/browser/**/*.test.ts'],
          globalSetup: ['tests/browser/global.ts'],
          testTimeout: 900_000 * patience,
          maxWorkers: 3,
        },
      },
    ],
  },
});

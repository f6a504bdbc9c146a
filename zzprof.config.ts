import { defineConfig } from 'vitest/config';
export default defineConfig({
  root: '/work/main',
  test: {
    testTimeout: 300000,
    include: [process.env.WHAT!],
    isolate: false,
    setupFiles: ['/tmp/profsetup.ts'],
    env: { TZ: 'UTC' },
  },
});

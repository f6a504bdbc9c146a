import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';
import type { TestProject } from 'vitest/node';
import { freePort } from '../../scripts/postgres.mjs';
import { untilReady } from '../../scripts/ready.mjs';
import { throwawayCluster } from '../../scripts/throwaway.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    base: string;
  }
}

const root = fileURLToPath(new URL('../..', import.meta.url));

/** One real server with the demo world on a throwaway database for all browser tests. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const cluster = await throwawayCluster();
  const port = await freePort();
  const env = {
    ...process.env,
    DATABASE_URL: cluster.url,
    PORT: String(port),
    // So slow that a busy browser can press Pause and Stop before a card of a quarter of an hour is burned.
    BENCH_PACE: '8',
    // Pictures of 3 megapixels: a quarter of the time.
    BENCH_CAMERA_SCALE: '0.5',
    NODE_ENV: 'production',
  };
  const server = spawn(process.execPath, ['--enable-source-maps', `${root}dist/server/main.mjs`], {
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  // It makes its demo world while other tests run; a browser waits for it (see harness.ts).
  untilReady(server).catch((fault: unknown) => console.error(fault));
  project.provide('base', `http://127.0.0.1:${port}`);
  return async () => {
    const gone = once(server, 'exit');
    server.kill('SIGTERM');
    await gone;
    cluster.remove();
  };
}

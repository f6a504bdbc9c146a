import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import type { TestProject } from 'vitest/node';
import { throwawayCluster } from '../../scripts/throwaway.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseServer: string;
    workerFile: string;
  }
}

/** The worker threads as the server runs them, out of the way of builds that tests make. */
async function compiledWorker(): Promise<string> {
  const outfile = fileURLToPath(new URL('../../node_modules/.cache/tests/heavy-worker.mjs', import.meta.url));
  const entry = fileURLToPath(new URL('../../src/workers/heavy-worker.ts', import.meta.url));
  await build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    logLevel: 'error',
  });
  if (!existsSync(outfile)) throw new Error('the worker was not compiled');
  return outfile;
}

/** One database server and one compiled worker for a whole run; each file of tests has a database of its own on it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const [cluster, workerFile] = await Promise.all([throwawayCluster(), compiledWorker()]);
  project.provide('databaseServer', cluster.url);
  project.provide('workerFile', workerFile);
  return () => cluster.remove();
}

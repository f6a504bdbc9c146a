import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';
import { sql } from 'kysely';
import type { TestProject } from 'vitest/node';
import { openDatabase } from '../../src/db/client';
import { migrate } from '../../src/db/migrate';
import { throwawayCluster } from '../../scripts/throwaway.mjs';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseServer: string;
    workerFile: string;
    /** A database with all tables and nothing in them, to make others from. */
    emptyDatabase: string;
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

async function migrated(server: string): Promise<string> {
  const name = 'empty';
  const onServer = openDatabase(server, () => undefined);
  await sql`create database empty`.execute(onServer);
  await onServer.destroy();
  const url = new URL(server);
  url.pathname = name;
  const db = openDatabase(url.href, () => undefined);
  await migrate(db);
  await db.destroy();
  return name;
}

/** One database server and one compiled worker for a whole run; each file of tests has a database of its own on it. */
export default async function setup(project: TestProject): Promise<() => void> {
  const [cluster, workerFile] = await Promise.all([throwawayCluster(), compiledWorker()]);
  project.provide('databaseServer', cluster.url);
  project.provide('workerFile', workerFile);
  project.provide('emptyDatabase', await migrated(cluster.url));
  return () => cluster.remove();
}

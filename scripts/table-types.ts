import { spawnSync } from 'node:child_process';
import { openDatabase } from '../src/db/client';
import { migrate } from '../src/db/migrate';
import { throwawayCluster } from './throwaway.mjs';

/** Writes src/db/tables.ts: the types of the tables that the migrations make, read from a database that they have just run on. */
const cluster = await throwawayCluster();
try {
  const db = openDatabase(cluster.url, () => undefined);
  await migrate(db);
  await db.destroy();
  const args = ['--config-file', 'kysely-codegen.json', '--url', cluster.url];
  process.exitCode = spawnSync('node_modules/.bin/kysely-codegen', args, { stdio: 'inherit' }).status ?? 1;
} finally {
  cluster.remove();
}

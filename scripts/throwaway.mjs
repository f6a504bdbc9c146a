// A PostgreSQL cluster that is thrown away: for tests and pictures.
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startCluster } from './postgres.mjs';

export async function throwawayCluster() {
  const folder = mkdtempSync(join(tmpdir(), 'glass-ladder-db-'));
  // The database's user must be able to reach its part of it.
  chmodSync(folder, 0o711);
  const cluster = await startCluster(folder, { fast: true });
  return {
    ...cluster,
    folder,
    restart: () => startCluster(folder, { fast: true }),
    remove: () => {
      cluster.stop('immediate');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

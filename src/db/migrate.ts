import { Migrator, type Kysely, type Migration } from 'kysely';
import type { DB } from './tables';
import * as first from './migrations/0001-first';
import * as facts from './migrations/0002-facts';
import * as realMachines from './migrations/0003-real-machines';
import * as faultsAndFinish from './migrations/0004-faults-and-finish';
import * as exposures from './migrations/0005-exposures';
import * as faults from './migrations/0006-faults';
import * as mergedReadings from './migrations/0007-merged-readings';
import * as cameras from './migrations/0008-cameras';
import * as hue from './migrations/0009-hue';
import * as frameSheets from './migrations/0010-frame-sheets';
import * as lines from './migrations/0011-lines';
import * as lightTable from './migrations/0012-light-table';
import * as singleLines from './migrations/0013-single-lines';
import * as machineDiary from './migrations/0018-machine-diary';
import * as predicted from './migrations/0019-predicted';
import * as stations from './migrations/0020-stations';
import * as sourceHours from './migrations/0021-source-hours';
import * as drawings from './migrations/0022-drawings';
import * as inferredPower from './migrations/0023-inferred-power';
import * as rounds from './migrations/0024-rounds';
import * as matchPhotos from './migrations/0025-match-photos';
import * as dropWords from './migrations/0026-drop-words';
import * as pictures from './migrations/0017-pictures';
import * as barsAndEnds from './migrations/0014-bars-and-ends';
import * as mergedLightTable from './migrations/0015-merged-light-table';
import * as laddersMadeBy from './migrations/0016-ladders-made-by';

const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '0001-first': first,
  '0002-facts': facts,
  '0003-real-machines': realMachines,
  '0004-faults-and-finish': faultsAndFinish,
  '0005-exposures': exposures,
  '0006-faults': faults,
  '0007-merged-readings': mergedReadings,
  '0008-cameras': cameras,
  '0009-hue': hue,
  '0010-frame-sheets': frameSheets,
  '0011-lines': lines,
  '0012-light-table': lightTable,
  '0013-single-lines': singleLines,
  '0014-bars-and-ends': barsAndEnds,
  '0015-merged-light-table': mergedLightTable,
  '0016-ladders-made-by': laddersMadeBy,
  '0017-pictures': pictures,
  '0018-machine-diary': machineDiary,
  '0019-predicted': predicted,
  '0020-stations': stations,
  '0021-source-hours': sourceHours,
  '0022-drawings': drawings,
  '0023-inferred-power': inferredPower,
  '0024-rounds': rounds,
  '0025-match-photos': matchPhotos,
  '0026-drop-words': dropWords,
};

/** The database was made by a newer version of the program. */
export class NewerDatabaseError extends Error {
  override readonly name = 'NewerDatabaseError';
}

/**
 * Brings the database up to this version, each migration in a transaction. Returns the names of those that ran.
 * Throws NewerDatabaseError when the database has migrations that this version does not know, and whatever a migration threw.
 */
export async function migrate(db: Kysely<DB>): Promise<string[]> {
  const migrator = new Migrator({ db, provider: { getMigrations: async () => ({ ...MIGRATIONS }) } });
  const { error, results } = await migrator.migrateToLatest();
  if (error) {
    if (error instanceof Error && /corrupted migrations/.test(error.message)) {
      throw new NewerDatabaseError('The database was made by a newer version of Glass Ladder.');
    }
    throw error;
  }
  return (results ?? []).filter((result) => result.status === 'Success').map((result) => result.migrationName);
}

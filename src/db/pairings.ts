import type { Db } from './client';

export interface PairingRecord {
  readonly id: number;
  readonly machineId: number;
  readonly lensId: number;
  readonly stockId: number;
}

export async function openPairing(db: Db, key: Omit<PairingRecord, 'id'>): Promise<number> {
  const values = { machine_id: key.machineId, lens_id: key.lensId, stock_id: key.stockId };
  const made = await db
    .insertInto('pairing')
    .values(values)
    .onConflict((conflict) => conflict.columns(['machine_id', 'lens_id', 'stock_id']).doNothing())
    .returning('id')
    .executeTakeFirst();
  if (made) return made.id;
  const found = await db
    .selectFrom('pairing')
    .select('id')
    .where('machine_id', '=', key.machineId)
    .where('lens_id', '=', key.lensId)
    .where('stock_id', '=', key.stockId)
    .executeTakeFirstOrThrow();
  return found.id;
}

export async function listPairings(db: Db): Promise<PairingRecord[]> {
  const rows = await db.selectFrom('pairing').selectAll().orderBy('id').execute();
  return rows.map((row) => ({ id: row.id, machineId: row.machine_id, lensId: row.lens_id, stockId: row.stock_id }));
}

import type { Pieces } from '../core/book/worth';
import type { Pairing } from '../core/card/contract';
import type { Db } from './client';
import { listMachines } from './machines';
import { listStocks } from './stocks';
import type { MachineRecord } from '../records/machine';

export interface PairingRecord {
  readonly id: number;
  readonly machineId: number;
  readonly lensId: number;
  readonly stockId: number;
}

export async function openPairing(db: Db, key: Omit<PairingRecord, 'id'>): Promise<number> {
  const values = { machineId: key.machineId, lensId: key.lensId, stockId: key.stockId };
  const made = await db
    .insertInto('pairing')
    .values(values)
    .onConflict((conflict) => conflict.columns(['machineId', 'lensId', 'stockId']).doNothing())
    .returning('id')
    .executeTakeFirst();
  if (made) return made.id;
  const found = await db
    .selectFrom('pairing')
    .select('id')
    .where('machineId', '=', key.machineId)
    .where('lensId', '=', key.lensId)
    .where('stockId', '=', key.stockId)
    .executeTakeFirstOrThrow();
  return found.id;
}

export async function pairingById(db: Db, id: number): Promise<PairingRecord | undefined> {
  const row = await db.selectFrom('pairing').selectAll().where('id', '=', id).executeTakeFirst();
  return row && { id: row.id, machineId: row.machineId, lensId: row.lensId, stockId: row.stockId };
}

/** Machine, lens and stock of several pairings as they are now, by pairing. */
export async function pairingsNow(
  db: Db,
  ids: readonly number[],
): Promise<Map<number, Pairing & { readonly machine: MachineRecord }>> {
  if (ids.length === 0) return new Map();
  const [rows, machines, stocks] = await Promise.all([
    db.selectFrom('pairing').selectAll().where('id', 'in', ids).execute(),
    listMachines(db),
    listStocks(db),
  ]);
  const machineOf = new Map(machines.map((machine) => [machine.id, machine]));
  const stockOf = new Map(stocks.map((stock) => [stock.id, stock]));
  return new Map(
    rows.map((row) => {
      const machine = machineOf.get(row.machineId)!;
      const lens = machine.lenses.find((candidate) => candidate.id === row.lensId)!;
      return [row.id, { machine, lens, stock: stockOf.get(row.stockId)! }];
    }),
  );
}

/** The pieces that a pairing's stock is for; null where nobody said. */
export async function piecesOfPairing(db: Db, id: number): Promise<Pieces | null> {
  return (await db.selectFrom('pairing').select('pieces').where('id', '=', id).executeTakeFirst())?.pieces ?? null;
}

export async function setPieces(db: Db, id: number, pieces: Pieces | null): Promise<void> {
  await db
    .updateTable('pairing')
    .set({ pieces: JSON.stringify(pieces) })
    .where('id', '=', id)
    .execute();
}

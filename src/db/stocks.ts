import type { Selectable } from 'kysely';
import type { StockInput, StockRecord } from '../records/stock';
import type { Db } from './client';
import type { DB } from './tables';

const stockOf = (
  { createdAt, retiredAt, blanks, ...stock }: Selectable<DB['stock']>,
  thicknessReadingsMm: readonly number[],
): StockRecord => ({
  ...stock,
  thicknessReadingsMm,
  blanks: blanks === null ? null : { count: blanks },
  retired: retiredAt !== null,
});

const stockRow = (stock: StockInput) => ({
  name: stock.name,
  family: stock.family,
  type: stock.type,
  colour: stock.colour,
  bareLightness: stock.bareLightness,
  coating: stock.coating,
  coatingSide: stock.coatingSide,
  adhesiveBacking: stock.adhesiveBacking,
  grain: stock.grain,
  nominalThicknessMm: stock.nominalThicknessMm,
  batch: stock.batch,
  sheetWidthMm: stock.sheetWidthMm,
  outline: JSON.stringify(stock.outline),
  blanks: stock.blanks?.count ?? null,
  sheetDepthMm: stock.sheetDepthMm,
  acquiredOn: stock.acquiredOn,
});

export async function listStocks(db: Db): Promise<StockRecord[]> {
  const [rows, readings] = await Promise.all([
    db
      .selectFrom('stock')
      .selectAll()
      .orderBy('retiredAt', (order) => order.asc().nullsFirst())
      .orderBy('name')
      .execute(),
    db.selectFrom('thicknessReading').selectAll().orderBy('place').execute(),
  ]);
  return rows.map((row) =>
    stockOf(
      row,
      readings.filter((reading) => reading.stockId === row.id).map((reading) => reading.thicknessMm),
    ),
  );
}

export async function stockById(db: Db, id: number): Promise<StockRecord | undefined> {
  const row = await db.selectFrom('stock').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const readings = await db
    .selectFrom('thicknessReading')
    .selectAll()
    .where('stockId', '=', id)
    .orderBy('place')
    .execute();
  return stockOf(
    row,
    readings.map((reading) => reading.thicknessMm),
  );
}

async function writeReadings(db: Db, stockId: number, readingsMm: readonly number[]): Promise<void> {
  await db.deleteFrom('thicknessReading').where('stockId', '=', stockId).execute();
  if (readingsMm.length === 0) return;
  await db
    .insertInto('thicknessReading')
    .values(readingsMm.map((thicknessMm, index) => ({ stockId, place: index + 1, thicknessMm })))
    .execute();
}

/** To be called in a transaction: a stock and its thickness readings belong together. */
export async function insertStock(db: Db, stock: StockInput): Promise<number> {
  const { id } = await db.insertInto('stock').values(stockRow(stock)).returning('id').executeTakeFirstOrThrow();
  await writeReadings(db, id, stock.thicknessReadingsMm);
  return id;
}

/** To be called in a transaction. */
export async function updateStock(db: Db, id: number, stock: StockInput): Promise<boolean> {
  const result = await db.updateTable('stock').set(stockRow(stock)).where('id', '=', id).executeTakeFirst();
  if (result.numUpdatedRows !== 1n) return false;
  await writeReadings(db, id, stock.thicknessReadingsMm);
  return true;
}

export async function setStockRetired(db: Db, id: number, at: Date | null): Promise<boolean> {
  const result = await db.updateTable('stock').set({ retiredAt: at }).where('id', '=', id).executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

/** Holds a stock's row until the transaction ends, so that two cards never get the same place on its sheet. */
export async function lockStock(db: Db, id: number): Promise<void> {
  await db.selectFrom('stock').select('id').where('id', '=', id).forUpdate().executeTakeFirst();
}

import type { Selectable } from 'kysely';
import type { StockInput, StockRecord } from '../records/stock';
import type { Db } from './client';
import type { StockTable } from './schema';

const stockOf = (row: Selectable<StockTable>, readings: readonly number[]): StockRecord => ({
  id: row.id,
  name: row.name,
  family: row.family,
  type: row.type,
  colour: row.colour,
  bareLightness: row.bare_lightness,
  coating: row.coating,
  coatingSide: row.coating_side,
  adhesiveBacking: row.adhesive_backing,
  grain: row.grain,
  nominalThicknessMm: row.nominal_thickness_mm,
  thicknessReadingsMm: readings,
  batch: row.batch,
  sheetWidthMm: row.sheet_width_mm,
  outline: row.outline,
  blanks: row.blanks === null ? null : { count: row.blanks },
  sheetDepthMm: row.sheet_depth_mm,
  acquiredOn: row.acquired_on,
  retired: row.retired_at !== null,
});

const stockRow = (stock: StockInput) => ({
  name: stock.name,
  family: stock.family,
  type: stock.type,
  colour: stock.colour,
  bare_lightness: stock.bareLightness,
  coating: stock.coating,
  coating_side: stock.coatingSide,
  adhesive_backing: stock.adhesiveBacking,
  grain: stock.grain,
  nominal_thickness_mm: stock.nominalThicknessMm,
  batch: stock.batch,
  sheet_width_mm: stock.sheetWidthMm,
  outline: JSON.stringify(stock.outline),
  blanks: stock.blanks?.count ?? null,
  sheet_depth_mm: stock.sheetDepthMm,
  acquired_on: stock.acquiredOn,
});

export async function listStocks(db: Db): Promise<StockRecord[]> {
  const [rows, readings] = await Promise.all([
    db
      .selectFrom('stock')
      .selectAll()
      .orderBy('retired_at', (order) => order.asc().nullsFirst())
      .orderBy('name')
      .execute(),
    db.selectFrom('thickness_reading').selectAll().orderBy('place').execute(),
  ]);
  return rows.map((row) =>
    stockOf(
      row,
      readings.filter((reading) => reading.stock_id === row.id).map((reading) => reading.thickness_mm),
    ),
  );
}

export async function stockById(db: Db, id: number): Promise<StockRecord | undefined> {
  const row = await db.selectFrom('stock').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const readings = await db
    .selectFrom('thickness_reading')
    .selectAll()
    .where('stock_id', '=', id)
    .orderBy('place')
    .execute();
  return stockOf(
    row,
    readings.map((reading) => reading.thickness_mm),
  );
}

async function writeReadings(db: Db, stockId: number, readingsMm: readonly number[]): Promise<void> {
  await db.deleteFrom('thickness_reading').where('stock_id', '=', stockId).execute();
  if (readingsMm.length === 0) return;
  await db
    .insertInto('thickness_reading')
    .values(readingsMm.map((thickness_mm, index) => ({ stock_id: stockId, place: index + 1, thickness_mm })))
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
  const result = await db.updateTable('stock').set({ retired_at: at }).where('id', '=', id).executeTakeFirst();
  return result.numUpdatedRows === 1n;
}

/** Holds a stock's row until the transaction ends, so that two cards never get the same place on its sheet. */
export async function lockStock(db: Db, id: number): Promise<void> {
  await db.selectFrom('stock').select('id').where('id', '=', id).forUpdate().executeTakeFirst();
}

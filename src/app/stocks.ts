import { assessStock } from '../core/stock/assess';
import * as stocks from '../db/stocks';
import type { StockInput, StockRecord } from '../records/stock';
import type { AppContext } from './context';
import { once } from './once';
import { notFound } from './problems';
import { keepThickness } from './record-facts';

export async function getStock({ db }: AppContext, id: number): Promise<StockRecord> {
  const stock = await stocks.stockById(db, id);
  if (!stock) throw notFound('stock', id);
  return stock;
}

/** A banned material may be recorded, so that the next person is warned; it is stopped when it is to be burned. */
export function createStock(
  ctx: AppContext,
  stock: StockInput,
  key?: string,
): Promise<{ id: number; stopped: boolean }> {
  return once(ctx, key, 'create-stock', async (tx) => {
    const id = await stocks.insertStock(tx, stock);
    await keepThickness(tx, id, stock);
    return { id, stopped: assessStock(stock).length > 0 };
  });
}

export async function changeStock(ctx: AppContext, id: number, stock: StockInput): Promise<StockRecord> {
  const found = await ctx.db.transaction().execute(async (tx) => {
    if (!(await stocks.updateStock(tx, id, stock))) return false;
    await keepThickness(tx, id, stock);
    return true;
  });
  if (!found) throw notFound('stock', id);
  return getStock(ctx, id);
}

export async function retireStock(ctx: AppContext, id: number, retired: boolean): Promise<StockRecord> {
  if (!(await stocks.setStockRetired(ctx.db, id, retired ? ctx.now() : null))) throw notFound('stock', id);
  return getStock(ctx, id);
}

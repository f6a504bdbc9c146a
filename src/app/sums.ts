import type { Kerfs } from '../views/views';
import { bookPage } from '../db/facts';
import type { AppContext } from './context';

/** Kerfs of the book are few: one for each cut that was measured. */
const MOST_KERFS = 200;

/** What the workshop's sums can start from: every kerf that was kept, with how sure it is. */
export async function sumsView(ctx: AppContext): Promise<Kerfs> {
  const { rows } = await bookPage(ctx.db, { words: ['kerf'], limit: MOST_KERFS, offset: 0 });
  return rows.flatMap(({ fact, newest, stock, machine }) => {
    if (fact.name !== 'kerf' || !('xMm' in newest.value && 'yMm' in newest.value)) return [];
    const { xMm, yMm } = newest.value;
    // An oval spot cuts wider along one axis: their mean would be wrong for both.
    return (
      [
        ['X', xMm],
        ['Y', yMm],
      ] as const
    ).flatMap(([axis, kerfMm]) =>
      kerfMm === null ? [] : [{ factId: fact.id, axis, stock, machine, kerfMm, sigmaMm: newest.sigma }],
    );
  });
}

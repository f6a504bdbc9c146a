import type { Kerfs, KeptFits } from '../views/views';
import { bookPage } from '../db/facts';
import type { AppContext } from './context';

/** Kerfs and fits of the book are few: one for each cut that was measured. */
const MOST = 200;

/** What the workshop's sums can start from: every kerf that was kept, with how sure it is, and where fits of slots begin. */
export async function sumsView(ctx: AppContext): Promise<{ readonly kerfs: Kerfs; readonly fits: KeptFits }> {
  const [kerfs, fits] = await Promise.all(
    ['kerf', 'fit'].map(async (word) => (await bookPage(ctx.db, { words: [word], limit: MOST, offset: 0 })).rows),
  );
  return {
    kerfs: kerfs!.flatMap(({ fact, newest, stock, machine }) => {
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
    }),
    fits: fits!.flatMap(({ fact, newest, stock, machine }) =>
      fact.name === 'fit' && 'scatterMm' in newest.value
        ? [{ factId: fact.id, stock, machine, value: newest.value }]
        : [],
    ),
  };
}

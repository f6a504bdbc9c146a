import type { Kerfs, KeptFits, KeptJoints } from '../views/views';
import { bookPage } from '../db/facts';
import { asOfNow } from './book-views';
import type { AppContext } from './context';

/** Kerfs and fits of the book are few: one for each cut that was measured. */
const MOST = 200;

/** What the workshop's sums can start from: every kerf that was kept, with how sure it is, and where fits of slots, and of holes and parts, begin. */
export async function sumsView(
  ctx: AppContext,
): Promise<{ readonly kerfs: Kerfs; readonly fits: KeptFits; readonly joints: KeptJoints }> {
  const [kerfs, fits, joints] = await Promise.all(
    ['kerf', 'fit', 'mating'].map(
      async (word) => (await bookPage(ctx.db, { words: [word], limit: MOST, offset: 0 })).rows,
    ),
  );
  const { staleOf } = await asOfNow(ctx, [...kerfs!, ...fits!, ...joints!]);
  return {
    kerfs: kerfs!.flatMap((row) => {
      const { fact, newest, stock, machine } = row;
      if (fact.name !== 'kerf' || !('xMm' in newest.value && 'yMm' in newest.value)) return [];
      const { xMm, yMm } = newest.value;
      // An oval spot cuts wider along one axis: their mean would be wrong for both.
      return (
        [
          ['X', xMm],
          ['Y', yMm],
        ] as const
      ).flatMap(([axis, kerfMm]) =>
        kerfMm === null
          ? []
          : [{ factId: fact.id, axis, stock, machine, kerfMm, sigmaMm: newest.sigma, stale: staleOf(row) }],
      );
    }),
    fits: fits!.flatMap((row) => {
      const { fact, newest, stock, machine } = row;
      if (fact.name !== 'fit' || !('thicknessMm' in newest.value && 'scatterMm' in newest.value)) return [];
      return [{ factId: fact.id, stock, machine, value: newest.value, stale: staleOf(row) }];
    }),
    joints: joints!.flatMap((row) => {
      const { fact, newest, stock, machine } = row;
      if (fact.name !== 'mating' || !('holeKerfMm' in newest.value)) return [];
      const of = typeof fact.at.part === 'string' ? `, ${fact.at.part}` : '';
      return [{ factId: fact.id, stock: `${stock}${of}`, machine, value: newest.value, stale: staleOf(row) }];
    }),
  };
}

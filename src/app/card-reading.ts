import { mergeCells } from '../core/reading/merge-cells';
import type { Tx } from '../db/client';
import { holdCard, insertReading, newestReading, readingsThatCount } from '../db/readings';
import { getCard } from './cards';

/**
 * Makes anew what a card is told by, after one of its photos was read, left aside or counted again: photos that show it as it is now are merged.
 * False where none of them counts; then nothing is changed. To be called in a transaction.
 */
export async function tellAnew(tx: Tx, cardId: number): Promise<boolean> {
  await holdCard(tx, cardId);
  const { plan } = await getCard({ db: tx }, cardId);
  const all = await readingsThatCount(tx, cardId, plan.setup.finish !== 'none');
  const putRight = all.filter(({ tones }) => tones.told === 'by-two');
  // Photos whose tones were put right are not mixed with others that are taken on trust.
  const counting = putRight.length > 0 ? putRight : all;
  const [newest] = counting;
  if (!newest) return false;
  const told = await newestReading(tx, cardId);
  if (counting.length === 1 && told?.id === newest.id) return true;
  const { id, photoIds, createdAt, ...reading } = newest;
  await insertReading(tx, {
    ...reading,
    mergedFrom: counting.map((one) => one.id),
    cells: mergeCells(counting.map(({ cells }) => cells)),
  });
  return true;
}

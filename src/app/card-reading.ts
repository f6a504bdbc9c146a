import { storedPlan } from '../cards/registry';
import { isMirror } from '../core/geometry/homography';
import { lightBetween, type CellsOfPhoto } from '../core/reading/light/light-between-photos';
import { mergeCells } from '../core/reading/merge-cells';
import { areKnown } from '../core/reading/tone/tones';
import { cardById } from '../db/cards';
import type { Db, Tx } from '../db/client';
import { mergeThrough } from '../core/reading/backlit/merge-through';
import { insertThrough, isMerged, throughThatCounts } from '../db/through';
import { holdCard, insertReading, newestReading, readingsThatCount } from '../db/readings';

/** Readings of a card's photos that show it as it is now, newest first: what it is told by. */
async function countingReadings(db: Db, cardId: number) {
  const card = await cardById(db, cardId);
  const plan = card && storedPlan(card.kind, card.plan);
  const all = await readingsThatCount(db, cardId, plan?.setup.finish !== 'none');
  // Photos whose tones are known are not mixed with others of which that cannot be said: of each station, where it has several.
  return all.filter(
    (reading) =>
      areKnown(reading.tones) || !all.some(({ station, tones }) => station === reading.station && areKnown(tones)),
  );
}

const cellsOfPhoto = ({ cells, toPhoto }: Awaited<ReturnType<typeof countingReadings>>[number]): CellsOfPhoto => ({
  cells,
  isMirrored: isMirror(toPhoto),
});

/** Light over photos of a card that others of it do not have, as shares of white, by the photos' ids; none where nothing tells of any. */
export async function lightOverPhotos(db: Db, cardId: number): Promise<ReadonlyMap<number, number>> {
  const counting = await countingReadings(db, cardId);
  const { added } = lightBetween(counting.map(cellsOfPhoto));
  return new Map(counting.flatMap(({ photoId }, index) => (added[index]! > 0 ? [[photoId, added[index]!]] : [])));
}

/**
 * Makes anew what a card is told by, after one of its photos was read, left aside or counted again: photos that show it as it is now are merged.
 * False where none of them counts; then nothing is changed. To be called in a transaction.
 */
export async function tellAnew(tx: Tx, cardId: number): Promise<boolean> {
  await holdCard(tx, cardId);
  const counting = await countingReadings(tx, cardId);
  const [newest] = counting;
  if (!newest) return false;
  const told = await newestReading(tx, cardId);
  if (counting.length === 1 && told?.id === newest.id) return true;
  const { id, photoIds, createdAt, shown, ...reading } = newest;
  await insertReading(tx, {
    ...reading,
    mergedFrom: counting.map((one) => one.id),
    cells: mergeCells(counting.map(cellsOfPhoto)),
  });
  return true;
}

/**
 * Merges the photos of a card on a light table that count, where there are several and nobody did so yet. To be called in a transaction, after one
 * of them was read, left aside or counted again.
 */
export async function tellThroughAnew(tx: Tx, cardId: number): Promise<void> {
  await holdCard(tx, cardId);
  const counting = await throughThatCounts(tx, cardId);
  const [newest] = counting;
  const ids = counting.map(({ id }) => id);
  if (!newest || counting.length === 1 || (await isMerged(tx, cardId, ids))) return;
  const { id, photoIds, createdAt, ...reading } = newest;
  await insertThrough(tx, { ...reading, ...mergeThrough(counting), mergedFrom: ids });
}

import { cardKind } from '../cards/registry';
import type { GridFinding, GridWish } from '../cards/grid/find';
import type { Observations, Verdict } from '../core/card/contract';
import { insertSettingVersion, listSettings, putVerdict, verdictsOfCard, type SettingRecord } from '../db/book';
import type { CardRecord } from '../db/cards';
import { newestReading, type ReadingRecord } from '../db/photos';
import { getCard } from './cards';
import type { AppContext } from './context';
import { once } from './once';
import { notFound, Problem } from './problems';

export interface SeenCard {
  readonly card: CardRecord;
  readonly reading: ReadingRecord | null;
  readonly seen: Observations;
}

export async function seenCard(ctx: AppContext, cardId: number): Promise<SeenCard> {
  const card = await getCard(ctx, cardId);
  const [reading, verdicts] = await Promise.all([newestReading(ctx.db, cardId), verdictsOfCard(ctx.db, cardId)]);
  return { card, reading: reading ?? null, seen: { cells: reading?.cells ?? [], verdicts } };
}

export async function findInCard(ctx: AppContext, cardId: number, wish: GridWish): Promise<GridFinding> {
  const { card, seen } = await seenCard(ctx, cardId);
  return cardKind(card.kind as 'grid').find(card.layout, seen, card.madeFor, wish);
}

export async function judgeCell(ctx: AppContext, cardId: number, verdict: Verdict): Promise<Verdict[]> {
  const { layout } = await getCard(ctx, cardId);
  if (!layout.cells[verdict.cellIndex]) throw notFound(`cell of card ${layout.code}:`, verdict.cellIndex);
  await putVerdict(ctx.db, cardId, verdict);
  return verdictsOfCard(ctx.db, cardId);
}

export interface KeepRequest {
  readonly cardId: number;
  readonly cellIndex: number;
  readonly note: string;
}

/** Keeps a cell as the next version of its pairing's setting, with where it came from. */
export async function keepCell(
  ctx: AppContext,
  request: KeepRequest,
  key?: string,
): Promise<{ settingId: number; version: number }> {
  const { card, reading, seen } = await seenCard(ctx, request.cardId);
  const kind = cardKind(card.kind as 'grid');
  const wish: GridWish = { lightness: null, powerCap: 1, pace: 'fast-and-strong' };
  const draft = kind.settle(kind.find(card.layout, seen, card.madeFor, wish), card.layout, seen, request.cellIndex);
  if (!draft)
    throw new Problem('nothing-to-keep', `Cell ${request.cellIndex} of card ${card.layout.code} was not burned.`);
  const cell = reading?.cells.find((candidate) => candidate.cellIndex === request.cellIndex);
  return once(ctx, key, 'keep-setting', (tx) =>
    insertSettingVersion(tx, card.pairingId, draft.process, {
      settings: draft.settings,
      cardId: card.id,
      cellIndex: draft.cellIndex,
      photoId: cell ? reading!.photoId : null,
      readingId: cell ? reading!.id : null,
      lightness: draft.lightness,
      lightnessSigma: draft.lightnessSigma,
      confidence: cell?.confidence ?? null,
      note: request.note,
    }),
  );
}

export async function getSetting(ctx: AppContext, id: number): Promise<SettingRecord> {
  const [setting] = await listSettings(ctx.db, { settingId: id });
  if (!setting) throw notFound('setting', id);
  return setting;
}

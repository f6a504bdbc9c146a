import { cardKind } from '../cards/registry';
import { benchBurnOf } from './bench-pieces';
import { getCard } from './cards';
import type { AppContext } from './context';
import type { ExportedFile } from './exports';
import { notFound, Problem } from './problems';

export interface GaugeRequest {
  /** The ask that the reading is for. */
  readonly field: string;
  readonly cellIndex: number;
  readonly repeat: number;
}

/** Sets the gauge that a field asks for on a cell of what the bench burned, and returns what it would type. */
export async function readGauge(
  ctx: AppContext,
  cardId: number,
  { field, cellIndex, repeat }: GaugeRequest,
): Promise<{ text: string }> {
  const card = await getCard(ctx, cardId);
  const ask = cardKind(card.kind).asks.find((one) => one.field === field);
  if (ask?.by !== 'gauge') throw new Problem('invalid-input', `No gauge is asked for under “${field}”.`);
  const cell = card.layout.cells[cellIndex];
  if (!cell) throw notFound(`cell of card ${card.layout.code}:`, cellIndex);
  const burn = await benchBurnOf(ctx, card);
  const answer = await ctx.work.do('gauge', { burn, measures: ask.measures, box: cell.box, turn: repeat });
  if ('cannot' in answer) throw new Problem('cannot-measure', answer.cannot);
  return { text: answer.shows };
}

/** A picture of what the bench burned of a card, lit from below. */
export async function layOnLightTable(ctx: AppContext, cardId: number): Promise<ExportedFile & { inline: boolean }> {
  const card = await getCard(ctx, cardId);
  if (card.layout.stations)
    throw new Problem('invalid-input', 'A card that stands in several places does not lie on one light table.');
  const { png } = await ctx.work.do('light-table', { burn: await benchBurnOf(ctx, card) });
  return { name: `light-table-${card.layout.code}.png`, mediaType: 'image/png', bytes: Buffer.from(png), inline: true };
}

import type { Tapped } from '../bench/tap';
import { cardKind } from '../cards/registry';
import { isAskedOf, type Answer, type Ask } from '../core/card/asks';
import {
  asksForBend,
  asksForCount,
  asksForMates,
  asksForPush,
  asksForTap,
  COUNT,
  DROP,
  EDGE,
  FIT,
  FLAP,
  NOT_DROPPED,
  STITCH,
} from '../core/card/usual-asks';
import { answersOfCard, putAnswer } from '../db/answers';
import { benchBurnOf, waitsForHand } from './bench-pieces';
import { getCard } from './cards';
import type { AppContext } from './context';
import { cutBox, tappedOut } from './cut-box';
import type { ExportedFile } from './exports';
import type { CardRecord } from '../records/card';
import { tryMates } from './mates';
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
  const answer = await ctx.work.do('gauge', { burn, measures: ask.measures, box: cutBox(cell), turn: repeat });
  if ('cannot' in answer) throw new Problem('cannot-measure', answer.cannot);
  return { text: answer.shows };
}

/** Light that the stock beside a cut has lost where its edge is called brown, and black, and where the part is called charred (from memory, without a source). */
const BROWN_FROM = 0.08;
const BLACK_FROM = 0.25;
const CHARRED_FROM = 0.4;
/** And that its tip has lost where that is called burned away (from memory, without a source). */
const TIP_BURNED_FROM = 0.36;

/** What somebody would call what the bench's hand finds. */
function wordsOfTap({ part, edgeLoss, tipLoss }: Tapped): { readonly drop: string; readonly edge: string } {
  const drop = {
    loose: tipLoss >= TIP_BURNED_FROM ? 'tip' : edgeLoss >= CHARRED_FROM ? 'charred' : 'clean',
    fibres: 'knife',
    hangs: 'hangs',
    'not-through': 'not-through',
  }[part];
  return { drop, edge: edgeLoss >= BLACK_FROM ? 'black' : edgeLoss >= BROWN_FROM ? 'brown' : 'pale' };
}

/**
 * What a hand does with what the bench cut of a card: taps the sheet under every part and notes what drops and how its edge looks, pushes an offcut into
 * every slot, or parts into holes, and notes how it goes, where nobody has said so yet. All of it at once, or nothing.
 */
export async function tapSheet(ctx: AppContext, cardId: number): Promise<{ tapped: number }> {
  const card = await getCard(ctx, cardId);
  const { asks } = cardKind(card.kind);
  if (asksForMates(asks)) return { tapped: await tryMates(ctx, card) };
  if (asksForCount(asks)) return { tapped: await countPasses(ctx, card) };
  if (asksForBend(asks)) return { tapped: await bendFlaps(ctx, card) };
  const slotsTried = asksForPush(asks) ? await trySlots(ctx, card, asks) : null;
  if (slotsTried !== null && !asksForTap(asks)) {
    if (slotsTried.cannot !== null) throw new Problem('cannot-measure', slotsTried.cannot);
    return { tapped: slotsTried.tried };
  }
  if (!asksForTap(asks))
    throw new Problem('invalid-input', 'Nothing of this card is cut out: there is nothing to tap for.');
  const boxes = card.layout.order.map((index) => cutBox(card.layout.cells[index]!));
  const told = await ctx.work.do('tap', { burn: await benchBurnOf(ctx, card), boxes });
  const answers = await answersOfCard(ctx.db, cardId);
  let tapped = 0;
  await ctx.db.transaction().execute(async (tx) => {
    for (const [place, cellIndex] of card.layout.order.entries()) {
      const words = wordsOfTap(told[place]!);
      const said = (field: string): boolean =>
        answers.some((one) => one.field === field && one.cellIndex === cellIndex);
      if (!said(DROP.field)) {
        await putAnswer(tx, cardId, { field: DROP.field, cellIndex, repeat: 0, value: words.drop });
        tapped++;
      }
      if (asks.includes(EDGE) && !said(EDGE.field) && told[place]!.part === 'loose')
        await putAnswer(tx, cardId, { field: EDGE.field, cellIndex, repeat: 0, value: words.edge });
    }
  });
  return { tapped: tapped + (slotsTried?.tried ?? 0) };
}

/** Cells that something is asked of and that nobody has answered for. */
const openFor = (ask: Ask, { layout }: CardRecord, answers: readonly Answer[]): number[] =>
  layout.order.filter(
    (index) =>
      isAskedOf(ask, layout.cells[index]!) &&
      !answers.some(({ field, cellIndex }) => field === ask.field && cellIndex === index),
  );

/** Slots that are not open say nothing of any fit: they are left to whoever cuts them again. */
async function trySlots(
  ctx: AppContext,
  card: CardRecord,
  asks: readonly Ask[],
): Promise<{ readonly tried: number; readonly cannot: string | null }> {
  const ask = asks.find(({ field }) => field === FIT.field)!;
  const { cells } = card.layout;
  const answers = await answersOfCard(ctx.db, card.id);
  const open = openFor(ask, card, answers);
  const boxes = open.map((index) => {
    const cell = cells[index]!;
    const takes = cell.wanted?.takes && cells[cell.wanted.takes.cellIndex];
    return { ...cutBox(cell), ...(takes && { takes: cutBox(takes) }) };
  });
  const told = await ctx.work.do('try-slots', { burn: await benchBurnOf(ctx, card), boxes });
  const shut = told.find((one) => 'cannot' in one);
  const cannot = shut && 'cannot' in shut && told.every((one) => 'cannot' in one) ? shut.cannot : null;
  let tried = 0;
  await ctx.db.transaction().execute(async (tx) => {
    for (const [place, one] of told.entries()) {
      if ('cannot' in one) continue;
      await putAnswer(tx, card.id, { field: FIT.field, cellIndex: open[place]!, repeat: 0, value: one.goes });
      tried++;
    }
  });
  return { tried, cannot };
}

/**
 * Counts after which pass the part of a card dropped; nothing where somebody has said so, or where it holds at a stop between passes, and a Problem where
 * the burn has ended before all of them.
 */
async function countPasses(ctx: AppContext, card: CardRecord): Promise<number> {
  const [cell] = card.layout.cells;
  const answers = await answersOfCard(ctx.db, card.id);
  if (openFor(COUNT, card, answers).length === 0) return 0;
  const atStop = await waitsForHand(ctx, card);
  const { loose, passes } = await ctx.work.do('count-passes', {
    burn: await benchBurnOf(ctx, card, atStop),
    box: cutBox(cell!),
  });
  if (loose === null && atStop) return 0;
  if (loose === null && passes < cell!.burns.length)
    throw new Problem('cannot-measure', `It has not dropped after ${passes} passes, and the burn was stopped there.`);
  await putAnswer(ctx.db, card.id, {
    field: COUNT.field,
    cellIndex: cell!.index,
    repeat: 0,
    value: loose === null ? NOT_DROPPED : String(loose),
  });
  return 1;
}

/** Bends every flap, and looks at every row of stitches, that nobody has spoken of yet, and returns how many those were. */
async function bendFlaps(ctx: AppContext, card: CardRecord): Promise<number> {
  const answers = await answersOfCard(ctx.db, card.id);
  const [flaps, stitches] = [openFor(FLAP, card, answers), openFor(STITCH, card, answers)];
  const boxesOf = (indexes: readonly number[]) => indexes.map((index) => card.layout.cells[index]!.box);
  const told = await ctx.work.do('bend-flaps', {
    burn: await benchBurnOf(ctx, card),
    flaps: boxesOf(flaps),
    stitches: boxesOf(stitches),
  });
  const all = [
    ...told.flaps.map((value, place) => ({ field: FLAP.field, cellIndex: flaps[place]!, value })),
    ...told.stitches.map((value, place) => ({ field: STITCH.field, cellIndex: stitches[place]!, value })),
  ];
  await ctx.db.transaction().execute(async (tx) => {
    for (const one of all) await putAnswer(tx, card.id, { ...one, repeat: 0 });
  });
  return all.length;
}

/** A picture of what the bench burned of a card, lit from below. */
export async function layOnLightTable(
  ctx: AppContext,
  cardId: number,
): Promise<ExportedFile & { inline: boolean; bytes: Buffer }> {
  const card = await getCard(ctx, cardId);
  if (card.layout.stations)
    throw new Problem('invalid-input', 'A card that stands in several places does not lie on one light table.');
  const { png } = await ctx.work.do('light-table', { burn: await benchBurnOf(ctx, card), cutOut: tappedOut(card) });
  return { name: `light-table-${card.layout.code}.png`, mediaType: 'image/png', bytes: Buffer.from(png), inline: true };
}

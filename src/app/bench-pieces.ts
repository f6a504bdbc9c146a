import { benchMachineOf, benchSheetOf } from '../bench/of-records';
import * as burns from '../db/burns';
import { cardsOfRound } from '../db/cards';
import type { BurnRecord } from '../records/burn';
import type { CardRecord } from '../records/card';
import type { BenchBurn } from '../workers/protocol';
import { getCard } from './cards';
import type { AppContext } from './context';
import { Problem } from './problems';

/** Where a card lies on the bench's bed. */
export const benchPlaceOf = ({ bed, layout }: CardRecord) => ({
  ...bed,
  widthMm: layout.widthMm,
  heightMm: layout.heightMm,
  ...(layout.tilt && { tilt: layout.tilt }),
});

/** Whether a burn of a card waits for a hand, which may then look at what is burned so far: how far that is, is noted. */
export async function waitsForHand(ctx: AppContext, card: CardRecord): Promise<boolean> {
  const open = (await burns.burnsOfCard(ctx.db, card.id)).find(isUnderWay);
  return open !== undefined && (await ctx.burns.noteStop(open.id));
}

/** All that the bench has burned of a card. Throws a Problem when there is nothing, or a burn goes on that is not said to be `atStop`. */
export async function benchBurnOf(ctx: AppContext, card: CardRecord, atStop = false): Promise<BenchBurn> {
  const [all, programs] = await Promise.all([
    burns.burnsOfCard(ctx.db, card.id),
    burns.programsOfCard(ctx.db, card.id),
  ]);
  if (!atStop && all.some(isUnderWay)) throw lidIsClosed();
  const last = programs.at(-1);
  if (!last) throw new Problem('nothing-burned', `Card ${card.layout.code} has not been burned on the bench.`);
  return {
    // A whole card that was burned again lies on a fresh piece.
    programs: programs
      .slice(
        Math.max(
          0,
          programs.findLastIndex((_, index) => wholeCard(all, programs.length, index)),
        ),
      )
      .map(({ program, linesDone, hands }) => ({ text: program, lines: linesDone, hands })),
    machine: benchMachineOf(card.madeFor.machine, card.madeFor.lens),
    sheet: benchSheetOf(card.madeFor.stock),
    place: benchPlaceOf(card),
    burnSeed: last.seed,
    wiped: false,
    part: null,
  };
}

/** Whether the `index`th of a card's bench programs was of the whole card. `newestFirst` holds every burn. */
function wholeCard(newestFirst: readonly BurnRecord[], programs: number, index: number): boolean {
  const sent = newestFirst.filter((burn) => burn.place === 'bench' && burn.linesDone > 0).reverse();
  return sent.length === programs && sent[index]!.cells === null;
}

/** What lies under the bench's camera: cards that were burned beside each other are one piece. */
export interface BenchPiece {
  readonly burn: BenchBurn;
  /** The cards that a photo of it shows as they are now. */
  readonly shows: readonly CardRecord[];
  /** "CD00A-9", or "round 3". */
  readonly name: string;
}

/**
 * The piece that a card lies on: its own, or that of its round, with all that the bench burned of it. A card of a round that was burned once more lies
 * on a fresh piece by itself; what its first burn left stays on the round's. Throws a Problem when there is nothing, or a burn goes on.
 */
export async function benchPieceOf(ctx: AppContext, card: CardRecord): Promise<BenchPiece> {
  const alone = { burn: await benchBurnOf(ctx, card), shows: [card], name: card.layout.code };
  if (card.roundId === null) return alone;
  const members = await Promise.all(
    (await cardsOfRound(ctx.db, card.roundId)).map(async ({ id }) => {
      const member = await getCard(ctx, id);
      const all = await burns.burnsOfCard(ctx.db, id);
      if (all.some(isUnderWay)) throw lidIsClosed();
      const [first, ...later] = await burns.programsOfCard(ctx.db, id);
      return { member, first, isThere: later.length === 0 };
    }),
  );
  const burned = members.flatMap(({ member, first, isThere }) => (first ? [{ member, first, isThere }] : []));
  const shows = burned.filter(({ isThere }) => isThere).map(({ member }) => member);
  if (burned.length < 2 || !shows.some(({ id }) => id === card.id)) return alone;
  const places = burned.map(({ member }) => benchPlaceOf(member));
  const leftMm = Math.min(...places.map((place) => place.leftMm));
  const rearMm = Math.min(...places.map((place) => place.rearMm));
  return {
    burn: {
      ...alone.burn,
      programs: burned.map(({ first, member }) => ({
        text: first.program,
        lines: first.linesDone,
        hands: first.hands,
        place: benchPlaceOf(member),
      })),
      place: {
        leftMm,
        rearMm,
        widthMm: Math.max(...places.map((place) => place.leftMm + place.widthMm)) - leftMm,
        heightMm: Math.max(...places.map((place) => place.rearMm + place.heightMm)) - rearMm,
      },
      burnSeed: `round ${card.roundId}`,
    },
    shows,
    name: `round ${card.roundId}`,
  };
}

const isUnderWay = ({ status }: BurnRecord): boolean => status === 'running' || status === 'paused';

const lidIsClosed = (): Problem =>
  new Problem('nothing-burned', 'The burn has not ended: the lid is closed.', 'The burn goes on.');

/** A piece with the camera held over one of its cards alone. */
export function fromCloserBy({ burn, shows, name }: BenchPiece, card: CardRecord): BenchPiece {
  if (shows.length < 2) return { burn, shows, name };
  const { leftMm, rearMm, widthMm: width, heightMm: height } = benchPlaceOf(card);
  const x = leftMm - burn.place.leftMm;
  const y = rearMm - burn.place.rearMm;
  const part = { name: card.layout.code, x, y, width, height, goesOn: true };
  return { burn: { ...burn, part }, shows: [card], name: card.layout.code };
}

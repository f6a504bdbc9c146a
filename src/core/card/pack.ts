import type { Rect } from '../geometry/point';
import type { Stock } from '../stock/stock';
import type { Layout } from './layout';
import { CARD_CLEARANCE_MM, freePlace, piecesOf, type Piece } from './place';
import { areasOf } from './station';

type Size = Pick<Layout, 'widthMm' | 'heightMm'>;

/** Where each of some cards lies, in their order, and the size of all together. */
export interface Packed extends Size {
  readonly places: readonly { readonly x: number; readonly y: number }[];
}

/** Cameras see a picture this many times as wide as it is high. */
const CAMERA_ASPECT = 4 / 3;

/** Which card is laid first: rows fill best with the highest first, or the widest, or the largest; which, nobody can tell beforehand. */
const FIRST: readonly ((card: Size) => number)[] = [
  ({ heightMm }) => heightMm,
  ({ widthMm }) => widthMm,
  ({ widthMm, heightMm }) => widthMm * heightMm,
];

/**
 * Cards beside each other, `CARD_CLEARANCE_MM` apart, so that one photo of all shows each millimetre by as many pixels as can be. Each is laid in the
 * first free place of a strip; of several orders and widths of strip the one is taken that a camera comes nearest to.
 * Throws RangeError for no cards.
 *
 * Two of 30 x 20 mm lie beside each other in 62 x 20 mm, one below the other in 30 x 42; the first needs a picture 62 mm wide, the second one of 56.
 */
export function packed(cards: readonly Size[]): Packed {
  if (cards.length === 0) throw new RangeError('invalid cards: there are none');
  const widest = Math.max(...cards.map(({ widthMm }) => widthMm)) + CARD_CLEARANCE_MM;
  const tried = FIRST.flatMap((of) => {
    const order = cards.map((_, index) => index).sort((a, b) => of(cards[b]!) - of(cards[a]!));
    let width = 0;
    return order.map((index) =>
      inRows(cards, order, Math.max((width += cards[index]!.widthMm + CARD_CLEARANCE_MM), widest)),
    );
  });
  const inView = ({ widthMm, heightMm }: Size): number => Math.max(widthMm, heightMm * CAMERA_ASPECT);
  return tried.reduce((best, one) => (inView(one) < inView(best) ? one : best));
}

/** Cards one after another into the first free place of a strip. */
function inRows(cards: readonly Size[], order: readonly number[], widthMm: number): Packed {
  const strip: Piece = {
    sheetWidthMm: widthMm + CARD_CLEARANCE_MM,
    sheetDepthMm: cards.reduce((sum, card) => sum + card.heightMm + 2 * CARD_CLEARANCE_MM, CARD_CLEARANCE_MM),
    outline: { shape: 'rectangle', radiusMm: 0 },
  };
  const taken: Rect[] = [];
  const places: { x: number; y: number }[] = [];
  for (const index of order) {
    const card = cards[index]!;
    // As high as all of them under each other: there is always room.
    const { x, y } = freePlace(strip, taken, card)!;
    taken.push({ x, y, width: card.widthMm, height: card.heightMm });
    places[index] = { x: x - CARD_CLEARANCE_MM, y: y - CARD_CLEARANCE_MM };
  }
  return {
    places,
    widthMm: Math.max(...taken.map((area) => area.x + area.width)) - CARD_CLEARANCE_MM,
    heightMm: Math.max(...taken.map((area) => area.y + area.height)) - CARD_CLEARANCE_MM,
  };
}

/**
 * Places on a piece for cards that are to be burned and photographed together: beside each other where there is room for that, else each in the
 * first free place. Null where one of them finds none. Places are the upper left corners, in the order of the cards.
 */
function placesTogether(
  piece: Piece,
  used: readonly Rect[],
  cards: readonly Size[],
): readonly { readonly x: number; readonly y: number }[] | null {
  const block = packed(cards);
  const at = freePlace(piece, used, block);
  if (at) return block.places.map(({ x, y }) => ({ x: x + at.x, y: y + at.y }));
  const taken = [...used];
  const places = [];
  for (const card of cards) {
    const place = freePlace(piece, taken, card);
    if (!place) return null;
    taken.push(...areasOf(card).map((area) => ({ ...area, x: area.x + place.x, y: area.y + place.y })));
    places.push(place);
  }
  return places;
}

/**
 * The first piece of a stock, counted from 1, with room for cards that are burned together, and their places on it; null where none is left. A piece
 * on which they lie apart comes before one that is not begun.
 */
export function firstPieceFor(
  stock: Piece & Pick<Stock, 'blanks'>,
  used: readonly (Rect & { readonly piece: number })[],
  cards: readonly Size[],
): { readonly piece: number; readonly places: readonly { readonly x: number; readonly y: number }[] } | null {
  const last = Math.max(0, ...used.map((area) => area.piece));
  for (let piece = 1; piece <= Math.min(last + 1, piecesOf(stock)); piece++) {
    const places = placesTogether(
      stock,
      used.filter((area) => area.piece === piece),
      cards,
    );
    if (places) return { piece, places };
  }
  return null;
}

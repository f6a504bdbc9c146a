import { grown, rectsOverlap, type Point, type Rect } from '../geometry/point';
import { pieceHolds } from '../stock/outline';
import type { Layout } from './layout';
import { areasOf } from './station';
import type { Stock } from '../stock/stock';

/** Clear stock kept between cards and from the sheet's edge. */
export const CARD_CLEARANCE_MM = 2;

/** A sheet, or one of some counted blanks: what a card is laid on. */
export type Piece = Pick<Stock, 'sheetWidthMm' | 'sheetDepthMm' | 'outline'>;

/** What a place must have room for: a card, or the stations of one. */
type Room = Pick<Layout, 'widthMm' | 'heightMm' | 'stations'>;

/** Lattice on which places are tried on pieces that are no rectangles. */
const LATTICE_MM = 2;

const lattice = (from: number, to: number): number[] =>
  Array.from(
    { length: Math.max(0, Math.floor((to - from) / LATTICE_MM) + 1) },
    (_, index) => from + index * LATTICE_MM,
  );

/**
 * The first free place for a card on a piece of stock, upper left corner in the piece's millimetres (x right, y down): on the piece and
 * clear of the areas already used. On a sheet in reading order from the upper left; on a piece of another outline its middle first. Null
 * when no place is left. Candidates are the sheet's corner and the corners that used areas leave, so a place is found on a rectangle
 * whenever one flush with them exists; on other outlines a lattice of 2 mm as well.
 */
export function freePlace(
  piece: Piece,
  used: readonly Rect[],
  card: Room,
  clearanceMm = CARD_CLEARANCE_MM,
): { x: number; y: number } | null {
  const { widthMm: width, heightMm: height } = card;
  const isFree = (at: Point): boolean => cardIsFree(piece, used, card, at, clearanceMm);
  const round = piece.outline.shape !== 'rectangle';
  const xs = [clearanceMm, ...used.map((rect) => rect.x + rect.width + clearanceMm)];
  const ys = [clearanceMm, ...used.map((rect) => rect.y + rect.height + clearanceMm)];
  if (round) {
    const middle = { x: (piece.sheetWidthMm - width) / 2, y: (piece.sheetDepthMm - height) / 2 };
    if (isFree(middle)) return middle;
    xs.push(...lattice(0, piece.sheetWidthMm - width));
    ys.push(...lattice(0, piece.sheetDepthMm - height));
  }
  xs.sort((a, b) => a - b);
  ys.sort((a, b) => a - b);
  for (const y of ys) for (const x of xs) if (isFree({ x, y })) return { x, y };
  return null;
}

/** Whether an area lies on the piece and keeps clear of used ones. The clearance to the edge may shrink to nothing. */
export function placeIsFree(piece: Piece, used: readonly Rect[], area: Rect, clearanceMm = 0): boolean {
  return pieceHolds(piece, area) && used.every((rect) => !rectsOverlap(grown(rect, clearanceMm - 1e-6), area));
}

/** Whether a card may lie with its upper left corner at a place: all that it takes of the piece is free, what lies between its stations need not be. */
export function cardIsFree(piece: Piece, used: readonly Rect[], card: Room, at: Point, clearanceMm = 0): boolean {
  return areasOf(card).every((area) =>
    placeIsFree(piece, used, { ...area, x: at.x + area.x, y: at.y + area.y }, clearanceMm),
  );
}

/** How many pieces of a stock cards may be laid on: its blanks, or as many sheets as are cut open. */
export const piecesOf = ({ blanks }: Pick<Stock, 'blanks'>): number => blanks?.count ?? Infinity;

/**
 * The first piece of a stock with a free place for a card, counted from 1, and the place; null when every blank is taken, or the card
 * fits no empty piece at all.
 */
export function freePiece(
  stock: Piece & Pick<Stock, 'blanks'>,
  used: readonly (Rect & { readonly piece: number })[],
  card: Room,
): { readonly piece: number; readonly x: number; readonly y: number } | null {
  const last = Math.max(0, ...used.map((area) => area.piece));
  for (let piece = 1; piece <= Math.min(last + 1, piecesOf(stock)); piece++) {
    const place = freePlace(
      stock,
      used.filter((area) => area.piece === piece),
      card,
    );
    if (place) return { piece, ...place };
  }
  return null;
}

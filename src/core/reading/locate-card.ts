import { CORNER_NAMES, type CornerName, type Layout } from '../card/layout';
import { cardOfCorners, cornerOfMarker } from '../card/markers';
import { fitHomography, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import type { FoundMarker } from './find-markers';

export type Location =
  | {
      readonly found: 'card';
      readonly toPhoto: Homography;
      /** Root mean square distance of marker corners from where the map puts them, in photo pixels. */
      readonly rmsPx: number;
      readonly markers: number;
      /** Numbers of other cards in the same photo. */
      readonly alsoSeen: readonly number[];
    }
  | { readonly found: 'other-card'; readonly cardNumber: number }
  | { readonly found: 'several-cards'; readonly cardNumbers: readonly number[] }
  | { readonly found: 'too-few-markers'; readonly markers: number };

/** Card numbers that markers spell which are not this card's: those with three or more corners that agree. */
function otherCards(markers: readonly FoundMarker[]): number[] {
  const byCorner = new Map<CornerName, Set<number>>();
  for (const marker of markers) {
    const seen = cornerOfMarker(marker.id);
    if (!seen) continue;
    byCorner.set(seen.corner, (byCorner.get(seen.corner) ?? new Set()).add(seen.digit));
  }
  const numbers = new Set<number>();
  const walk = (index: number, chosen: Map<CornerName, number>): void => {
    const corner = CORNER_NAMES[index];
    if (corner === undefined) {
      const number = cardOfCorners(chosen);
      if (number !== null) numbers.add(number);
      return;
    }
    const digits = byCorner.get(corner);
    if (!digits) return walk(index + 1, chosen);
    for (const digit of digits) walk(index + 1, new Map(chosen).set(corner, digit));
  };
  walk(0, new Map());
  return [...numbers].sort((a, b) => a - b);
}

/** Corner points of a marker in card millimetres, its own upper left first, clockwise. */
export function markerCornersMm(layout: Layout, corner: CornerName): Point[] {
  const { x, y, sizeMm } = layout.frame.markers.find((marker) => marker.corner === corner)!;
  return [
    { x, y },
    { x: x + sizeMm, y },
    { x: x + sizeMm, y: y + sizeMm },
    { x, y: y + sizeMm },
  ];
}

/**
 * Finds a card by its markers: three or four of its own, each seen once, place it. Otherwise says which other card or cards the
 * markers spell, or that too few were found. The same card twice in one photo counts as several cards.
 */
export function locateCard(layout: Layout, markers: readonly FoundMarker[]): Location {
  // A frame sheet's markers are no card's.
  const ofCards = markers.filter(({ id }) => cornerOfMarker(id) !== null).length;
  // A card without markers of its own is placed by hand.
  if (layout.frame.markers.length < CORNER_NAMES.length) return { found: 'too-few-markers', markers: ofCards };
  const own = CORNER_NAMES.map((corner) => {
    const id = layout.frame.markers.find((marker) => marker.corner === corner)!.id;
    return { corner, seen: markers.filter((marker) => marker.id === id) };
  });
  const rest = markers.filter((marker) => !own.some(({ seen }) => seen.includes(marker)));
  const once = own.filter(({ seen }) => seen.length === 1);
  if (own.filter(({ seen }) => seen.length > 1).length >= 2) {
    return { found: 'several-cards', cardNumbers: [layout.cardNumber, layout.cardNumber] };
  }
  if (once.length >= 3) {
    const from: Point[] = [];
    const to: Point[] = [];
    for (const { corner, seen } of once) {
      from.push(...markerCornersMm(layout, corner));
      to.push(...seen[0]!.corners);
    }
    const { homography, rmsError } = fitHomography(from, to);
    return { found: 'card', toPhoto: homography, rmsPx: rmsError, markers: once.length, alsoSeen: otherCards(rest) };
  }
  const others = otherCards(markers).filter((number) => number !== layout.cardNumber);
  if (others.length === 1) return { found: 'other-card', cardNumber: others[0]! };
  if (others.length > 1) return { found: 'several-cards', cardNumbers: others };
  return { found: 'too-few-markers', markers: ofCards };
}

import { CORNER_NAMES, type CornerName, type Layout } from '../card/layout';
import { cardOfCorners, cornerOfMarker } from '../card/markers';
import type { Homography } from '../geometry/homography';
import type { FoundMarker } from './find-markers';
import { markersOfCard, placedByMarkers, type MarkersOfCard } from './markers-of-card';

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

/**
 * Finds a card by its markers: three or four of its own that lie by each other as the card has them place it, and so does what else is seen of it
 * once where none do; how far they are off then says how much it is worth. Otherwise says which other card or cards the markers spell, or that too
 * few were found. The same card twice in one photo counts as several cards.
 */
export function locateCard(layout: Layout, markers: readonly FoundMarker[]): Location {
  // A frame sheet's markers are no card's.
  const ofCards = markers.filter(({ id }) => cornerOfMarker(id) !== null).length;
  // A card without markers of its own is placed by hand.
  if (layout.frame.markers.length < CORNER_NAMES.length) return { found: 'too-few-markers', markers: ofCards };
  const placed = markersOfCard(layout, markers) ?? believed(layout, markers);
  if (placed) {
    const rest = markers.filter((marker) => !placed.markers.includes(marker));
    if (markersOfCard(layout, rest))
      return { found: 'several-cards', cardNumbers: [layout.cardNumber, layout.cardNumber] };
    const { toPhoto, rmsPx } = placed;
    return { found: 'card', toPhoto, rmsPx, markers: placed.markers.length, alsoSeen: otherCards(rest) };
  }
  const others = otherCards(markers).filter((number) => number !== layout.cardNumber);
  if (others.length === 1) return { found: 'other-card', cardNumber: others[0]! };
  if (others.length > 1) return { found: 'several-cards', cardNumbers: others };
  return { found: 'too-few-markers', markers: ofCards };
}

/** Three or four markers that are seen once, wherever they lie. */
function believed(layout: Layout, markers: readonly FoundMarker[]): MarkersOfCard | null {
  const once = layout.frame.markers.flatMap(({ corner, id }) => {
    const seen = markers.filter((marker) => marker.id === id);
    return seen.length === 1 ? [[corner, seen[0]!] as const] : [];
  });
  return once.length >= 3 ? placedByMarkers(layout, Object.fromEntries(once)) : null;
}

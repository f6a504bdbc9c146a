import type { Layout } from '../card/layout';
import type { RgbImage } from '../image/raster';
import { atLeast, findMarkers, type FoundMarker } from './find-markers';
import { isOfSheet } from './sheet/locate-sheet';

const CORNERS = 4;
/** Markers of a card and of a frame sheet around it. */
const CARD_AND_SHEET = 2 * CORNERS;

/**
 * Markers in a photo of a card; where a frame sheet lies around it, its own and the card's. Among other cards the card's own are looked for until
 * all four are found; a photo in which four are found, and none of them its own, is one of another card.
 */
export function findMarkersOfCard(photo: RgbImage, { frame }: Pick<Layout, 'frame'>): FoundMarker[] {
  const found = findMarkers(photo, (markers) => {
    const own = frame.markers.filter(({ id }) => markers.some((marker) => marker.id === id)).length;
    return markers.length >= CORNERS && (own === 0 || own >= CORNERS);
  });
  // A sheet's markers are large and found first: the card's must be looked for beside them.
  const sheetToo = found.length < CARD_AND_SHEET && found.some(isOfSheet);
  return sheetToo ? findMarkers(photo, atLeast(CARD_AND_SHEET)) : found;
}

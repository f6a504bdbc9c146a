import { hasMarkers, type Layout } from '../card/layout';
import { rectRing } from '../card/shape';
import { fitHomography, movedOrigin, project, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import type { RgbImage } from '../image/raster';
import type { FoundMarker } from './find-markers';
import { aroundCells, CLEAR_ENOUGH, cellsBeyond, fitCells } from './fit-cells';
import { locateCard } from './locate-card';
import { locateOnPiece } from './locate-on-piece';
import { isClockwiseQuad } from './quad';
import { locateSheet } from './sheet/locate-sheet';
import { placeOnSheet } from './sheet/place-on-sheet';
import { scaleAtCentre, straightened } from './straighten';

/** Where a card lies in its photo. */
export interface PlacedCard {
  readonly toPhoto: Homography;
  /** Root mean square distance of marker corners from where the map puts them, in photo pixels; 0 for corners set by hand. */
  readonly rmsPx: number;
  readonly markers: number;
  /** Numbers of other cards in the same photo. */
  readonly alsoSeen: readonly number[];
}

/** Why a card is not placed. */
export type NotPlaced =
  | { readonly outcome: 'other-card'; readonly cardNumber: number }
  | { readonly outcome: 'several-cards'; readonly cardNumbers: readonly number[] }
  | { readonly outcome: 'needs-corners'; readonly markers: number }
  | {
      readonly outcome: 'unreadable';
      readonly reason: 'bad-corners' | 'no-cells' | 'other-cells' | 'more-cells';
    };

/** Places a card by its markers; where too few of them are found by themselves, by the outline of its piece and what they should look like. */
export function placeByMarkers(photo: RgbImage, layout: Layout, found: readonly FoundMarker[]): PlacedCard | NotPlaced {
  const location = locateCard(layout, found);
  if (location.found === 'card') return location;
  if (location.found === 'other-card') return { outcome: 'other-card', cardNumber: location.cardNumber };
  if (location.found === 'several-cards') return { outcome: 'several-cards', cardNumbers: location.cardNumbers };
  const onPiece = locateOnPiece(photo, layout);
  return onPiece ? { ...onPiece, alsoSeen: [] } : { outcome: 'needs-corners', markers: location.markers };
}

/** How far a card whose cells were fitted on a frame sheet may lie beside where it is put, in mm. */
const FITTED_ERROR_MM = 0.15;

/**
 * Places a card that has no markers by the frame sheet it lies on: the sheet tells the scale and the slant, the card's own cells where it lies on
 * it. Corners are asked for where the photo shows no sheet, or the card is not found on it. `onFitting` is told before.
 */
export function placeBySheet(
  photo: RgbImage,
  layout: Layout,
  found: readonly FoundMarker[],
  onFitting?: () => void,
): PlacedCard | NotPlaced {
  const place = locateSheet(found);
  if (!place) return { outcome: 'needs-corners', markers: 0 };
  onFitting?.();
  const about = placeOnSheet(photo, layout, place);
  const fitted = about && fittedByCells(photo, layout, about);
  return fitted === null || typeof fitted === 'string'
    ? { outcome: 'needs-corners', markers: 0 }
    : { toPhoto: fitted, rmsPx: FITTED_ERROR_MM * scaleAtCentre(fitted, layout), markers: 0, alsoSeen: [] };
}

/**
 * Places a card by its corners in photo pixels, from the upper left, clockwise. One without markers has no corners to be seen: its corner cells have,
 * and all its cells are fitted from there; `onFitting` is told before.
 */
export function placeByCorners(
  photo: RgbImage,
  layout: Layout,
  corners: readonly Point[],
  onFitting?: () => void,
): PlacedCard | NotPlaced {
  if (!isClockwiseQuad(corners)) return { outcome: 'unreadable', reason: 'bad-corners' };
  const whole = { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm };
  const dragged = fitHomography(rectRing(hasMarkers(layout) ? whole : layout.inner), corners).homography;
  const placed = { rmsPx: 0, markers: 0, alsoSeen: [] };
  if (hasMarkers(layout)) return { ...placed, toPhoto: dragged };
  onFitting?.();
  const fitted = fittedByCells(photo, layout, dragged);
  return typeof fitted === 'string' ? { outcome: 'unreadable', reason: fitted } : { ...placed, toPhoto: fitted };
}

/** Cells this much narrower or wider than was told would be read at their borders. */
const WIDTH_SLACK = 0.2;

/** The map of a card's photo with its cells fitted, from about where they lie; why not where they are not found. */
function fittedByCells(
  photo: RgbImage,
  layout: Layout,
  dragged: Homography,
): Homography | 'no-cells' | 'other-cells' | 'more-cells' {
  const { x, y } = fitCells(straightened(photo, dragged, layout), layout);
  if (Math.min(x.clear, y.clear) < CLEAR_ENOUGH) return 'no-cells';
  if (Math.max(Math.abs(x.width - 1), Math.abs(y.width - 1)) > WIDTH_SLACK) return 'other-cells';
  const told = rectRing(layout.inner);
  const seen = told.map((corner) => project(dragged, x.startMm + x.scale * corner.x, y.startMm + y.scale * corner.y));
  const fitted = fitHomography(told, seen).homography;
  const around = aroundCells(layout);
  const wide = straightened(photo, movedOrigin(fitted, around), layout, undefined, around);
  return cellsBeyond(wide, layout).length > 0 ? 'more-cells' : fitted;
}

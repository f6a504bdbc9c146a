import { CORNER_NAMES, type CornerName, type Layout } from '../card/layout';
import { fitHomography, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import type { FoundMarker } from './find-markers';

/** Markers of one card, one for each corner that is seen, and where they put it. */
export interface MarkersOfCard {
  readonly markers: readonly FoundMarker[];
  readonly toPhoto: Homography;
  /** Root mean square distance of marker corners from where the map puts them, in photo pixels. */
  readonly rmsPx: number;
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
 * Markers of a card lie by each other to less than this, even where a bow puts one off by two millimetres: a map bends a good deal after its
 * corners. One of a neighbour, which is off by a card's width, leaves 1 mm and more.
 */
const TOGETHER_MM = 0.25;
/** Choices that are tried: more are a photo of dozens of cards. */
const MOST_CHOICES = 1500;

type Choice = Partial<Record<CornerName, FoundMarker>>;

/** What markers chosen for corners say together: null where they lie in no plane at all. */
export function placedByMarkers(layout: Layout, choice: Choice): MarkersOfCard | null {
  const from: Point[] = [];
  const to: Point[] = [];
  const markers: FoundMarker[] = [];
  for (const corner of CORNER_NAMES) {
    const marker = choice[corner];
    if (!marker) continue;
    from.push(...markerCornersMm(layout, corner));
    to.push(...marker.corners);
    markers.push(marker);
  }
  try {
    const { homography, rmsError } = fitHomography(from, to);
    return { markers, toPhoto: homography, rmsPx: rmsError };
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** Photo pixels for each millimetre, by the sides of markers: a map that fits nothing has no scale worth going by. */
function pxPerMmOf(layout: Layout, choice: Choice): number {
  const sides = layout.frame.markers.flatMap(({ corner, sizeMm }) => {
    const corners = choice[corner]?.corners ?? [];
    return corners.map(({ x, y }, index) => {
      const next = corners[(index + 1) % corners.length]!;
      return Math.hypot(next.x - x, next.y - y) / sizeMm;
    });
  });
  return sides.reduce((sum, side) => sum + side, 0) / sides.length;
}

/** Every way to choose one marker for each of the corners. */
function choicesOf(
  corners: readonly CornerName[],
  seen: Readonly<Record<CornerName, readonly FoundMarker[]>>,
): Choice[] {
  return corners.reduce<Choice[]>(
    (choices, corner) =>
      choices.flatMap((choice) => seen[corner].map((marker): Choice => ({ ...choice, [corner]: marker }))),
    [{}],
  );
}

/**
 * Which of the markers in a photo are a card's: cards that were numbered in a row share markers, and lie beside each other. Of all ways to choose
 * one for each corner the one whose markers lie by each other as the card has them, four where there are four, or else three; null where none do.
 */
export function markersOfCard(layout: Layout, markers: readonly FoundMarker[]): MarkersOfCard | null {
  const seen = Object.fromEntries(
    layout.frame.markers.map(({ corner, id }) => [corner, markers.filter((marker) => marker.id === id)]),
  ) as Record<CornerName, FoundMarker[]>;
  const corners = CORNER_NAMES.filter((corner) => seen[corner].length > 0);
  const sets = [corners, ...(corners.length === 4 ? corners.map((left) => corners.filter((one) => one !== left)) : [])];
  const byCount = [4, 3].map((count) => sets.filter((set) => set.length === count));
  for (const same of byCount) {
    const choices = same.flatMap((set) => choicesOf(set, seen));
    if (choices.length > MOST_CHOICES) return null;
    const together = choices.flatMap((choice) => {
      const placed = placedByMarkers(layout, choice);
      return placed && placed.rmsPx < TOGETHER_MM * pxPerMmOf(layout, choice) ? [placed] : [];
    });
    const [first, ...others] = together;
    if (first) return others.reduce((best, one) => (one.rmsPx < best.rmsPx ? one : best), first);
  }
  return null;
}

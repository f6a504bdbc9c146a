import { fitHomography, project, type Homography } from '../../geometry/homography';
import type { Point } from '../../geometry/point';
import { frameSheet, SHEET_FORMATS, SHEET_MARKER_IDS, type FrameSheet } from '../../sheet/frame-sheet';
import type { FoundMarker } from '../find-markers';

/** Where a frame sheet lies in a photo. */
export interface SheetPlace {
  readonly sheet: FrameSheet;
  /** Map from mm of the sheet to photo pixels. */
  readonly toPhoto: Homography;
  readonly markers: number;
  /** Root mean square distance of marker corners from where a flat sheet has them, in mm: a folded or bent sheet shows here. */
  readonly errorMm: number;
}

/** Marker corners further from a flat sheet's than this on the average: it is folded, or bent. */
const FLAT_MM = 0.3;

export const isFlat = ({ errorMm }: Pick<SheetPlace, 'errorMm'>): boolean => errorMm <= FLAT_MM;

const LEAST_MARKERS = 3;

const IDS: ReadonlySet<number> = new Set(Object.values(SHEET_MARKER_IDS));

/** Whether a marker is one of a frame sheet's. */
export const isOfSheet = ({ id }: Pick<FoundMarker, 'id'>): boolean => IDS.has(id);

function placed(sheet: FrameSheet, seen: ReadonlyMap<number, FoundMarker>): SheetPlace {
  const from: Point[] = [];
  const to: Point[] = [];
  for (const { id, x, y, sizeMm } of sheet.markers) {
    const marker = seen.get(id);
    if (!marker) continue;
    from.push({ x, y }, { x: x + sizeMm, y }, { x: x + sizeMm, y: y + sizeMm }, { x, y: y + sizeMm });
    to.push(...marker.corners);
  }
  const { homography, rmsError } = fitHomography(from, to);
  const place = { sheet, toPhoto: homography };
  return { ...place, markers: seen.size, errorMm: rmsError / pxPerMmOf(place) };
}

/** Photo pixels for each millimetre across the middle of a sheet. */
export function pxPerMmOf({ sheet, toPhoto }: Pick<SheetPlace, 'sheet' | 'toPhoto'>): number {
  const [x, y] = [sheet.widthMm / 2, sheet.heightMm / 2];
  const [left, right] = [project(toPhoto, x - 0.5, y), project(toPhoto, x + 0.5, y)];
  return Math.hypot(right.x - left.x, right.y - left.y);
}

/**
 * The frame sheet among a photo's markers: three or four of its own, each seen once. Which paper it is printed on is told by how large the
 * markers are beside the distance between them. Null where there is none.
 */
export function locateSheet(markers: readonly FoundMarker[]): SheetPlace | null {
  const seen = new Map<number, FoundMarker>();
  for (const id of Object.values(SHEET_MARKER_IDS)) {
    const own = markers.filter((marker) => marker.id === id);
    if (own.length === 1) seen.set(id, own[0]!);
  }
  if (seen.size < LEAST_MARKERS) return null;
  const places = SHEET_FORMATS.map((format) => placed(frameSheet(format), seen));
  return places.reduce((best, place) => (place.errorMm < best.errorMm ? place : best));
}

import { MARKER_MODULES } from '../card/markers';
import { darkerThanAround } from '../image/adaptive-threshold';
import { blobsOf } from '../image/blobs';
import { grayOfPart, grayShrunk, inverted } from '../image/gray';
import { softened } from '../image/soften';
import type { RgbImage } from '../image/raster';
import { decodeMarker } from './decode-marker';
import { quadOfOutline, type Quad } from './quad';
import { refineCorners } from './refine-corners';

export interface FoundMarker {
  readonly id: number;
  readonly wrongBits: number;
  /** Outer corners in photo pixels, the marker's own upper left first, clockwise. */
  readonly corners: Quad;
  /** Whether the marker is light on dark, as on slate. */
  readonly lightOnDark: boolean;
}

interface Sweep {
  readonly longestSidePx: number;
  readonly radiusShare: number;
  readonly offset: number;
  /** Markers are hatched by few lines: a window of about their pitch makes them solid. */
  readonly softenPx: number;
}

/** From the sweep that nearly always does to the ones for weak marks, small markers and broad shadows. */
const SWEEPS: readonly Sweep[] = [
  { longestSidePx: 1600, radiusShare: 1 / 50, offset: 5, softenPx: 5 },
  { longestSidePx: 1600, radiusShare: 1 / 50, offset: 7, softenPx: 1 },
  { longestSidePx: 1600, radiusShare: 1 / 25, offset: 3, softenPx: 7 },
  { longestSidePx: 2600, radiusShare: 1 / 60, offset: 4, softenPx: 5 },
  { longestSidePx: 1000, radiusShare: 1 / 30, offset: 4, softenPx: 3 },
];

/** Markers smaller than this in the shrunk image cannot be decoded. */
const LEAST_SIDE_PX = 18;

/** Enough markers, whichever they are. */
export const atLeast =
  (count: number) =>
  (found: readonly FoundMarker[]): boolean =>
    found.length >= count;

/**
 * Square markers of the 36h12 dictionary anywhere in a photo, dark on light and light on dark, with corners refined to a
 * fraction of a pixel. Sweeps go on until what was found is enough (any four markers, unless said otherwise) or all have run. One marker that
 * is found twice is returned once; two markers with one id in different places are both returned.
 */
export function findMarkers(
  photo: RgbImage,
  isEnough: (found: readonly FoundMarker[]) => boolean = atLeast(4),
): FoundMarker[] {
  const found: FoundMarker[] = [];
  for (const sweep of SWEEPS) {
    const factor = Math.max(1, Math.round(Math.max(photo.width, photo.height) / sweep.longestSidePx));
    const small = softened(grayShrunk(photo, factor), sweep.softenPx);
    const radius = Math.max(4, Math.round(Math.max(small.width, small.height) * sweep.radiusShare));
    for (const lightOnDark of [false, true]) {
      if (isEnough(found)) break;
      const image = lightOnDark ? inverted(small) : small;
      const mask = darkerThanAround(image, radius, sweep.offset);
      const blobs = blobsOf(mask, image.width, image.height, LEAST_SIDE_PX, Math.max(image.width, image.height) / 3);
      for (const blob of blobs) {
        const quad = quadOfOutline(blob.outline);
        const decoded = quad && decodeMarker(image, quad);
        if (!decoded) continue;
        // Pixel centres of the shrunk image lie half a factor into the photo's.
        const corners = decoded.corners.map((p) => ({
          x: p.x * factor + (factor - 1) / 2,
          y: p.y * factor + (factor - 1) / 2,
        })) as unknown as Quad;
        if (found.some((other) => samePlace(other.corners, corners))) continue;
        found.push({ id: decoded.id, wrongBits: decoded.wrongBits, corners, lightOnDark });
      }
    }
    if (isEnough(found)) break;
  }
  return found.map((marker) => ({ ...marker, corners: cornersInPhoto(photo, marker) }));
}

/** A marker's corners refined on the photo itself, its hatch made even: only the part around it is worked on. */
function cornersInPhoto(photo: RgbImage, { corners, lightOnDark }: FoundMarker): Quad {
  const module = Math.hypot(corners[1].x - corners[0].x, corners[1].y - corners[0].y) / MARKER_MODULES;
  const margin = 2 * module + 4;
  const xs = corners.map(({ x }) => x);
  const ys = corners.map(({ y }) => y);
  const left = Math.max(0, Math.floor(Math.min(...xs) - margin));
  const top = Math.max(0, Math.floor(Math.min(...ys) - margin));
  const right = Math.min(photo.width, Math.ceil(Math.max(...xs) + margin));
  const bottom = Math.min(photo.height, Math.ceil(Math.max(...ys) + margin));
  const softenedPx = module / 2;
  const part = softened(grayOfPart(photo, { x: left, y: top, width: right - left, height: bottom - top }), softenedPx);
  const local = corners.map(({ x, y }) => ({ x: x - left, y: y - top })) as unknown as Quad;
  const refined = refineCorners(lightOnDark ? inverted(part) : part, local, {
    reachPx: Math.max(3, 0.7 * module),
    softenedPx,
  });
  return refined.map(({ x, y }) => ({ x: x + left, y: y + top })) as unknown as Quad;
}

function samePlace(a: Quad, b: Quad): boolean {
  const side = Math.hypot(a[0].x - a[1].x, a[0].y - a[1].y);
  const ax = (a[0].x + a[2].x) / 2;
  const ay = (a[0].y + a[2].y) / 2;
  return Math.hypot(ax - (b[0].x + b[2].x) / 2, ay - (b[0].y + b[2].y) / 2) < side / 2;
}

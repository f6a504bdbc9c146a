import { CORNER_NAMES, type Layout } from '../card/layout';
import { MARKER_MODULES, markerModules } from '../card/markers';
import { fitHomography, project, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import { blobsInPlace } from '../image/blobs';
import { shrink } from '../image/gray';
import type { GrayImage } from '../image/raster';
import { markerCornersMm } from './locate-card';
import { convexHull } from './quad';

/** The longest side of the picture in which the piece is looked for. */
const SMALL_PX = 700;
/** Share of the picture that the piece takes at the least. */
const LEAST_SHARE = 0.06;
/** How alike a marker and its pattern must look, as a correlation. */
const ALIKE = 0.6;
const LEAST_MARKERS = 3;

/** The gray that parts a picture best into dark and light. Source: N. Otsu, IEEE Trans. Systems, Man and Cybernetics 9 (1979) 62. */
export function partingGray({ data }: GrayImage): number {
  const counts = new Float64Array(256);
  for (const value of data) counts[value]!++;
  const total = data.length;
  let sum = 0;
  for (let gray = 0; gray < 256; gray++) sum += gray * counts[gray]!;
  let below = 0;
  let belowSum = 0;
  let best = -1;
  let parting = 127;
  for (let gray = 0; gray < 255; gray++) {
    below += counts[gray]!;
    belowSum += gray * counts[gray]!;
    if (below === 0 || below === total) continue;
    const apart = below * (total - below) * (belowSum / below - (sum - belowSum) / (total - below)) ** 2;
    if (apart > best) [best, parting] = [apart, gray];
  }
  return parting;
}

/** The four longest sides of a convex outline, made to meet; null where no four of them do. Corners that are cut off are put back. */
export function sidesMeet(hull: readonly Point[]): Point[] | null {
  // Sides that hardly turn are one.
  const sides: { from: Point; to: Point; length: number; angle: number }[] = [];
  const n = hull.length;
  for (let k = 0; k < n; k++) {
    const [from, to] = [hull[k]!, hull[(k + 1) % n]!];
    const angle = Math.atan2(to.y - from.y, to.x - from.x);
    const last = sides.at(-1);
    const turn = last ? Math.abs(Math.atan2(Math.sin(angle - last.angle), Math.cos(angle - last.angle))) : Infinity;
    if (last && turn < 0.12) {
      sides[sides.length - 1] = {
        from: last.from,
        to,
        length: Math.hypot(to.x - last.from.x, to.y - last.from.y),
        angle: Math.atan2(to.y - last.from.y, to.x - last.from.x),
      };
    } else sides.push({ from, to, length: Math.hypot(to.x - from.x, to.y - from.y), angle });
  }
  if (sides.length < 4) return null;
  const longest = [...sides].sort((a, b) => b.length - a.length).slice(0, 4);
  const round = sides.filter((side) => longest.includes(side));
  const corners = round.map((side, index) => {
    const next = round[(index + 1) % 4]!;
    const [ax, ay] = [side.to.x - side.from.x, side.to.y - side.from.y];
    const [bx, by] = [next.to.x - next.from.x, next.to.y - next.from.y];
    const det = ax * by - ay * bx;
    const share = ((next.from.x - side.from.x) * by - (next.from.y - side.from.y) * bx) / det;
    return { x: side.from.x + share * ax, y: side.from.y + share * ay };
  });
  return corners.every(({ x, y }) => Number.isFinite(x) && Number.isFinite(y)) ? corners : null;
}

/** Outlines of what may be the piece, lighter or darker than what lies around it, as four corners in photo pixels. */
function piecesIn(gray: GrayImage): Point[][] {
  const factor = Math.max(1, Math.round(Math.max(gray.width, gray.height) / SMALL_PX));
  const small = shrink(gray, factor);
  const parting = partingGray(small);
  const { width, height } = small;
  return [true, false].flatMap((lighter) => {
    const mask = Uint8Array.from(small.data, (value) => (value > parting === lighter ? 1 : 0));
    const largest = blobsInPlace(mask, width, height, Math.sqrt(LEAST_SHARE) * Math.min(width, height), Math.max(width, height))
      .sort((a, b) => b.pixels - a.pixels)
      .at(0); // prettier-ignore
    if (!largest || largest.pixels < LEAST_SHARE * width * height) return [];
    const corners = sidesMeet(convexHull(largest.outline));
    return corners
      ? [corners.map(({ x, y }) => ({ x: x * factor + (factor - 1) / 2, y: y * factor + (factor - 1) / 2 }))]
      : [];
  });
}

interface Pattern {
  /** Places over the marker in card mm, and whether each is burned. */
  readonly places: readonly Point[];
  readonly burned: readonly number[];
  readonly corners: readonly Point[];
}

const LOOKS = 2;

function patternsOf(layout: Layout): Pattern[] {
  return CORNER_NAMES.map((corner) => {
    const { id, x, y, sizeMm } = layout.frame.markers.find((marker) => marker.corner === corner)!;
    const modules = markerModules(id);
    const side = MARKER_MODULES * LOOKS;
    const places = Array.from({ length: side * side }, (_, k) => ({
      x: x + (((k % side) + 0.5) / side) * sizeMm,
      y: y + ((Math.floor(k / side) + 0.5) / side) * sizeMm,
    }));
    const burned = places.map((_, k) =>
      modules[Math.floor(Math.floor(k / side) / LOOKS) * MARKER_MODULES + Math.floor((k % side) / LOOKS)] ? -1 : 1,
    );
    return { places, burned, corners: markerCornersMm(layout, corner) };
  });
}

function grayAt({ data, width, height }: GrayImage, { x, y }: Point): number {
  const column = Math.max(0, Math.min(width - 2, Math.floor(x)));
  const row = Math.max(0, Math.min(height - 2, Math.floor(y)));
  const fx = Math.max(0, Math.min(1, x - column));
  const fy = Math.max(0, Math.min(1, y - row));
  const at = row * width + column;
  const top = data[at]! * (1 - fx) + data[at + 1]! * fx;
  return top * (1 - fy) + (data[at + width]! * (1 - fx) + data[at + width + 1]! * fx) * fy;
}

/** Correlation of what the photo shows with a marker's pattern, where the map puts it, moved by so many mm. */
function likeness(gray: GrayImage, map: Homography, { places, burned }: Pattern, dx: number, dy: number): number {
  let [s, ss, p, pp, sp] = [0, 0, 0, 0, 0];
  for (let k = 0; k < places.length; k++) {
    const seen = grayAt(gray, project(map, places[k]!.x + dx, places[k]!.y + dy));
    const wanted = burned[k]!;
    s += seen;
    ss += seen * seen;
    p += wanted;
    pp += wanted * wanted;
    sp += seen * wanted;
  }
  const n = places.length;
  const spread = (ss - (s * s) / n) * (pp - (p * p) / n);
  return spread > 0 ? (sp - (s * p) / n) / Math.sqrt(spread) : 0;
}

/** Where a marker looks most like its pattern, on a lattice around where the map puts it. */
function best(gray: GrayImage, map: Homography, pattern: Pattern, step: number, steps: number, sign: number) {
  let found = { dx: 0, dy: 0, alike: -Infinity };
  for (let v = -steps; v <= steps; v++)
    for (let u = -steps; u <= steps; u++) {
      const alike = sign * likeness(gray, map, pattern, u * step, v * step);
      if (alike > found.alike) found = { dx: u * step, dy: v * step, alike };
    }
  return found;
}

export interface PlacedOnPiece {
  readonly toPhoto: Homography;
  readonly rmsPx: number;
  readonly markers: number;
}

/**
 * Finds a card whose markers run into what lies around it, as on a piece that was cut off along them: the piece's own outline tells about where
 * they are, to some millimetres, and each is then moved to where it looks most like its pattern. Null where fewer than three do.
 */
export function locateOnPiece(gray: GrayImage, layout: Layout): PlacedOnPiece | null {
  if (layout.frame.markers.length < CORNER_NAMES.length) return null;
  const patterns = patternsOf(layout);
  const told = [[0, 0], [layout.widthMm, 0], [layout.widthMm, layout.heightMm], [0, layout.heightMm]].map(([x, y]) => ({ x: x!, y: y! })); // prettier-ignore
  for (const piece of piecesIn(gray))
    for (let turn = 0; turn < 4; turn++)
      for (const sign of [1, -1]) {
        let map = fitHomography(told, told.map((_, k) => piece[(k + turn) % 4]!)).homography; // prettier-ignore
        let rmsPx = Infinity;
        let markers = 0;
        for (const [step, steps] of [[0.3, 9], [0.1, 4], [0.03, 4], [0.01, 4]] as const) {
          const from: Point[] = [];
          const to: Point[] = [];
          markers = 0;
          for (const pattern of patterns) {
            const { dx, dy, alike } = best(gray, map, pattern, step, steps, sign);
            if (alike < ALIKE) continue;
            markers++;
            from.push(...pattern.corners);
            to.push(...pattern.corners.map(({ x, y }) => project(map, x + dx, y + dy)));
          }
          if (markers < LEAST_MARKERS) break;
          const { homography, rmsError } = fitHomography(from, to);
          [map, rmsPx] = [homography, rmsError];
        } // prettier-ignore
        if (markers >= LEAST_MARKERS) return { toPhoto: map, rmsPx, markers };
      }
  return null;
}

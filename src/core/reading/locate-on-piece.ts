import { CORNER_NAMES, type Layout } from '../card/layout';
import { MARKER_MODULES, markerModules } from '../card/markers';
import { fitHomography, project, type Homography } from '../geometry/homography';
import type { Point } from '../geometry/point';
import { blobsOf } from '../image/blobs';
import { grayOfRgb, shrink } from '../image/gray';
import { grayBetween } from '../image/gray-between';
import type { GrayImage, RgbImage } from '../image/raster';
import { markerCornersMm } from './markers-of-card';
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
    const mask = small.data.map((value) => (value > parting === lighter ? 1 : 0));
    const largest = blobsOf(
      mask,
      width,
      height,
      Math.sqrt(LEAST_SHARE) * Math.min(width, height),
      Math.max(width, height),
    )
      .sort((a, b) => b.pixels - a.pixels)
      .at(0);
    if (!largest || largest.pixels < LEAST_SHARE * width * height) return [];
    const corners = sidesMeet(convexHull(largest.outline));
    return corners
      ? [corners.map(({ x, y }) => ({ x: x * factor + (factor - 1) / 2, y: y * factor + (factor - 1) / 2 }))]
      : [];
  });
}

/** Places over a marker in card mm, and whether each is burned. */
interface Pattern {
  readonly places: readonly Point[];
  readonly burned: readonly number[];
}

interface Sought {
  /** One place and four places in each of its squares: to find it, and to lay it. */
  readonly coarse: Pattern;
  readonly fine: Pattern;
  readonly corners: readonly Point[];
}

function soughtIn(layout: Layout): Sought[] {
  return CORNER_NAMES.map((corner) => {
    const { id, x, y, sizeMm } = layout.frame.markers.find((marker) => marker.corner === corner)!;
    const modules = markerModules(id);
    const pattern = (looks: number): Pattern => {
      const side = MARKER_MODULES * looks;
      const all = Array.from({ length: side * side }, (_, k) => [k % side, Math.floor(k / side)] as const);
      return {
        places: all.map(([u, v]) => ({ x: x + ((u + 0.5) / side) * sizeMm, y: y + ((v + 0.5) / side) * sizeMm })),
        burned: all.map(([u, v]) => (modules[Math.floor(v / looks) * MARKER_MODULES + Math.floor(u / looks)] ? -1 : 1)),
      };
    };
    return { coarse: pattern(1), fine: pattern(2), corners: markerCornersMm(layout, corner) };
  });
}

/** What lies beyond the photo looks like its edge. */
const grayAt = (gray: GrayImage, { x, y }: Point): number =>
  grayBetween(gray, Math.max(0, Math.min(gray.width - 1, x)), Math.max(0, Math.min(gray.height - 1, y)));

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

interface Found {
  readonly dx: number;
  readonly dy: number;
  readonly alike: number;
}

/** Where a marker looks most like its pattern, and where most like its negative, on a lattice around where the map puts it. */
function bestPlaces(
  gray: GrayImage,
  map: Homography,
  pattern: Pattern,
  step: number,
  steps: number,
): { dark: Found; light: Found } {
  let dark = { dx: 0, dy: 0, alike: -Infinity };
  let light = dark;
  for (let v = -steps; v <= steps; v++)
    for (let u = -steps; u <= steps; u++) {
      const [dx, dy] = [u * step, v * step];
      const alike = likeness(gray, map, pattern, dx, dy);
      if (alike > dark.alike) dark = { dx, dy, alike };
      if (-alike > light.alike) light = { dx, dy, alike: -alike };
    }
  return { dark, light };
}

export interface PlacedOnPiece {
  readonly toPhoto: Homography;
  readonly rmsPx: number;
  readonly markers: number;
}

/** The lattice that finds a marker, and those that lay it, in mm: each goes as far as the one before it steps. */
const FINDING = { step: 0.3, steps: 9 } as const;
const LAYING = [
  { step: 0.1, steps: 4 },
  { step: 0.03, steps: 4 },
  { step: 0.01, steps: 4 },
] as const;

/** The map moved to where enough markers were found; null where too few look like their patterns. */
function moved(sought: readonly Sought[], map: Homography, found: readonly Found[]): PlacedOnPiece | null {
  const alike = sought.flatMap(({ corners }, index) => {
    const { dx, dy, alike } = found[index]!;
    return alike < ALIKE ? [] : [corners.map((at) => ({ at, seen: project(map, at.x + dx, at.y + dy) }))];
  });
  if (alike.length < LEAST_MARKERS) return null;
  const pairs = alike.flat();
  const { homography, rmsError } = fitHomography(
    pairs.map(({ at }) => at),
    pairs.map(({ seen }) => seen),
  );
  return { toPhoto: homography, rmsPx: rmsError, markers: alike.length };
}

/**
 * Finds a card whose markers run into what lies around it, as on a piece that was cut off along them: the piece's own outline tells about where
 * they are, to some millimetres, and each is then moved to where it looks most like its pattern. Null where fewer than three do.
 */
export function locateOnPiece(photo: RgbImage, layout: Layout): PlacedOnPiece | null {
  const gray = grayOfRgb(photo);
  if (layout.frame.markers.length < CORNER_NAMES.length) return null;
  const sought = soughtIn(layout);
  const told = [
    [0, 0],
    [layout.widthMm, 0],
    [layout.widthMm, layout.heightMm],
    [0, layout.heightMm],
  ].map(([x, y]) => ({ x: x!, y: y! }));
  for (const piece of piecesIn(gray))
    for (let turn = 0; turn < 4; turn++) {
      const map = fitHomography(
        told,
        told.map((_, k) => piece[(k + turn) % 4]!),
      ).homography;
      const first = sought.map(({ coarse }) => bestPlaces(gray, map, coarse, FINDING.step, FINDING.steps));
      for (const marks of ['dark', 'light'] as const) {
        let placed = moved(
          sought,
          map,
          first.map((places) => places[marks]),
        );
        for (const { step, steps } of LAYING) {
          if (placed === null) break;
          const { toPhoto } = placed;
          const next = sought.map(({ fine }) => bestPlaces(gray, toPhoto, fine, step, steps)[marks]);
          placed = moved(sought, toPhoto, next);
        }
        if (placed !== null) return placed;
      }
    }
  return null;
}

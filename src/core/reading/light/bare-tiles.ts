import { LUMINANCE_BLUE, LUMINANCE_GREEN, LUMINANCE_RED } from '../../color/srgb';
import { grown, type Point, type Rect } from '../../geometry/point';
import type { Cell, Layout } from '../../card/layout';
import { boxOfShape } from '../../card/shape';
import type { Rectified } from '../rectify';

/** Side of the tiles that bare stock is averaged over. */
export const TILE_MM = 0.25;
/** How far a burn's edge, blur and halo reach into bare stock. */
const KEEP_OFF_CELL_MM = 0.22;
const KEEP_OFF_MARK_MM = 0.3;

/** A small patch of bare stock. Position is its centre in card mm; values are mean linear light. */
export interface Tile {
  readonly x: number;
  readonly y: number;
  readonly red: number;
  readonly green: number;
  readonly blue: number;
  readonly logLuminance: number;
}

export interface BareTiles {
  readonly tiles: readonly Tile[];
  /** Share of bare stock that is at the bright end of the camera's range: what is left there is biased dark. */
  readonly clippedShare: number;
  /** Centres, in card mm, of the tiles that were left out for it. */
  readonly clippedAt: readonly Point[];
}

/** How many mm are kept off cells besides the usual: as much for all, or for each its own. */
export type Further = number | ((cell: Cell) => number);

function markedAreas(layout: Layout, further: Further): Rect[] {
  const cells = layout.cells
    .filter((cell) => !cell.leftOut)
    .map((cell) => grown(cell.box, KEEP_OFF_CELL_MM + (typeof further === 'number' ? further : further(cell))));
  const shared = [...layout.before, ...layout.after].map(({ shape }) => grown(boxOfShape(shape), KEEP_OFF_MARK_MM));
  const markers = layout.frame.markers.map((marker) =>
    grown({ x: marker.x, y: marker.y, width: marker.sizeMm, height: marker.sizeMm }, KEEP_OFF_MARK_MM),
  );
  const lines = layout.frame.lettering.flatMap((line) => {
    const points = line.strokes.flat();
    if (points.length === 0) return [];
    const x = Math.min(...points.map((p) => p.x));
    const y = Math.min(...points.map((p) => p.y));
    return [
      grown(
        { x, y, width: Math.max(...points.map((p) => p.x)) - x, height: Math.max(...points.map((p) => p.y)) - y },
        KEEP_OFF_MARK_MM,
      ),
    ];
  });
  return [...cells, ...shared, ...markers, ...lines];
}

/** 1 for rectified pixels that show bare stock, as far as the layout tells. */
export function bareMask(image: Rectified, layout: Layout, further: Further): Uint8Array {
  const mask = new Uint8Array(image.width * image.height);
  const edge = Math.round(0.15 * image.pxPerMm);
  for (let y = edge; y < image.height - edge; y++)
    mask.fill(1, y * image.width + edge, Math.max(y * image.width + edge, (y + 1) * image.width - edge));
  for (const area of markedAreas(layout, further)) {
    const left = Math.max(0, Math.floor(area.x * image.pxPerMm));
    const right = Math.min(image.width, Math.ceil((area.x + area.width) * image.pxPerMm));
    const top = Math.max(0, Math.floor(area.y * image.pxPerMm));
    const bottom = Math.min(image.height, Math.ceil((area.y + area.height) * image.pxPerMm));
    for (let y = top; y < bottom; y++) mask.fill(0, y * image.width + left, y * image.width + Math.max(left, right));
  }
  return mask;
}

/** A tile that lost more of its pixels than this to the end of the range tells nothing: what is left of it is the darker part. */
const MOST_CLIPPED = 0.04;

/**
 * Bare stock between the marks of a straightened card, in tiles; those that marks or the end of the camera's range take much of are left out.
 * `further` mm are kept off cells besides the usual, where colour counts: a stored photo has it at half the resolution, and cells bleed.
 */
export function bareTiles(image: Rectified, layout: Layout, further: Further = 0): BareTiles {
  const mask = bareMask(image, layout, further);
  const side = Math.max(1, Math.round(TILE_MM * image.pxPerMm));
  const tiles: Tile[] = [];
  const clippedAt: Point[] = [];
  let bare = 0;
  let clipped = 0;
  for (let top = 0; top + side <= image.height; top += side) {
    for (let left = 0; left + side <= image.width; left += side) {
      let seen = 0;
      let ends = 0;
      let red = 0;
      let green = 0;
      let blue = 0;
      for (let y = top; y < top + side; y++) {
        for (let x = left; x < left + side; x++) {
          const index = y * image.width + x;
          if (mask[index] !== 1) continue;
          seen++;
          if (image.clipped[index] === 1) {
            ends++;
            continue;
          }
          red += image.data[index * 3]!;
          green += image.data[index * 3 + 1]!;
          blue += image.data[index * 3 + 2]!;
        }
      }
      bare += seen;
      clipped += ends;
      const count = seen - ends;
      const x = (left + side / 2) / image.pxPerMm;
      const y = (top + side / 2) / image.pxPerMm;
      if (seen * 2 >= side * side && ends > MOST_CLIPPED * seen) clippedAt.push({ x, y });
      if (count * 2 < side * side || ends > MOST_CLIPPED * seen) continue;
      red /= count;
      green /= count;
      blue /= count;
      const luminance = LUMINANCE_RED * red + LUMINANCE_GREEN * green + LUMINANCE_BLUE * blue;
      if (!(red > 0 && green > 0 && blue > 0)) continue;
      tiles.push({ x, y, red, green, blue, logLuminance: Math.log(luminance) });
    }
  }
  return { tiles, clippedAt, clippedShare: bare === 0 ? 0 : clipped / bare };
}

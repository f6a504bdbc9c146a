import seedrandom from 'seedrandom';
import { mainBurn, type Layout } from '../../src/core/card/layout';
import { markerRegion } from '../../src/core/card/path';
import { boxOfShape } from '../../src/core/card/shape';
import { luminanceOfLightness } from '../../src/core/color/lab';
import { linearToSrgb } from '../../src/core/color/srgb';
import { fitHomography, invertHomography, project } from '../../src/core/geometry/homography';
import type { Point, Rect } from '../../src/core/geometry/point';
import type { RgbImage } from '../../src/core/image/raster';
import { stockLinearColour } from '../../src/core/reading/stock-colour';

export interface DrawnPhoto extends RgbImage {
  /** Where a place of the card, in mm, lies in the photo, pixel centres at whole coordinates. */
  readonly placeOf: (x: number, y: number) => Point;
}

export interface DrawnShot {
  /** L* of a cell's flat patch. */
  readonly lightnessOf: (cellIndex: number) => number;
  readonly markerLightness?: number;
  readonly widthPx?: number;
  readonly heightPx?: number;
  /** Where the card's corners lie, as shares of the picture, from the upper left, clockwise. */
  readonly corners?: readonly Point[];
  /** How bright the light is at a place of the picture, each as shares of 1. */
  readonly light?: (u: number, v: number) => number;
  /** How much of a lamp's white light a place of the picture sends back like a mirror, as a share of full scale. */
  readonly added?: (u: number, v: number) => number;
  /** What the camera makes of what sRGB would store, each as a share of full scale. */
  readonly bends?: (encoded: number) => number;
  /** Standard deviation of the noise of each pixel, in bytes. */
  readonly noise?: number;
  /** How bright it is around the piece at a place of the picture, under the same light. */
  readonly around?: (u: number, v: number) => number;
  /** Bright specks on bare stock: places in card mm, each a square of this many mm. */
  readonly specks?: { readonly at: readonly Point[]; readonly mm: number };
}

const PX_PER_MM = 20;
/** Bare stock that lies around the card. */
const MARGIN_MM = 6;
const SLANTED: readonly Point[] = [
  { x: 0.16, y: 0.14 },
  { x: 0.86, y: 0.1 },
  { x: 0.84, y: 0.88 },
  { x: 0.12, y: 0.9 },
];
const TABLE = 0.16;
const STEPS = 8191;
/** sRGB bytes, unrounded, over the square root of linear light. */
const ENCODED = Float64Array.from({ length: STEPS + 1 }, (_, step) => linearToSrgb((step / STEPS) ** 2) * 255);

/** Normal deviates in bytes, a prime number of them so that no pattern shows in a picture. */
function noiseTable(sigma: number): Float64Array {
  if (sigma === 0) return new Float64Array(1);
  const random = seedrandom('drawn');
  return Float64Array.from(
    { length: 9973 },
    () => sigma * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()),
  );
}

/**
 * A photo of a card that nobody burned: flat patches of known lightness under known light, straight from the definition of L* and sRGB. What
 * is read from it can be told exactly, and quickly. No lettering, no smoke, no texture: those are the bench's.
 */
export function drawnPhoto(
  layout: Layout,
  stock: { readonly bareLightness: number; readonly colour: string },
  {
    lightnessOf,
    markerLightness,
    widthPx = 960,
    heightPx = 720,
    corners = SLANTED,
    light = () => 0.7,
    added = () => 0,
    bends = (encoded) => encoded,
    noise = 0,
    around = () => TABLE,
    specks,
  }: DrawnShot,
): DrawnPhoto {
  const bare = luminanceOfLightness(stock.bareLightness);
  const [wide, high] = [layout.widthMm + 2 * MARGIN_MM, layout.heightMm + 2 * MARGIN_MM];
  const columns = Math.round(wide * PX_PER_MM);
  const rows = Math.round(high * PX_PER_MM);
  const ratio = new Float32Array(columns * rows).fill(1);
  const paint = ({ x, y, width, height }: Rect, lightness: number): void => {
    const value = luminanceOfLightness(lightness) / bare;
    const at = (mm: number): number => Math.round((mm + MARGIN_MM) * PX_PER_MM);
    for (let row = at(y); row < at(y + height); row++)
      ratio.fill(value, row * columns + at(x), row * columns + at(x + width));
  };
  for (const cell of layout.cells) if (!cell.leftOut) paint(boxOfShape(mainBurn(cell).shape), lightnessOf(cell.index));
  const strongest = Math.min(...layout.cells.map(({ index }) => lightnessOf(index)));
  for (const marker of layout.frame.markers)
    for (const ring of markerRegion(marker))
      paint(boxOfShape({ do: 'sweep', area: [ring] }), markerLightness ?? strongest);

  for (const { x, y } of specks?.at ?? []) paint({ x, y, width: specks!.mm, height: specks!.mm }, 100);

  const told = [
    { x: 0, y: 0 },
    { x: layout.widthMm, y: 0 },
    { x: layout.widthMm, y: layout.heightMm },
    { x: 0, y: layout.heightMm },
  ];
  const { homography } = fitHomography(
    told,
    corners.map(({ x, y }) => ({ x: x * widthPx, y: y * heightPx })),
  );
  const back = invertHomography(homography);
  const colour = stockLinearColour(stock);
  const jitter = noiseTable(noise);
  const clamped = new Uint8ClampedArray(widthPx * heightPx * 3);
  const [a, b, c, d, e, f, g, h, k] = back;
  /** How bright stock is at a place of the picture, as a share of bare stock; negative beside it. */
  const seenAt = (px: number, py: number): number => {
    const w = g * px + h * py + k;
    const s = Math.floor(((a * px + b * py + c) / w + MARGIN_MM) * PX_PER_MM);
    const t = Math.floor(((d * px + e * py + f) / w + MARGIN_MM) * PX_PER_MM);
    return s >= 0 && t >= 0 && s < columns && t < rows ? ratio[t * columns + s]! : -1;
  };
  for (let row = 0; row < heightPx; row++) {
    for (let column = 0; column < widthPx; column++) {
      const first = seenAt(column - 0.25, row - 0.25);
      const last = seenAt(column + 0.25, row + 0.25);
      let onStock = Math.max(0, first);
      const beside = around(column / widthPx, row / heightPx);
      let offStock = first < 0 ? beside : 0;
      // Four looks a pixel; the other three only where the first two, a diagonal, do not see the same.
      if (first !== last) {
        const looks = [first, last, seenAt(column + 0.25, row - 0.25), seenAt(column - 0.25, row + 0.25)];
        onStock = looks.reduce((sum, seen) => sum + Math.max(0, seen) / 4, 0);
        offStock = looks.reduce((sum, seen) => sum + (seen < 0 ? beside / 4 : 0), 0);
      }
      const bright = light(column / widthPx, row / heightPx);
      const mirrored = added(column / widthPx, row / heightPx);
      const at = (row * widthPx + column) * 3;
      for (let channel = 0; channel < 3; channel++) {
        const linear = bright * (onStock * colour[channel]! + offStock) + mirrored;
        const byte = ENCODED[Math.round(Math.sqrt(Math.min(1, linear)) * STEPS)]!;
        clamped[at + channel] = 255 * bends(byte / 255) + jitter[(at + channel) % jitter.length]!;
      }
    }
  }
  return {
    data: new Uint8Array(clamped.buffer),
    width: widthPx,
    height: heightPx,
    placeOf: (x, y) => project(homography, x, y),
  };
}

import { lightnessOfLuminance } from '../color/lab';
import { luminance } from '../color/srgb';
import type { Rect } from '../geometry/point';
import type { FinePhoto } from './lines/lines-of-cell';
import type { LightOnBare } from './light/light-on-bare';
import { pixelsOfArea } from './pixels-of-area';
import type { Rectified } from './rectify';

/** What holds for the whole photo. */
export interface PhotoContext {
  /** Whether ripples of cells are compared within this photo. */
  readonly comparesRipples: boolean;
  /** Whether the burned face is seen through its sheet. */
  readonly throughSheet: boolean;
  readonly rectified: Rectified;
  readonly field: LightOnBare;
  /** For what is finer than the straightened card. */
  readonly finePhoto: FinePhoto;
  /** Photo pixels for each card millimetre, at the card's centre. */
  readonly photoPxPerMm: number;
  /** Bare stock's own linear colour, whose luminance gives the stock's L*. */
  readonly stockLinear: readonly [number, number, number];
  /** Whether fewer than four markers, or dragged corners, place the card. */
  readonly uncertainFrame: boolean;
  /** How far marker corners lie from where the map puts them, in mm. */
  readonly frameErrorMm: number;
  /** How sure it is that no light was added, as a share of what white stock would send. */
  addedSigma(xMm: number, yMm: number): number;
  /** How sure it is that the ratio of two lights is what the photo has, by the camera's tones: as a logarithm. */
  toneSigma(light: number, other: number): number;
  /** Whether that is because nothing is known of the camera, and not what a second exposure left open. */
  readonly tonesUnknown: boolean;
  /** Whether the light on the card is told by a sheet around it, and not by bare stock, part of which is blown out. */
  readonly lightIsTold: boolean;
}

/** Photo pixels for each mm below which no cell is trusted. */
export const LEAST_PX_PER_MM = 8;
/** mm that markers may lie beside the places of one flat sheet. */
export const FLAT_ENOUGH_MM = 0.4;

/**
 * How much of the difference between a mark and bare sheet is left where it is seen through the sheet: both ways through its near face, 8 % for glass
 * and acrylic by Fresnel's law, and 0 to 7 % on the way, by the sheet. Bare sheet looks the same from either side.
 */
export const THROUGH_SHEET = { share: 0.89, sigma: 0.03 } as const;

/** Pixels of the straightened card over which light is even. */
const BLOCK_PX = 5;
/** Light of an area as a share of bare stock’s, by channel. */
export interface Ratio {
  readonly red: number;
  readonly green: number;
  readonly blue: number;
}

/** Mean of an area's ratio to bare stock, channel by channel, over a rectangle; NaN when nothing of it is visible. */
export function meanRatio(
  context: PhotoContext,
  area: Rect,
  bareAt = context.field.at,
): Ratio & { clippedShare: number } {
  const { rectified } = context;
  const { pxPerMm } = rectified;
  const { left, top, right, bottom } = pixelsOfArea(rectified, area);
  // Light is divided out block by block: over a cell a shadow may end.
  const block = { red: 0, green: 0, blue: 0, ends: 0 };
  let red = 0;
  let green = 0;
  let blue = 0;
  let ends = 0;
  for (let y = top; y < bottom; y += BLOCK_PX) {
    for (let x = left; x < right; x += BLOCK_PX) {
      const [endX, endY] = [Math.min(right, x + BLOCK_PX), Math.min(bottom, y + BLOCK_PX)];
      sumBlock(rectified, x, y, endX, endY, block);
      const bare = bareAt((x + endX) / 2 / pxPerMm, (y + endY) / 2 / pxPerMm);
      red += block.red / bare[0];
      green += block.green / bare[1];
      blue += block.blue / bare[2];
      ends += block.ends;
    }
  }
  const count = (right - left) * (bottom - top);
  const share = context.throughSheet ? THROUGH_SHEET.share : 1;
  return {
    red: 1 + (red / count - 1) / share,
    green: 1 + (green / count - 1) / share,
    blue: 1 + (blue / count - 1) / share,
    clippedShare: ends / count,
  };
}

/** Sums of the light of some pixels, and how many of them are clipped. */
function sumBlock(
  { data, clipped, width }: Rectified,
  left: number,
  top: number,
  right: number,
  bottom: number,
  into: { red: number; green: number; blue: number; ends: number },
): void {
  let red = 0;
  let green = 0;
  let blue = 0;
  let ends = 0;
  for (let y = top; y < bottom; y++)
    for (let index = y * width + left; index < y * width + right; index++) {
      red += data[index * 3]!;
      green += data[index * 3 + 1]!;
      blue += data[index * 3 + 2]!;
      ends += clipped[index]!;
    }
  into.red = red;
  into.green = green;
  into.blue = blue;
  into.ends = ends;
}

/** L* on the stock's own scale of a ratio to bare stock, which is darker there by a logarithm of `offset`. */
export function lightnessOf(context: PhotoContext, ratio: Ratio, offset: number): number {
  const [r, g, b] = context.stockLinear;
  return lightnessOfLuminance(luminance(ratio.red * r, ratio.green * g, ratio.blue * b) * Math.exp(-offset));
}

import { Matrix, solve } from 'ml-matrix';
import { LUMINANCE_BLUE, LUMINANCE_GREEN, LUMINANCE_RED } from '../color/srgb';
import { grown, type Rect } from '../geometry/point';
import type { Layout } from '../card/layout';
import { robustSigma } from '../stats/robust';
import { bareMask, TILE_MM, type Tile } from './bare-tiles';
import type { Rectified } from './rectify';

/** Terms of the surface: all products x^i y^j up to this order. */
const ORDER = 3;
const TUKEY = 4.685;

/** The light on bare stock over the card, as the camera saw it. */
export interface BareField {
  /** Bare stock's linear red, green and blue at a place in card mm, by the smooth surface. */
  at(xMm: number, yMm: number): readonly [red: number, green: number, blue: number];
  /** Natural logarithm by which nearby bare stock differs from the surface, and how far its quadrants disagree. */
  near(area: Rect): { readonly offset: number; readonly disagreement: number; readonly tiles: number };
  /** Robust standard deviation of one tile about the surface, in logarithm of luminance. */
  readonly tileSigma: number;
  readonly tiles: number;
}

/** 1 for rectified pixels that show bare stock and are within the camera's range. */
function unclippedMask(image: Rectified, layout: Layout): Uint8Array {
  const mask = bareMask(image, layout, 0);
  for (let index = 0; index < mask.length; index++) if (image.clipped[index] === 1) mask[index] = 0;
  return mask;
}

function bareTiles(image: Rectified, mask: Uint8Array): Tile[] {
  const side = Math.max(1, Math.round(TILE_MM * image.pxPerMm));
  const tiles: Tile[] = [];
  for (let top = 0; top + side <= image.height; top += side) {
    for (let left = 0; left + side <= image.width; left += side) {
      let count = 0;
      let red = 0;
      let green = 0;
      let blue = 0;
      for (let y = top; y < top + side; y++) {
        for (let x = left; x < left + side; x++) {
          const index = y * image.width + x;
          if (mask[index] !== 1) continue;
          count++;
          red += image.data[index * 3]!;
          green += image.data[index * 3 + 1]!;
          blue += image.data[index * 3 + 2]!;
        }
      }
      if (count * 2 < side * side) continue;
      red /= count;
      green /= count;
      blue /= count;
      const luminance = LUMINANCE_RED * red + LUMINANCE_GREEN * green + LUMINANCE_BLUE * blue;
      if (!(red > 0 && green > 0 && blue > 0)) continue;
      const x = (left + side / 2) / image.pxPerMm;
      const y = (top + side / 2) / image.pxPerMm;
      tiles.push({ x, y, red, green, blue, logLuminance: Math.log(luminance) });
    }
  }
  return tiles;
}

function terms(x: number, y: number): number[] {
  const out: number[] = [];
  for (let total = 0; total <= ORDER; total++) {
    for (let power = 0; power <= total; power++) out.push(x ** (total - power) * y ** power);
  }
  return out;
}

function weightedFit(rows: readonly number[][], values: Float64Array, weights: Float64Array): Float64Array {
  const n = rows[0]!.length;
  const normal = new Float64Array(n * n);
  const right = new Float64Array(n);
  for (let k = 0; k < rows.length; k++) {
    const row = rows[k]!;
    const weight = weights[k]!;
    for (let i = 0; i < n; i++) {
      const wi = weight * row[i]!;
      right[i]! += wi * values[k]!;
      for (let j = 0; j <= i; j++) normal[i * n + j]! += wi * row[j]!;
    }
  }
  const matrix = Matrix.zeros(n, n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) matrix.set(i, j, normal[Math.max(i, j) * n + Math.min(i, j)]! + (i === j ? 1e-9 : 0));
  return Float64Array.from(solve(matrix, Matrix.columnVector([...right])).to1DArray());
}

const dot = (coefficients: Float64Array, row: readonly number[]): number => {
  let sum = 0;
  for (let i = 0; i < row.length; i++) sum += coefficients[i]! * row[i]!;
  return sum;
};

/**
 * The light on bare stock over a rectified card, so that it can be divided out: a third-order surface through the logarithm
 * of linear light of the bare tiles between the marks, for each channel, fitted by iteratively reweighted least squares with
 * Tukey's biweight on the luminance residual, so that knots, smudges and smoke weigh little.
 * Null when fewer than 60 bare tiles can be seen.
 *
 * Source of the weights: A. E. Beaton, J. W. Tukey, Technometrics 16 (1974) 147.
 */
export function fitBareField(image: Rectified, layout: Layout): BareField | null {
  const tiles = bareTiles(image, unclippedMask(image, layout));
  if (tiles.length < 60) return null;
  const scale = 2 / Math.max(layout.widthMm, layout.heightMm);
  const row = (x: number, y: number): number[] =>
    terms((x - layout.widthMm / 2) * scale, (y - layout.heightMm / 2) * scale);
  const rows = tiles.map((tile) => row(tile.x, tile.y));
  const luminances = Float64Array.from(tiles, (tile) => tile.logLuminance);
  const weights = new Float64Array(tiles.length).fill(1);
  const residuals = new Float64Array(tiles.length);
  let sigma = 0;
  for (let turn = 0; turn < 8; turn++) {
    const coefficients = weightedFit(rows, luminances, weights);
    for (let k = 0; k < tiles.length; k++) residuals[k] = luminances[k]! - dot(coefficients, rows[k]!);
    sigma = Math.max(1e-6, robustSigma(residuals));
    for (let k = 0; k < tiles.length; k++) {
      const u = residuals[k]! / (TUKEY * sigma);
      weights[k] = Math.abs(u) < 1 ? (1 - u * u) ** 2 : 0;
    }
  }
  const channel = (of: (tile: Tile) => number): Float64Array =>
    weightedFit(
      rows,
      Float64Array.from(tiles, (tile) => Math.log(of(tile))),
      weights,
    );
  const red = channel((tile) => tile.red);
  const green = channel((tile) => tile.green);
  const blue = channel((tile) => tile.blue);

  return {
    tileSigma: sigma,
    tiles: tiles.length,
    at(x, y) {
      const r = row(x, y);
      return [Math.exp(dot(red, r)), Math.exp(dot(green, r)), Math.exp(dot(blue, r))];
    },
    near: (area) => nearOffset(tiles, residuals, sigma, area),
  };
}

/** How far around a cell bare tiles speak for the stock under it. */
const NEAR_MM = 1.2;

function nearOffset(
  tiles: readonly Tile[],
  residuals: Float64Array,
  sigma: number,
  area: Rect,
): ReturnType<BareField['near']> {
  const reach = grown(area, NEAR_MM);
  const cx = area.x + area.width / 2;
  const cy = area.y + area.height / 2;
  const sides: number[][] = [[], [], [], []];
  for (let k = 0; k < tiles.length; k++) {
    const { x, y } = tiles[k]!;
    if (x < reach.x || x > reach.x + reach.width || y < reach.y || y > reach.y + reach.height) continue;
    const dx = (x - cx) / area.width;
    const dy = (y - cy) / area.height;
    const side = Math.abs(dx) > Math.abs(dy) ? (dx > 0 ? 0 : 1) : dy > 0 ? 2 : 3;
    // A tile far off is a knot or a smudge: it may pull, but only so far.
    sides[side]!.push(Math.max(-6 * sigma, Math.min(6 * sigma, residuals[k]!)));
  }
  const means = sides
    .filter((side) => side.length >= 3)
    .map((side) => side.reduce((sum, value) => sum + value, 0) / side.length);
  const count = sides.reduce((sum, side) => sum + side.length, 0);
  if (means.length === 0) return { offset: 0, disagreement: 0, tiles: 0 };
  const offset = means.reduce((sum, value) => sum + value, 0) / means.length;
  const disagreement = Math.max(...means) - Math.min(...means);
  return { offset, disagreement, tiles: count };
}

import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { byteOfLinear, hexColour, luminance } from '../color/srgb';
import { project, type Homography } from '../geometry/homography';
import { grown, type Rect } from '../geometry/point';
import type { GrayImage } from '../image/raster';
import { mainBurn, type Cell } from '../card/layout';
import { chanceWithin } from '../stats/normal';
import { meanAndSpread } from '../stats/robust';
import type { LightOnBare } from './light/light-on-bare';
import type { CellReading, Doubt } from './observations';
import type { Rectified } from './rectify';

/** What holds for the whole photo. */
export interface PhotoContext {
  readonly rectified: Rectified;
  readonly field: LightOnBare;
  readonly gray: GrayImage;
  readonly toPhoto: Homography;
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
}

const INNER = 0.6;
const PATCH_MM = 0.25;
/** Pixels of the straightened card over which light is even. */
const BLOCK_PX = 5;
/** Half-way limit of the accuracy promise: confidence is the chance of being within it. */
const PROMISE = 2;

interface Patch {
  readonly red: number;
  readonly green: number;
  readonly blue: number;
}

/** Mean of the cell's ratio to bare stock, channel by channel, over a rectangle; NaN when nothing of it is visible. */
function meanRatio(context: PhotoContext, area: Rect, bareAt = context.field.at): Patch & { clippedShare: number } {
  const { rectified } = context;
  const { pxPerMm, width, height, data, clipped } = rectified;
  const left = Math.max(0, Math.round(area.x * pxPerMm));
  const right = Math.min(width, Math.round((area.x + area.width) * pxPerMm));
  const top = Math.max(0, Math.round(area.y * pxPerMm));
  const bottom = Math.min(height, Math.round((area.y + area.height) * pxPerMm));
  // Light is divided out block by block: over a cell a shadow may end.
  let red = 0;
  let green = 0;
  let blue = 0;
  let ends = 0;
  let count = 0;
  for (let y0 = top; y0 < bottom; y0 += BLOCK_PX) {
    for (let x0 = left; x0 < right; x0 += BLOCK_PX) {
      const [x1, y1] = [Math.min(right, x0 + BLOCK_PX), Math.min(bottom, y0 + BLOCK_PX)];
      let r = 0;
      let g = 0;
      let b = 0;
      for (let y = y0; y < y1; y++) {
        for (let x = x0; x < x1; x++) {
          const index = y * width + x;
          r += data[index * 3]!;
          g += data[index * 3 + 1]!;
          b += data[index * 3 + 2]!;
          ends += clipped[index]!;
          count++;
        }
      }
      const bare = bareAt((x0 + x1) / 2 / pxPerMm, (y0 + y1) / 2 / pxPerMm);
      red += r / bare[0];
      green += g / bare[1];
      blue += b / bare[2];
    }
  }
  return { red: red / count, green: green / count, blue: blue / count, clippedShare: ends / count };
}

function lightnessOf(context: PhotoContext, ratio: Patch, offset: number): number {
  const [r, g, b] = context.stockLinear;
  return lightnessOfLuminance(luminance(ratio.red * r, ratio.green * g, ratio.blue * b) * Math.exp(-offset));
}

const innerOf = (cell: Rect, share: number): Rect =>
  grown(cell, (-(1 - share) * Math.min(cell.width, cell.height)) / 2);

function patchSpread(context: PhotoContext, area: Rect, offset: number): number {
  const columns = Math.max(1, Math.floor(area.width / PATCH_MM));
  const rows = Math.max(1, Math.floor(area.height / PATCH_MM));
  const values: number[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const patch = { x: area.x + column * PATCH_MM, y: area.y + row * PATCH_MM, width: PATCH_MM, height: PATCH_MM };
      values.push(lightnessOf(context, meanRatio(context, patch), offset));
    }
  }
  return values.length > 1 ? meanAndSpread(values).spread : 0;
}

/** Largest minus smallest L* of the four quarters of an area: a knot or a smudge under the cell shows here. */
function quarterRange(context: PhotoContext, area: Rect, offset: number): number {
  const width = area.width / 2;
  const height = area.height / 2;
  const quarters = [0, 1, 2, 3].map((index) =>
    lightnessOf(
      context,
      meanRatio(context, { x: area.x + (index % 2) * width, y: area.y + (index >> 1) * height, width, height }),
      offset,
    ),
  );
  return Math.max(...quarters) - Math.min(...quarters);
}

/** Relative amplitude of the ripple across the lines at the line interval (Goertzel's sum on a detrended profile). */
function lineVisibility(context: PhotoContext, cell: Cell): number | null {
  const { intervalMm, direction } = mainBurn(cell).settings;
  if (intervalMm * context.photoPxPerMm < 3) return null;
  const inner = innerOf(cell.box, INNER);
  const acrossMm = direction === 'horizontal' ? inner.height : inner.width;
  const periods = Math.floor(acrossMm / intervalMm);
  if (periods < 4) return null;
  const perPeriod = 8;
  const count = periods * perPeriod;
  const alongSamples = 24;
  let cosine = 0;
  let sine = 0;
  let total = 0;
  const profile = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    let sum = 0;
    for (let j = 0; j < alongSamples; j++) {
      const across = ((k + 0.5) / perPeriod) * intervalMm;
      const along = ((j + 0.5) / alongSamples) * (direction === 'horizontal' ? inner.width : inner.height);
      const place =
        direction === 'horizontal'
          ? project(context.toPhoto, inner.x + along, inner.y + across)
          : project(context.toPhoto, inner.x + across, inner.y + along);
      const x = Math.round(place.x);
      const y = Math.round(place.y);
      if (x < 0 || y < 0 || x >= context.gray.width || y >= context.gray.height) return null;
      sum += context.gray.data[y * context.gray.width + x]!;
    }
    profile[k] = sum / alongSamples;
    total += profile[k]!;
  }
  const mean = total / count;
  const slope = (profile[count - 1]! - profile[0]!) / count;
  for (let k = 0; k < count; k++) {
    const angle = (2 * Math.PI * k) / perPeriod;
    const value = profile[k]! - mean - slope * (k - count / 2);
    cosine += value * Math.cos(angle);
    sine += value * Math.sin(angle);
  }
  return mean > 0 ? (2 * Math.hypot(cosine, sine)) / count / mean : null;
}

/** 10-90 % width in mm of the cell's left edge, from its mean profile; null below 6 L* of contrast. */
function edgeWidth(context: PhotoContext, cell: Rect, delta: number): number | null {
  if (!(Math.abs(delta) >= 6)) return null;
  const reach = 0.5;
  const step = 1 / context.rectified.pxPerMm;
  const count = Math.round((2 * reach) / step);
  const height = cell.height * INNER;
  const profile = Float64Array.from({ length: count }, (_, k) => {
    const ratio = meanRatio(context, {
      x: cell.x - reach + k * step,
      y: cell.y + (cell.height - height) / 2,
      width: step,
      height,
    });
    return (ratio.red + ratio.green + ratio.blue) / 3;
  });
  const quarter = Math.max(1, Math.floor(count / 5));
  const outside = meanAndSpread(profile.slice(0, quarter)).mean;
  const inside = meanAndSpread(profile.slice(-quarter)).mean;
  const at = (share: number): number => {
    const level = outside + (inside - outside) * share;
    for (let k = 1; k < count; k++) {
      const before = profile[k - 1]!;
      const after = profile[k]!;
      if ((before - level) * (after - level) <= 0 && before !== after)
        return k - 1 + (level - before) / (after - before);
    }
    return NaN;
  };
  const width = Math.abs(at(0.9) - at(0.1)) * step;
  return Number.isFinite(width) ? width : null;
}

/** Mean L* of a ring around the cell less bare stock's, under the lamp's light alone: smoke and soot are what it tells. */
function edgeHalo(context: PhotoContext, cell: Rect, bareLightness: number): number {
  const near = 0.15;
  const far = 0.4;
  const strips: Rect[] = [
    { x: cell.x - far, y: cell.y, width: far - near, height: cell.height },
    { x: cell.x + cell.width + near, y: cell.y, width: far - near, height: cell.height },
    { x: cell.x, y: cell.y - far, width: cell.width, height: far - near },
    { x: cell.x, y: cell.y + cell.height + near, width: cell.width, height: far - near },
  ];
  const values = strips
    .map((strip) => lightnessOf(context, meanRatio(context, strip, context.field.clean), 0))
    .filter(Number.isFinite);
  return values.length === 0 ? 0 : meanAndSpread(values).mean - bareLightness;
}

/** Smallest uncertainty in logarithm of luminance that is ever claimed: surface fit, tone curve, JPEG. */
const FLOOR_SIGMA = 0.004;

/** Where more of bare stock than this is at the bright end of the range, the light on the card is told by its darkest part alone. */
const MOST_STOCK_CLIPPED = 0.6;

/** Everything a photo shows of one cell, with how sure it is. */
export function measureCell(context: PhotoContext, cell: Cell): CellReading {
  const bareLightness = lightnessOfLuminance(luminance(...context.stockLinear));
  const { box } = cell;
  const inner = innerOf(box, INNER);
  const near = context.field.under(inner);
  const offset = near.shift;
  const ratio = meanRatio(context, inner);
  const lightness = lightnessOf(context, ratio, offset);
  const deltaLightness = lightness - bareLightness;
  const spread = patchSpread(context, inner, offset);

  const stockSigma = Math.hypot(FLOOR_SIGMA, near.sigma);
  const root = (lightness + 16) / 116;
  // dL*/d ln Y = (116 / 3) Y^(1/3)
  const stockPart = (116 / 3) * root * stockSigma;
  const framePart = Math.min(
    3,
    (context.frameErrorMm / Math.min(box.width, box.height)) * 0.5 * Math.abs(deltaLightness),
  );
  // Added light changes a ratio by its share of bare stock's light, the more the further the ratio is from one.
  const bareY = luminance(...context.stockLinear);
  const cellY = luminanceOfLightness(Math.max(0, lightness));
  const addedPart =
    (116 / 3 / Math.cbrt(Math.max(0.008, cellY)) ** 2) *
    context.addedSigma(box.x + box.width / 2, box.y + box.height / 2) *
    Math.abs(1 - cellY / bareY);
  const bareLight = context.field.at(box.x + box.width / 2, box.y + box.height / 2)[1];
  const tonePart = (116 / 3) * root * context.toneSigma(ratio.green * bareLight, bareLight);
  const clippedPart = ratio.clippedShare * 12;
  const quarters = quarterRange(context, inner, offset);
  const patches = (inner.width * inner.height) / PATCH_MM ** 2;
  const lightnessSigma = Math.hypot(
    stockPart,
    framePart,
    addedPart,
    tonePart,
    clippedPart,
    spread / Math.sqrt(patches),
    0.12 * quarters,
  );

  const doubts: Doubt[] = [];
  if (ratio.clippedShare > 0.02) doubts.push('clipped');
  if (context.field.clippedShare > MOST_STOCK_CLIPPED) doubts.push('stock-clipped');
  if (context.photoPxPerMm < 8) doubts.push('blurred');
  if (near.sigma > 0.08) doubts.push('stock-varies');
  if (near.tiles < 8) doubts.push('far-from-bare-stock');
  if (context.uncertainFrame && context.frameErrorMm > 0.3) doubts.push('few-markers');
  if (context.frameErrorMm > 0.4) doubts.push('off-frame');
  if (spread > 9 || quarters > 5) doubts.push('uneven');
  const chance = chanceWithin(PROMISE, lightnessSigma);
  const confidence = Math.min(chance, 0.75 ** doubts.length);
  return {
    cellIndex: cell.index,
    lightness,
    deltaLightness,
    spread,
    lineVisibility: lineVisibility(context, cell),
    edgeHalo: edgeHalo(context, box, bareLightness),
    clippedShare: ratio.clippedShare,
    edgeWidthMm: edgeWidth(context, box, deltaLightness),
    lightnessSigma,
    confidence,
    doubts,
    colour: hexColour([
      byteOfLinear(ratio.red * context.stockLinear[0]),
      byteOfLinear(ratio.green * context.stockLinear[1]),
      byteOfLinear(ratio.blue * context.stockLinear[2]),
    ]),
  };
}

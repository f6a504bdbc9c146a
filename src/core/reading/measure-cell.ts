import { lightnessOfLuminance, luminanceOfLightness } from '../color/lab';
import { byteOfLinear, hexColour, luminance } from '../color/srgb';
import { grown, type Rect } from '../geometry/point';
import type { Cell } from '../card/layout';
import { chanceWithin } from '../stats/normal';
import { meanAndSpread } from '../stats/robust';
import { drawingOfCell } from './drawing-of-cell';
import { edgeWidth } from './edge-width';
import { endsOfCell } from './ends-of-cell';
import { hueShift } from './hue';
import { barsOfCell, isToneless } from './lines/bars-of-cell';
import { lineOfCell, linesOfCell, rippleOfCell } from './lines/lines-of-cell';
import { isPicture, pictureOfCell } from './picture-of-cell';
import { LOW_CONFIDENCE, PROMISE, type CellReading, type Doubt } from './observations';
import {
  FLAT_ENOUGH_MM,
  LEAST_PX_PER_MM,
  lightnessOf,
  meanRatio,
  THROUGH_SHEET,
  type PhotoContext,
  type Ratio,
} from './photo-context';

const INNER = 0.6;
const PATCH_MM = 0.25;
/** L* between a cell and bare stock below which its edge is not measured. */
const LEAST_CONTRAST = 6;

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

/** The four quarters of an area, as ratios to bare stock. */
function quarterRatios(context: PhotoContext, area: Rect): Ratio[] {
  const width = area.width / 2;
  const height = area.height / 2;
  return [0, 1, 2, 3].map((index) =>
    meanRatio(context, { x: area.x + (index % 2) * width, y: area.y + (index >> 1) * height, width, height }),
  );
}

/** Largest minus smallest L* of some parts of a cell: a knot or a smudge under it shows here. */
function rangeOf(context: PhotoContext, parts: readonly Ratio[], offset: number): number {
  const lightnesses = parts.map((part) => lightnessOf(context, part, offset));
  return Math.max(...lightnesses) - Math.min(...lightnesses);
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

/** Gaps between lines are bare stock: where that is blown out, or nothing tells how light it is, no ripple is told either. */
const HIDE_LINES: ReadonlySet<Doubt> = new Set(['clipped', 'stock-clipped', 'far-from-bare-stock']);

type Unsure = Extract<
  Doubt,
  | 'stock-varies'
  | 'off-frame'
  | 'reflection'
  | 'tones-unsure'
  | 'tones-unknown'
  | 'through-sheet'
  | 'clipped'
  | 'uneven'
>;

const greatest = (parts: Readonly<Record<Unsure, number>>): Unsure =>
  (Object.keys(parts) as Unsure[]).reduce((most, part) => (parts[part] > parts[most] ? part : most));

/** Everything a photo shows of one cell, with how sure it is. */
export function measureCell(context: PhotoContext, cell: Cell): CellReading {
  const bareLightness = lightnessOfLuminance(luminance(...context.stockLinear));
  const { box } = cell;
  const inner = innerOf(box, INNER);
  // The middle of a picture is too far from bare stock for that to tell of it alone.
  const near = context.field.under(isPicture(cell) ? box : inner);
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
  const addedSigma = context.addedSigma(box.x + box.width / 2, box.y + box.height / 2);
  const lightnessPerY = 116 / 3 / Math.cbrt(Math.max(0.008, cellY)) ** 2;
  const addedPart = lightnessPerY * addedSigma * Math.abs(1 - cellY / bareY);
  const contrastSigma = context.throughSheet ? THROUGH_SHEET.sigma / THROUGH_SHEET.share : 0;
  const throughPart = lightnessPerY * contrastSigma * Math.abs(bareY - cellY);
  const bareLight = context.field.at(box.x + box.width / 2, box.y + box.height / 2)[1];
  const toneSigma = context.toneSigma(ratio.green * bareLight, bareLight);
  const tonePart = (116 / 3) * root * toneSigma;
  const parts = quarterRatios(context, inner);
  const quarters = rangeOf(context, parts, offset);
  const patches = (inner.width * inner.height) / PATCH_MM ** 2;
  const unsure: Readonly<Record<Unsure, number>> = {
    'stock-varies': stockPart,
    'off-frame': framePart,
    reflection: addedPart,
    'tones-unsure': context.tonesUnknown ? 0 : tonePart,
    'tones-unknown': context.tonesUnknown ? tonePart : 0,
    'through-sheet': throughPart,
    clipped: ratio.clippedShare * 12,
    // A picture is not even, and is not meant to be.
    uneven: isPicture(cell) ? 0 : Math.hypot(spread / Math.sqrt(patches), 0.12 * quarters),
  };
  const lightnessSigma = Math.hypot(...Object.values(unsure));

  const toneless = isToneless(cell);
  const doubts: Doubt[] = [];
  if (ratio.clippedShare > 0.02) doubts.push('clipped');
  if (context.field.clippedShare > MOST_STOCK_CLIPPED && !context.lightIsTold) doubts.push('stock-clipped');
  if (context.photoPxPerMm < LEAST_PX_PER_MM) doubts.push('blurred');
  if (near.sigma > 0.08 && !toneless) doubts.push('stock-varies');
  if (near.tiles < 8 && !context.lightIsTold) doubts.push('far-from-bare-stock');
  if (context.uncertainFrame && context.frameErrorMm > 0.3) doubts.push('few-markers');
  if (context.frameErrorMm > FLAT_ENOUGH_MM) doubts.push('off-frame');
  if ((spread > 9 || quarters > 5) && !toneless && !isPicture(cell)) doubts.push('uneven');
  const chance = toneless ? 1 : chanceWithin(PROMISE, lightnessSigma);
  // No cell is marked without saying why: where no single reason is past its limit, the greatest of them is said.
  if (chance < LOW_CONFIDENCE && doubts.length === 0) doubts.push(greatest(unsure));
  const hidden = doubts.some((doubt) => HIDE_LINES.has(doubt));
  const confidence = Math.min(chance, 0.75 ** doubts.length);
  return {
    cellIndex: cell.index,
    lightness,
    deltaLightness,
    spread,
    lines: hidden || toneless ? null : linesOfCell(context.finePhoto, cell),
    ripple: hidden || !context.comparesRipples ? null : rippleOfCell(context.finePhoto, cell),
    line: hidden ? null : lineOfCell(context.finePhoto, cell),
    // Where a bar lies is told by both of its edges, which a little blown-out stock beside it moves alike.
    bars: doubts.includes('stock-clipped') ? null : barsOfCell(context.finePhoto, cell),
    ends: hidden ? null : endsOfCell(context, cell),
    picture: pictureOfCell(context, cell, bareLightness, offset),
    drawing: hidden ? null : drawingOfCell(context.finePhoto, cell),
    edgeHalo: edgeHalo(context, box, bareLightness),
    clippedShare: ratio.clippedShare,
    edgeWidthMm: Math.abs(deltaLightness) >= LEAST_CONTRAST ? edgeWidth(context, box, 'left') : null,
    lightnessSigma,
    // Another photo by the same camera is bent alike. What the sheet takes is not shared: one of the other face weighs more for it.
    sharedSigma: Math.hypot(stockPart, context.tonesUnknown ? tonePart : 0),
    confidence,
    doubts,
    hue: hueShift(parts, context.stockLinear, Math.hypot(toneSigma, addedSigma / Math.max(0.008, cellY))),
    colour: hexColour([
      byteOfLinear(ratio.red * context.stockLinear[0]),
      byteOfLinear(ratio.green * context.stockLinear[1]),
      byteOfLinear(ratio.blue * context.stockLinear[2]),
    ]),
  };
}

import type { Cell } from '../card/layout';
import { boxOfShape } from '../card/shape';
import type { Rect } from '../geometry/point';
import { meanAndSpread } from '../stats/robust';
import { lightnessOf, meanRatio, type PhotoContext } from './photo-context';

/** How the ends of a long fill differ from its middle: a head that has not reached its speed there burns them otherwise. */
export interface EndsSeen {
  /** L* of each end less the middle's, the left or upper one first: negative is darker than the middle. */
  readonly first: number;
  readonly last: number;
  /** Standard uncertainty of each. */
  readonly sigma: number;
}

/** Fills shorter than this along their lines have no middle to compare with, and lower ones too few lines. */
const LEAST_LONG_MM = 6;
const LEAST_HIGH_MM = 1;
/** What is looked at of an end: clear of its edge, which the camera softens and both ways make ragged. */
const FROM_EDGE_MM = 0.2;
const END_MM = 0.5;
/** The middle that it is compared with, as a share of the length. */
const MIDDLE = 0.3;
/** Across the lines, so much of each side is left out. */
const SIDE_SHARE = 0.2;
const PATCH_MM = 0.25;
/** Two places of one bar are compared to no better than this: light and stock differ between them. */
const LEAST_SIGMA = 0.25;

/** The ends of a cell that is burned by one fill along an axis, longer than it is high; null for other cells. */
export function endsOfCell(context: PhotoContext, { burns: [burn, ...others] }: Pick<Cell, 'burns'>): EndsSeen | null {
  if (!burn || others.length > 0 || burn.shape.do !== 'sweep' || burn.shape.area.length !== 1) return null;
  const { direction, lineAngleDeg, crossHatch } = burn.settings;
  if (lineAngleDeg !== 0 || crossHatch) return null;
  const box = boxOfShape(burn.shape);
  const lies = direction === 'horizontal';
  const [long, high] = lies ? [box.width, box.height] : [box.height, box.width];
  if (long < LEAST_LONG_MM || high < LEAST_HIGH_MM || long < 2 * high) return null;
  const part = (from: number, length: number): Rect =>
    lies
      ? { x: box.x + from, width: length, y: box.y + SIDE_SHARE * high, height: (1 - 2 * SIDE_SHARE) * high }
      : { y: box.y + from, height: length, x: box.x + SIDE_SHARE * high, width: (1 - 2 * SIDE_SHARE) * high };
  const first = lightnessIn(context, part(FROM_EDGE_MM, END_MM));
  const last = lightnessIn(context, part(long - FROM_EDGE_MM - END_MM, END_MM));
  const middle = lightnessIn(context, part((long - MIDDLE * long) / 2, MIDDLE * long));
  return {
    first: first.mean - middle.mean,
    last: last.mean - middle.mean,
    sigma: Math.hypot(LEAST_SIGMA, middle.sigma, (first.sigma + last.sigma) / 2),
  };
}

/** Mean L* of an area by patches, and how sure it is by how they scatter. */
function lightnessIn(context: PhotoContext, area: Rect): { mean: number; sigma: number } {
  const columns = Math.max(1, Math.round(area.width / PATCH_MM));
  const rows = Math.max(1, Math.round(area.height / PATCH_MM));
  const offset = context.field.under(area).shift;
  const [width, height] = [area.width / columns, area.height / rows];
  const patches = Array.from({ length: columns * rows }, (_, k) => ({
    x: area.x + (k % columns) * width,
    y: area.y + Math.floor(k / columns) * height,
    width,
    height,
  })).map((patch) => lightnessOf(context, meanRatio(context, patch), offset));
  const { mean, spread } = meanAndSpread(patches);
  return { mean, sigma: patches.length > 1 ? spread / Math.sqrt(patches.length) : 0 };
}

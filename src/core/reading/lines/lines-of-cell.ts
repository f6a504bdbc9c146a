import { mainBurn, type Cell } from '../../card/layout';
import { boxOfShape, type Burn } from '../../card/shape';
import { grown, type Rect } from '../../geometry/point';
import type { LinesRun } from './across';
import type { Blur } from './blur';
import type { FineLight } from './fine-light';
import { hasPixelsFor, linesOfFill, rippleOfFill, type LinesSeen, type RippleSeen } from './lines-of-fill';
import { isOneLine } from './one-line';
import { lineIn, type LineSeen } from './single-line';

/** Part of a fill, about its middle, that is looked at. */
const INNER = 0.7;

/** What lines are told by. */
export interface FinePhoto {
  readonly fine: FineLight;
  /** What the camera blurs across lines that run so; null where no edge tells it. */
  blur(run: LinesRun): Blur | null;
}

/** The lines of a cell, by the strongest of its fills: there they show longest. Null for a cell without a fill, and where the photo cannot tell them. */
export function linesOfCell({ fine, blur }: FinePhoto, cell: Cell): LinesSeen | null {
  const fill = fillOfCell(cell);
  // No blur is looked for where there are too few pixels anyway.
  if (!fill || !hasPixelsFor(fine, fill.intervalMm)) return null;
  const told = blur(fill.run);
  return told && linesOfFill(fine, fill.area, { ...fill, blur: told });
}

/** The ripple of a cell as the photo shows it, by the strongest of its fills; null for a cell without one, and where the photo cannot tell it. */
export function rippleOfCell({ fine }: Pick<FinePhoto, 'fine'>, cell: Cell): RippleSeen | null {
  const fill = fillOfCell(cell);
  return fill && rippleOfFill(fine, fill.area, fill);
}

/** The part that is looked at of the strongest fill of a cell; null for a cell without one of several lines. */
function fillOfCell({
  burns,
}: Cell): { readonly area: Rect; readonly intervalMm: number; readonly run: LinesRun } | null {
  const fills = burns.filter(({ shape }) => shape.do === 'sweep');
  if (fills.length === 0) return null;
  const strongest = fills.reduce((most, burn) => (powerOf(burn) > powerOf(most) ? burn : most));
  if (isOneLine(strongest)) return null;
  const { shape, settings } = strongest;
  const box = boxOfShape(shape);
  const area = grown(box, (-(1 - INNER) * Math.min(box.width, box.height)) / 2);
  return { area, intervalMm: settings.intervalMm, run: settings.direction };
}

/** Whether a cell is burned by one sweep and nothing else. */
export function hasOneLine({ burns: [burn, ...others] }: Pick<Cell, 'burns'>): boolean {
  return burn !== undefined && others.length === 0 && isOneLine(burn);
}

/** Ends of a line are left out: there the head is still under way, or stops. */
const END_SHARE = 0.1;

/** The one line of a cell that is burned by a single sweep; null for other cells, and where the photo cannot tell it. */
export function lineOfCell({ fine, blur }: FinePhoto, cell: Cell): LineSeen | null {
  if (!hasOneLine(cell)) return null;
  const { direction: run } = mainBurn(cell).settings;
  const { x, y, width, height } = cell.box;
  const band =
    run === 'horizontal'
      ? { x: x + END_SHARE * width, y, width: (1 - 2 * END_SHARE) * width, height }
      : { x, y: y + END_SHARE * height, width, height: (1 - 2 * END_SHARE) * height };
  const told = blur(run);
  return told && lineIn(fine, band, { run, blur: told });
}

const powerOf = ({ settings }: Burn): number => settings.powerFraction;

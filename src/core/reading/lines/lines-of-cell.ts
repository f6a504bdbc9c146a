import type { Cell } from '../../card/layout';
import { boxOfShape, type Burn } from '../../card/shape';
import { grown } from '../../geometry/point';
import type { LinesRun } from './across';
import type { Blur } from './blur';
import type { FineLight } from './fine-light';
import { hasPixelsFor, linesOfFill, type LinesSeen } from './lines-of-fill';

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
  const fills = cell.burns.filter(({ shape }) => shape.do === 'sweep');
  if (fills.length === 0) return null;
  const { shape, settings } = fills.reduce((most, burn) => (powerOf(burn) > powerOf(most) ? burn : most));
  const box = boxOfShape(shape);
  const area = grown(box, (-(1 - INNER) * Math.min(box.width, box.height)) / 2);
  const { intervalMm, direction: run } = settings;
  // No blur is looked for where there are too few pixels anyway.
  if (!hasPixelsFor(fine, intervalMm)) return null;
  const told = blur(run);
  return told && linesOfFill(fine, area, { intervalMm, run, blur: told });
}

const powerOf = ({ settings }: Burn): number => settings.powerFraction;

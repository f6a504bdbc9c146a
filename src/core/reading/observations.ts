import type { DrawingSeen } from './drawing-of-cell';
import type { EndsSeen } from './ends-of-cell';
import type { HueShift } from './hue';
import type { BarsSeen } from './lines/bars-of-cell';
import type { LinesSeen, RippleSeen } from './lines/lines-of-fill';
import type { LineSeen } from './lines/single-line';
import type { PictureSeen } from './picture-of-cell';

/** Why a cell's reading is not to be trusted without a look. */
export type Doubt =
  | 'clipped'
  | 'stock-clipped'
  | 'blurred'
  | 'uneven'
  | 'stock-varies'
  | 'off-frame'
  | 'few-markers'
  | 'far-from-bare-stock'
  | 'reflection'
  | 'tones-unsure'
  | 'tones-unknown'
  | 'through-sheet'
  | 'photos-disagree';

/** What a photo shows of one cell. Lightness values are CIELAB L* on the stock's own scale. */
export interface CellReading {
  readonly cellIndex: number;
  /** L* over the inner 60 % of the cell. */
  readonly lightness: number;
  /** L* minus the bare stock's L*: negative is darker than the stock. */
  readonly deltaLightness: number;
  /** Standard deviation of L* over 0.25 mm patches of the cell. */
  readonly spread: number;
  /** The lines of its strongest fill; null where the photo cannot tell them or is blown out, and for cells read before that was looked at. */
  readonly lines: LinesSeen | null;
  /** How strongly its lines show, as the photo has it: only within one photo to be compared. Null for cards of one piece, and where the photo cannot tell it. */
  readonly ripple: RippleSeen | null;
  /** The one line of a cell that has a single one; null for other cells, and where the photo cannot tell it. */
  readonly line: LineSeen | null;
  /** The two bars of a cell that is burned in one on each way; null for other cells, and where the photo cannot tell them. */
  readonly bars: BarsSeen | null;
  /** The ends of a long fill; null for other cells. */
  readonly ends: EndsSeen | null;
  /** The blocks of a cell that is burned as a picture; null for other cells. */
  readonly picture: PictureSeen | null;
  /** How far a drawing of burned and bare places stands out; null for other cells, where the photo cannot tell it, and for cells read before that was looked at. */
  readonly drawing: DrawingSeen | null;
  /** Mean L* of the ring outside the cell minus bare stock: negative is a dark halo. */
  readonly edgeHalo: number;
  /** Share of the cell's pixels at either end of the camera's range. */
  readonly clippedShare: number;
  /** 10-90 % width of the cell's left edge in mm; null when the cell has no edge to measure. */
  readonly edgeWidthMm: number | null;
  /** Standard uncertainty of `lightness`. */
  readonly lightnessSigma: number;
  /** The part of it that lies in the piece itself, so that every photo of it shares it: what stock under the cell was before it was burned. */
  readonly sharedSigma: number;
  /** 0..1: chance that `lightness` is within 2 L* of the truth, lowered by every doubt. */
  readonly confidence: number;
  readonly doubts: readonly Doubt[];
  /** How its colour differs from the stock's beyond being darker or lighter; null for cells read before that was looked at. */
  readonly hue: HueShift | null;
  /** Colour of the cell under the stock's own light, "#rrggbb". */
  readonly colour: string;
}

/** No photo tells a cell surer than this by itself, whatever its noise: two that agree better do so by chance. */
const LEAST_OWN = 0.1;

/** The part of a reading's sigma that another photo of the same piece would not share. */
export const ownSigma = ({ lightnessSigma, sharedSigma }: CellReading): number =>
  Math.max(LEAST_OWN, Math.sqrt(Math.max(0, lightnessSigma ** 2 - sharedSigma ** 2)));

/** L* within which a reading promises to be: confidence is the chance of that. */
export const PROMISE = 2;

/**
 * Below this confidence a cell is marked and the operator is asked. A cell just above it is silently off by more than the promise with the rest of
 * the chance: a limit of nine in ten let through more than ordinary photos have, and on those a higher one marks no more.
 */
export const LOW_CONFIDENCE = 0.97;

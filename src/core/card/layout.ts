import type { Point, Rect } from '../geometry/point';
import type { Levels } from './channels';
import type { Air } from './settings';
import type { Burn } from './shape';

/** Where a cell is expected to end up before it is burned. */
export type Fate = 'no-mark' | 'overburn' | 'does-not-fire' | 'too-fast';

/** One patch, strip or part of a card. Positions are card millimetres: x right, y down, from the card's upper left corner. */
export interface Cell {
  readonly index: number;
  readonly box: Rect;
  readonly levels: Levels;
  readonly burns: readonly Burn[];
  /** What ranks cells by danger: delivered energy per area or per length, whichever the kind goes by. */
  readonly risk: number;
  /** Null when nothing speaks against it. */
  readonly expected: Fate | null;
  readonly leftOut: boolean;
}

export type CornerName = 'upper-left' | 'upper-right' | 'lower-right' | 'lower-left';

export const CORNER_NAMES: readonly CornerName[] = ['upper-left', 'upper-right', 'lower-right', 'lower-left'];

export interface MarkerPlace {
  readonly corner: CornerName;
  readonly id: number;
  readonly x: number;
  readonly y: number;
  readonly sizeMm: number;
}

export interface Lettering {
  readonly role: 'header' | 'constants' | 'code' | 'axis';
  readonly text: string;
  /** Polylines in card millimetres. */
  readonly strokes: readonly (readonly Point[])[];
}

export interface MarkSettings {
  readonly powerFraction: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
}

export interface StrokeSettings {
  readonly powerFraction: number;
  readonly speedMmPerS: number;
}

/** How markers and lettering are burned: they mark, and never cut. */
export interface FrameSettings {
  readonly marker: MarkSettings;
  readonly lettering: StrokeSettings;
}

/** What surrounds a card's cells: four corner markers, or none on a card that no photo answers, and lettering. */
export interface Frame {
  readonly markers: readonly MarkerPlace[];
  readonly lettering: readonly Lettering[];
  readonly settings: FrameSettings;
  readonly air: Air;
}

export const LAYOUT_VERSION = 2;

/** A card at true scale: all that the machine, the drawing and the reading need. Plain data, safe as JSON. */
export interface Layout {
  readonly version: typeof LAYOUT_VERSION;
  readonly kind: string;
  readonly cardNumber: number;
  readonly code: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly frame: Frame;
  /** Where the cells lie, and where a search may add some. */
  readonly inner: Rect;
  /** Burns that cells share, done before or after them: a comb's outline, a hinge's rim. */
  readonly before: readonly Burn[];
  readonly after: readonly Burn[];
  readonly cells: readonly Cell[];
  /** Cell indexes in the order they burn, cells left out not among them. */
  readonly order: readonly number[];
}

/** The burn that a cell is described by: its first. Throws RangeError for a cell without burns. */
export function mainBurn(cell: Cell): Burn {
  const burn = cell.burns[0];
  if (!burn) throw new RangeError(`missing burns of cell ${cell.index}`);
  return burn;
}

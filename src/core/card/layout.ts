import type { Point, Rect } from '../geometry/point';
import type { CutLattice } from '../hinge/bend';
import type { Mates } from '../joint/mates';
import type { Levels } from './channels';
import type { Air } from './settings';
import type { Burn } from './shape';
import type { Tilt } from './tilt';

/** Where a cell is expected to end up before it is burned. */
export type Fate = 'no-mark' | 'overburn' | 'does-not-fire' | 'too-fast';

/** How something comes out that a kerf was made up for. */
export interface ComesOut {
  /** What it is to measure once it is cut, along each axis. */
  readonly widthMm: number;
  readonly heightMm: number;
  /** What the cut was taken to take, full width, along each axis, and its standard uncertainty; null where nobody knows. */
  readonly kerf: { readonly xMm: number; readonly yMm: number; readonly sigmaMm: number | null };
  /** What it is a part of, by name. */
  readonly drawing: string;
}

/** What is to come out of a cut: for kinds whose cells are parts of any outline. */
export interface Wanted {
  /** The outline as it is wanted, closed. */
  readonly outline: readonly Point[];
  /** A place on what comes loose. */
  readonly on: Point;
  /** Of what was made up for a kerf: how it is to come out. */
  readonly comesOut?: ComesOut;
  /** Of a strip that is to bend: the slits of its field. */
  readonly hinge?: CutLattice;
  /** Of a slot: the cell whose part is pushed into it, and how it is to go. */
  readonly takes?: { readonly cellIndex: number; readonly fit: 'press' | 'snug' | 'slip' };
}

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
  readonly wanted?: Wanted;
}

export type CornerName = 'upper-left' | 'upper-right' | 'lower-right' | 'lower-left';

export const CORNER_NAMES: readonly CornerName[] = ['upper-left', 'upper-right', 'lower-right', 'lower-left'];

/**
 * Side of the markers of new cards, by the card's longer side: small ones burn in a few seconds, and a photo of a larger card shows each
 * millimetre by fewer pixels.
 */
export const MARKER_SIZES_MM = [
  { upToMm: 62, sideMm: 3.2 },
  { upToMm: 105, sideMm: 4.8 },
  { upToMm: Infinity, sideMm: 6.4 },
] as const;
export const LEAST_MARKER_MM = MARKER_SIZES_MM[0].sideMm;

export interface MarkerPlace {
  readonly corner: CornerName;
  /** The station whose corner it is; left out on cards of one piece. */
  readonly station?: string;
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

export const MARKER_CHOICES = ['burned', 'on-sheet'] as const;
export type MarkerChoice = (typeof MARKER_CHOICES)[number];

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
  /** `short`: code, axes and what they mean. `full`: machine, stock and what is constant as well, for cards that leave the shop. */
  readonly words: 'short' | 'full';
  /**
   * Whether a card whose photo is read has its four markers burned, or is read lying on a frame sheet: a piece too small for them, or too precious.
   * Plans that do not say it burn them.
   */
  readonly markers?: MarkerChoice;
}

/** What surrounds a card's cells: four corner markers, or none on a card that no photo answers, and lettering. */
export interface Frame {
  readonly markers: readonly MarkerPlace[];
  readonly lettering: readonly Lettering[];
  readonly settings: FrameSettings;
  readonly air: Air;
}

export const LAYOUT_VERSION = 4;

/** A part of a card that stands by itself somewhere on the bed, with markers of its own, and is photographed by itself. */
export interface Station {
  /** "A1": row and column, the row at the rear first. */
  readonly name: string;
  /** What it takes of the card's area. */
  readonly box: Rect;
  /** Cell indexes. */
  readonly cells: readonly number[];
  /** Its markers carry a number of their own, so that a photo tells which station it shows. */
  readonly cardNumber: number;
}

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
  /**
   * Cells that are crossed in one sweep, power changing at their borders: neighbours in `order`, of one speed, interval and focus. Empty
   * where each cell is filled by itself.
   */
  readonly together: readonly (readonly number[])[];
  /** Burned long ago by other means: no markers, and a photo is placed by the outer corners of its corner cells. */
  readonly adopted: boolean;
  /** Left out where the card is one piece under one frame. */
  readonly stations?: readonly Station[];
  /** The board is tilted before the card is burned; left out where it lies level. */
  readonly tilt?: Tilt;
  /** What its cells go together with; left out where they go together with nothing. */
  readonly mates?: Mates;
  /** Standard deviation in mm of how the focus is set on this machine by who burns it; left out where nobody said how. */
  readonly focusScatterMm?: number;
}

/** Whether a photo of a card is placed by markers burned on it; one without is placed by the corners of its cells, or by a frame sheet and those. */
export const hasMarkers = ({ frame }: Pick<Layout, 'frame'>): boolean => frame.markers.length > 0;

/** The burn that a cell is described by: its first. Throws RangeError for a cell without burns. */
export function mainBurn(cell: Cell): Burn {
  const burn = cell.burns[0];
  if (!burn) throw new RangeError(`missing burns of cell ${cell.index}`);
  return burn;
}

import type { Point, Rect } from '../geometry/point';
import type { BurnSettings, Constants } from './settings';

/** Where a cell is expected to end up before it is burned. */
export type Fate = 'plain' | 'no-mark' | 'overburn' | 'does-not-fire' | 'too-fast';

/** One patch of a card. Positions are card millimetres: x right, y down, from the card's upper left corner. */
export interface Cell extends Rect {
  readonly index: number;
  readonly column: number;
  readonly row: number;
  readonly settings: BurnSettings;
  readonly deliveredW: number;
  readonly arealEnergyJPerMm2: number;
  readonly lineEnergyJPerMm: number;
  readonly fate: Fate;
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

/** A card at true scale: all that the machine, the drawing and the reading need. Plain data, safe as JSON. */
export interface Layout {
  readonly kind: string;
  readonly cardNumber: number;
  readonly code: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly cells: readonly Cell[];
  readonly markers: readonly MarkerPlace[];
  readonly lettering: readonly Lettering[];
  /** Cell indexes in the order they burn, cells left out not among them. */
  readonly order: readonly number[];
  readonly constants: Constants;
  readonly markerSettings: MarkSettings;
  readonly letteringSettings: StrokeSettings;
}

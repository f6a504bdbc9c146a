import type { Point } from '../geometry/point';
import type { Machine } from './machine';

/** How a place on the bed becomes coordinates of a program: which place is zero, and the sense of each axis. */
export interface ProgramAxes {
  /** Zero, as a place on the bed: mm from its left edge, and from its rear edge towards the operator. */
  readonly zero: Point;
  readonly xSign: 1 | -1;
  readonly ySign: 1 | -1;
}

/** A card on the bed, in mm from the bed's left and rear edges. */
export interface CardOnBed {
  readonly leftMm: number;
  readonly rearMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

type Told = Pick<Machine, 'zero' | 'xPlus' | 'yPlus' | 'bedWidthMm' | 'bedDepthMm'>;

/**
 * The axes of a machine's programs for a card. Coordinates count from the machine's zero in the sense of its axes, so that a card comes
 * to lie as it is drawn on every machine, its lettering upright. A zero on the card (`card-corner`, `card-middle`, `head`) does not
 * depend on where the card lies on the bed.
 *
 * A bed of 400 x 300 mm, zero at its front left corner, y away from the operator: the bed's rear left corner is X0 Y300.
 */
export function programAxes(machine: Told, card: CardOnBed): ProgramAxes {
  return {
    zero: zeroOnBed(machine, card),
    xSign: machine.xPlus === 'right' ? 1 : -1,
    ySign: machine.yPlus === 'toward' ? 1 : -1,
  };
}

function zeroOnBed({ zero, bedWidthMm, bedDepthMm }: Told, card: CardOnBed): Point {
  const { leftMm, rearMm, widthMm, heightMm } = card;
  switch (zero) {
    case 'bed-front-left':
      return { x: 0, y: bedDepthMm };
    case 'bed-front-right':
      return { x: bedWidthMm, y: bedDepthMm };
    case 'bed-rear-left':
      return { x: 0, y: 0 };
    case 'bed-rear-right':
      return { x: bedWidthMm, y: 0 };
    case 'bed-middle':
      return { x: bedWidthMm / 2, y: bedDepthMm / 2 };
    case 'card-middle':
      return { x: leftMm + widthMm / 2, y: rearMm + heightMm / 2 };
    case 'card-corner':
    case 'head':
      return { x: leftMm, y: rearMm + heightMm };
  }
}

/** Coordinates in a program of a place on the bed. */
export const toProgram = ({ zero, xSign, ySign }: ProgramAxes, place: Point): Point => ({
  x: xSign * (place.x - zero.x),
  y: ySign * (place.y - zero.y),
});

/** The place on the bed that a program's coordinates mean. */
export const toBed = ({ zero, xSign, ySign }: ProgramAxes, { x, y }: Point): Point => ({
  x: zero.x + xSign * x,
  y: zero.y + ySign * y,
});

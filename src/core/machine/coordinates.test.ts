import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { programAxes, toBed, toProgram } from './coordinates';
import { ZERO_PLACES, type ZeroPlace } from './machine';

const CARD = { leftMm: 50, rearMm: 40, widthMm: 60, heightMm: 30 };
const axes = (zero: ZeroPlace, xPlus: 'right' | 'left' = 'right', yPlus: 'away' | 'toward' = 'away') =>
  programAxes({ zero, xPlus, yPlus, bedWidthMm: 400, bedDepthMm: 300 }, CARD);

describe('a program’s coordinates', () => {
  // Worked out by hand on a bed of 400 x 300: the card's upper left corner lies 50 from the left and 40 from the rear, so 260 from the front.
  it.each([
    ['bed-front-left', 'right', 'away', 50, 260],
    ['bed-front-right', 'right', 'away', -350, 260],
    ['bed-front-right', 'left', 'away', 350, 260],
    ['bed-rear-left', 'right', 'away', 50, -40],
    ['bed-rear-left', 'right', 'toward', 50, 40],
    ['bed-rear-right', 'left', 'toward', 350, 40],
    ['bed-middle', 'right', 'away', -150, 110],
    ['card-corner', 'right', 'away', 0, 30],
    ['card-middle', 'right', 'away', -30, 15],
    ['card-middle', 'right', 'toward', -30, -15],
    ['head', 'left', 'away', 0, 30],
  ] as const)('from %s, X to the %s and Y %s', (zero, xPlus, yPlus, x, y) => {
    const at = toProgram(axes(zero, xPlus, yPlus), { x: 50, y: 40 });
    expect(at.x).toBeCloseTo(x, 12);
    expect(at.y).toBeCloseTo(y, 12);
  });
  prop([
    fc.constantFrom(...(Object.keys(ZERO_PLACES) as ZeroPlace[])),
    fc.constantFrom('right' as const, 'left' as const),
    fc.constantFrom('away' as const, 'toward' as const),
    fc.record({ x: fc.integer({ min: 0, max: 400 }), y: fc.integer({ min: 0, max: 300 }) }),
  ])('turn round and back', (zero, xPlus, yPlus, place) => {
    const told = axes(zero, xPlus, yPlus);
    expect(toBed(told, toProgram(told, place))).toEqual(place);
  });
});

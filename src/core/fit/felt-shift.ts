import { chancesAt, movedBounds, type FeltSlot, type FitBounds } from './fit-bounds';

/** Real parts go in otherwise than an offcut did by about so much: another edge, another hand (from memory, without a source). */
const PARTS_MM = 0.04;
const STEP_MM = 0.002;
const REACH_MM = 0.2;

/**
 * By how much the bounds of a comb are to be moved for real parts, told by how some went in: all bounds together, by the posterior of their shift on a grid.
 * Nothing felt moves nothing.
 *
 * A part that should have been pressed at the middle of that class and was snug: snug begins at less than the comb said, a shift below zero.
 */
export function feltShift(
  bounds: FitBounds,
  felt: readonly FeltSlot[],
): { readonly shiftMm: number; readonly sigmaMm: number } {
  const grid: { shiftMm: number; weight: number }[] = [];
  for (let shiftMm = -REACH_MM; shiftMm <= REACH_MM + STEP_MM / 2; shiftMm += STEP_MM) {
    const moved = movedBounds(bounds, shiftMm);
    const prior = Math.exp((-shiftMm * shiftMm) / (2 * PARTS_MM * PARTS_MM));
    // A hand is wrong once in a while: nothing felt is impossible.
    const weight = felt.reduce(
      (product, { clearanceMm, fit }) => product * (0.02 + chancesAt(moved, clearanceMm)[fit]),
      prior,
    );
    grid.push({ shiftMm, weight });
  }
  const sum = grid.reduce((total, { weight }) => total + weight, 0);
  const mean = grid.reduce((total, { shiftMm, weight }) => total + shiftMm * weight, 0) / sum;
  const variance = grid.reduce((total, { shiftMm, weight }) => total + (shiftMm - mean) ** 2 * weight, 0) / sum;
  return { shiftMm: mean, sigmaMm: Math.sqrt(variance) };
}

import { expect, it } from 'vitest';
import { feltShift } from './felt-shift';
import { middleOfFit, type FitBounds } from './fit-bounds';

const bound = (atMm: number) => ({ atMm, sigmaMm: 0.01 });
const BOUNDS: FitBounds = {
  from: { press: bound(-0.3), snug: bound(-0.2), slip: bound(-0.12), loose: bound(-0.02) },
  scatterMm: 0.015,
};
const at = middleOfFit(BOUNDS, 'press');

it('moves bounds by how real parts went in, the more of them the further, and by nothing where none was felt', () => {
  expect(feltShift(BOUNDS, []).shiftMm).toBeCloseTo(0, 9);
  expect(feltShift(BOUNDS, []).sigmaMm).toBeCloseTo(0.04, 3);
  expect(Math.abs(feltShift(BOUNDS, [{ clearanceMm: at, fit: 'press' }]).shiftMm)).toBeLessThan(0.004);
  // Snug where pressed was to be: snug begins at less; does not go in: everything begins at more.
  const snug = feltShift(BOUNDS, [{ clearanceMm: at, fit: 'snug' }]);
  const twice = feltShift(BOUNDS, [
    { clearanceMm: at, fit: 'snug' },
    { clearanceMm: at, fit: 'snug' },
  ]);
  expect(snug.shiftMm).toBeLessThan(-0.02);
  expect(twice.shiftMm).toBeLessThanOrEqual(snug.shiftMm);
  expect(feltShift(BOUNDS, [{ clearanceMm: at, fit: 'no' }]).shiftMm).toBeGreaterThan(0.02);
  // What contradicts itself moves little, and stays unsure.
  const both = feltShift(BOUNDS, [
    { clearanceMm: at, fit: 'snug' },
    { clearanceMm: at, fit: 'no' },
  ]);
  expect(Math.abs(both.shiftMm)).toBeLessThan(0.01);
});

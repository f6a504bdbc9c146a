import { describe, expect, it } from 'vitest';
import { readingOf } from '../../../../stand-ins/made-up-reading';
import type { CellReading } from '../observations';
import { lightBetween } from './light-between-photos';
import { lightnessUnderVeil } from './under-veil';

const STOCK = 19;
/** L* by which a mark of 60 on that stock falls for a share of white, at its beginning. */
const SLOPE = (lightnessUnderVeil(60, STOCK, 1e-5) - 60) / 1e-5;

/** Marks of L* 60, each moved by so many shares of white along the slope, and so unsure. */
const marks = (...all: readonly (readonly [share: number, sigma: number, shared?: number])[]): CellReading[] =>
  all.map(([share, sigma, sharedSigma = 0], cellIndex) => {
    const lightness = 60 + share * SLOPE;
    return {
      ...readingOf(cellIndex),
      lightness,
      deltaLightness: lightness - STOCK,
      lightnessSigma: sigma,
      sharedSigma,
    };
  });
const added = (...photos: CellReading[][]) =>
  lightBetween(photos.map((cells) => ({ cells, isMirrored: false }))).added.map((one) => Number(one.toFixed(4)));
const six = <Value>(value: Value): Value[] => Array<Value>(6).fill(value);
const clear = marks(...six([0, 0.3] as const));

describe('light that lies over one photo and not over another', () => {
  it('is by what marks are moved, the sure ones before the others', () => {
    expect(added(clear, marks(...six([0.002, 0.3] as const)))).toEqual([0, 0.002]);
    expect(added(marks(...six([0.002, 0.3] as const)), clear)).toEqual([0.002, 0]);
    // Variances 0.18 and 0.72, weights 4 to 1: (4 x 0.002 + 0.004) / 5. What both photos share of the piece makes none of them unsure.
    const two = (one: readonly [number, number, number?], other: readonly [number, number, number?]) =>
      marks(one, other, one, other, one, other);
    const [sure, unsure] = [Math.SQRT1_2 * 0.6, Math.SQRT1_2 * 1.2];
    const mixed = two([0.002, sure], [0.004, Math.hypot(unsure, 2), 2]);
    expect(added(two([0, 0], [0, 0]), mixed)[1]).toBeCloseTo(0.0024, 3.5);
    expect(added(mixed, two([0, 0], [0, 0]))[0]).toBeCloseTo(0.0024, 3.5);
  });
  it('is told by six marks in both, none of which is in doubt for another reason', () => {
    const veiled = marks(...six([0.002, 0.3] as const));
    expect(added(clear.slice(1), veiled)).toEqual([0, 0]);
    const blownOut = (cells: CellReading[]) =>
      cells.map((cell, k) => (k === 0 ? { ...cell, doubts: ['clipped' as const] } : cell));
    expect(added(blownOut(clear), veiled)).toEqual([0, 0]);
    expect(added(clear, blownOut(veiled))).toEqual([0, 0]);
    expect(
      added(
        clear,
        veiled.map((cell) => ({ ...cell, doubts: ['reflection' as const] })),
      ),
    ).toEqual([0, 0.002]);
  });
  it('is none where marks are moved by what they are unsure of, scatter, or all photos have alike', () => {
    // By hand: 0.3 L* of each of six, twice, over the slope is 0.00021 in one direction; sure are twice 0.0005 at the least.
    expect(Math.abs((0.3 * Math.SQRT2) / SLOPE / Math.sqrt(6))).toBeCloseTo(0.00021, 5);
    expect(added(clear, marks(...six([0.00095, 0.3] as const)))).toEqual([0, 0]);
    expect(added(clear, marks(...six([0.00105, 0.3] as const)))).toEqual([0, 0.0011]);
    expect(added(clear, marks(...six([0.004, 8] as const)))).toEqual([0, 0]);
    // As much one way as the other, and a third more: a mean of 0.004 that scatters by 0.013 is 0.005 unsure.
    const scattered = [0.016, -0.008, 0.016, -0.008, 0.016, -0.008].map((share) => [share, 0.3] as const);
    expect(added(clear, marks(...scattered))).toEqual([0, 0]);
    const bare = marks(...six([0, 0.3] as const)).map((cell) => ({ ...cell, deltaLightness: 0 }));
    expect(added(bare, bare)).toEqual([0, 0]);
  });
  it('is over the clearest of them all, and as much may lie under every one', () => {
    const photos = [0.002, 0, 0.004].map((share) => ({
      cells: marks(...six([share, 0.3] as const)),
      isMirrored: false,
    }));
    const { added: all, sigmaOf } = lightBetween(photos);
    expect(all[0]! / 0.002).toBeCloseTo(1, 1);
    expect(all[1]).toBe(0);
    expect(all[2]! / 0.004).toBeCloseTo(1, 1);
    expect(sigmaOf(clear[0]!)).toBeCloseTo(-all[2]! * SLOPE, 1);
    expect(sigmaOf({ ...clear[0]!, deltaLightness: 0 })).toBeCloseTo(0, 9);
    expect(lightBetween([]).added).toEqual([]);
    // One that shows few of them first, as from closer by, says nothing; those after it are compared with each other.
    expect(added(clear.slice(0, 3), clear, marks(...six([0.002, 0.3] as const)))).toEqual([0, 0, 0.002]);
  });
});

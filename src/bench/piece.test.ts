import { describe, expect, it } from 'vitest';
import { CELL, square } from '../../tests/support/bench';
import { demoPairing } from '../../stand-ins/demo';
import { rayleighOf } from './bench';
import type { Trace } from './laser';
import { benchMachineOf } from './of-records';
import { burnPiece, deepened, trueLuminanceRatio, type BurnRequest, type Piece } from './piece';
import { SPECIMENS, type Specimen } from './specimens';

const { machine, lens: ownLens } = demoPairing('marl', 'alder');
const benchMachine = benchMachineOf(machine, ownLens);

describe('simulated stock', () => {
  it('stays as it was where and when nothing burns it', () => {
    expect(trueLuminanceRatio(burnPiece(square(0)), CELL)).toBeCloseTo(1, 2);
    expect(trueLuminanceRatio(burnPiece(square(1)), { x: -0.8, y: 0, width: 1, height: 10 })).toBeCloseTo(1, 2);
  });
  it('darkens with energy until it is spoiled; slate and two-layer stock lighten', () => {
    const ratios = [0.05, 0.2, 0.5, 1, 2].map((energy) => trueLuminanceRatio(burnPiece(square(energy)), CELL));
    ratios.slice(1).forEach((ratio, index) => expect(ratio).toBeLessThan(ratios[index]!));
    expect(trueLuminanceRatio(burnPiece(square(8)), CELL)).toBeGreaterThan(ratios.at(-1)!);
    for (const family of ['slate', 'two-layer']) {
      expect(trueLuminanceRatio(burnPiece(square(0.8, { specimen: SPECIMENS[family]! })), CELL)).toBeGreaterThan(2);
    }
  });
  it('marks less out of focus at the same energy near the threshold, and by what it absorbs', () => {
    const sharp = trueLuminanceRatio(burnPiece(square(1)), CELL);
    const blue = trueLuminanceRatio(burnPiece(square(1, { band: 'blue' })), CELL);
    const near = trueLuminanceRatio(burnPiece(square(1, { band: 'near' })), CELL);
    expect(sharp).toBeLessThan(blue);
    expect(blue).toBeLessThan(near);
  });
  it('is the same for the same seed and another for another', () => {
    const one = burnPiece(square(1));
    // Compared as bytes: the runner takes seconds over millions of numbers.
    const same = (other: Piece): boolean => Buffer.from(other.after.buffer).equals(Buffer.from(one.after.buffer));
    expect(same(burnPiece(square(1)))).toBe(true);
    expect(same(burnPiece(square(1, { seed: 'other' })))).toBe(false);
    expect(one.width).toBe(12 * one.pxPerMm);
  });
});

/** A line across the middle of the card and over its edges, so far from focus, by a spot that is broad against what is looked at. */
function line(joulesPerMm: number, focusOffsetMm: number, change: Partial<BurnRequest> = {}): BurnRequest {
  // In short stretches, as a laser tells them: each has its own height over the sheet.
  const traces = Array.from({ length: 24 }, (_, k): Trace => {
    const [x0, x1] = [k / 2 - 1, (k + 1) / 2 - 1];
    return { x0, x1, y0: 5, y1: 5, joulesPerMm, watts: 10, speedMmPerS: 100, focusOffsetMm, air: 'on' };
  });
  const mdf = SPECIMENS['mdf']!;
  const even = { ...mdf, smoke: 0, texture: { ...mdf.texture, mottle: 0, fine: 0 }, solid: { ...mdf.solid, bowMm: 0 } };
  return square(0, { specimen: even, traces, spot: { xMm: 1.2, yMm: 1.2, rayleighMm: 2 }, ...change });
}

/** How much of the bare stock's light comes back from the middle of a line. */
function atLine(request: BurnRequest, x: number, y: number): number {
  const small = { x: x - 0.1, y: y - 0.1, width: 0.2, height: 0.2 };
  return trueLuminanceRatio(burnPiece(request), small);
}

describe('a crossing', () => {
  const from = (soundMm: number, resistanceAt: (mm: number) => number) =>
    deepened({ fromMm: 0.2, soundMm, thicknessMm: 3 }, resistanceAt);
  it('goes deeper by what it takes in sound stock, less by what resists it, and on through the sheet', () => {
    expect(from(0.4, () => 1)).toBeCloseTo(0.6, 9);
    expect(from(0.4, () => 2)).toBeCloseTo(0.4, 9);
    // Half a millimetre of sound stock, then a pocket that takes twice as much.
    expect(from(1, (mm) => (mm < 0.7 - 1e-9 ? 1 : 2))).toBeCloseTo(0.95, 9);
    expect(from(5, () => 1)).toBeCloseTo(5.2, 9);
    expect(deepened({ fromMm: 0, soundMm: 0.05, thicknessMm: 3 }, () => 9)).toBeCloseTo(0.05, 9);
  });
  it('ends, whatever is left of it by rounding', () => {
    let asked = 0;
    const hard = (): number => {
      if (++asked > 50) throw new Error('it never ends');
      return 2.944035;
    };
    expect(from(0.236752, hard)).toBeCloseTo(0.2 + 0.236752 / 2.944035, 9);
  });
});

describe('focus on the bench', () => {
  it('has a Rayleigh range of the lens: as long as its focal length asks for, shorter for a wide beam and a small spot', () => {
    // A cone from a beam of 7 mm at the lens, 50 mm away, has opened by a spot of 0.14 mm after 50 * 0.14 / 7 mm.
    const lens = { ...benchMachine, wavelengthNm: 10600, focalLengthMm: 50, spotXMm: 0.1, spotYMm: 0.14 };
    expect(rayleighOf(lens)).toBeCloseTo(1, 9);
    expect(rayleighOf({ ...lens, focalLengthMm: 100 })).toBeCloseTo(2, 9);
    expect(rayleighOf({ ...lens, wavelengthNm: 450 })).toBeGreaterThan(rayleighOf(lens));
  });
  it('is wider by the root of two one Rayleigh range away, above or below', () => {
    const sharp = atLine(line(0.4, 0), 5, 5);
    for (const offset of [2, -2]) {
      // As bright in its middle with the root of two times the energy, and clearly paler with the same.
      expect(atLine(line(0.4 * Math.SQRT2, offset), 5, 5)).toBeCloseTo(sharp, 2);
      expect(atLine(line(0.4, offset), 5, 5)).toBeGreaterThan(sharp + 0.05);
    }
  });
  it('is lost over the middle of a warped sheet, not at its edges, and not over a flat one', () => {
    const mdf = line(0.4, 0).specimen;
    const warped = { ...mdf, solid: { ...mdf.solid, bowMm: 12 } };
    const paler = (specimen: Specimen, seed: string): number => {
      const request = line(0.4, 0, { specimen, seed });
      return atLine(request, 5, 5) - atLine(request, 0.3, 5);
    };
    const seeds = ['a', 'b', 'c', 'd'];
    expect(Math.max(...seeds.map((seed) => paler(warped, seed)))).toBeGreaterThan(0.1);
    for (const seed of seeds) expect(Math.abs(paler(mdf, seed))).toBeLessThan(0.02);
  });
  it('is lost on the parts of a warped sheet that lie about its middle: the sheet bows, and not each part by itself', () => {
    const mdf = line(0.4, 0).specimen;
    const specimen = { ...mdf, solid: { ...mdf.solid, bowMm: 12 } };
    const part = (x: number, y: number, sheet: string): number => {
      const partOf = { x, y, widthMm: 210, heightMm: 110, seed: sheet, goesOn: false };
      return atLine(line(0.4, 0, { specimen, partOf, seed: `${sheet} ${x} ${y}` }), 5, 5);
    };
    const [most] = ['a', 'b', 'c', 'd']
      .map((sheet) => ({
        middle: part(100, 50, sheet),
        sides: [part(0, 50, sheet), part(200, 50, sheet), part(100, 0, sheet), part(100, 100, sheet)],
      }))
      .sort((one, other) => other.middle - one.middle);
    for (const side of most!.sides) expect(most!.middle).toBeGreaterThan(side + 0.1);
  });
});

describe('a piece that is looked at from closer by', () => {
  /** What bare stock sends back at a place of the piece, by its own corner. */
  const bareAt = (piece: Piece, x: number, y: number): number => {
    const px = (mm: number): number => Math.round((mm + piece.marginMm) * piece.pxPerMm);
    let sum = 0;
    for (let v = px(y - 0.15); v < px(y + 0.15); v++)
      for (let u = px(x - 0.15); u < px(x + 0.15); u++) sum += piece.before[(v * piece.width + u) * 3 + 1]!;
    return sum / (px(y + 0.15) - px(y - 0.15)) / (px(x + 0.15) - px(x - 0.15));
  };
  it('has the grain of the whole where it lies, and another by itself', () => {
    const birch = SPECIMENS['plywood']!;
    const sheet = { specimen: birch, traces: [], seed: 'sheet', grainAlongX: true };
    const whole = burnPiece(square(1, { ...sheet, widthMm: 40, heightMm: 30 }));
    const part = (goesOn: boolean, seed: string): Piece =>
      burnPiece(
        square(1, { ...sheet, seed, partOf: { x: 22, y: 13, widthMm: 40, heightMm: 30, seed: 'sheet', goesOn } }),
      );
    const places = Array.from({ length: 60 }, (_, k) => ({ x: 1 + (k % 8), y: 1 + Math.floor(k / 8) }));
    const alike = (piece: Piece): number => {
      const pairs = places.map(({ x, y }) => [bareAt(whole, x + 22, y + 13), bareAt(piece, x, y)] as const);
      const mean = (of: 0 | 1): number => pairs.reduce((sum, pair) => sum + pair[of], 0) / pairs.length;
      const [a, b] = [mean(0), mean(1)];
      const sum = (of: (one: number, other: number) => number): number =>
        pairs.reduce((total, [one, other]) => total + of(one - a, other - b), 0);
      return sum((one, other) => one * other) / Math.sqrt(sum((one) => one * one) * sum((_, other) => other * other));
    };
    expect(alike(part(true, 'sheet'))).toBeGreaterThan(0.95);
    expect(Math.abs(alike(part(false, 'sheet part')))).toBeLessThan(0.6);
  });
});

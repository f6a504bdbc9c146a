import { describe, expect, it } from 'vitest';
import { square } from '../../tests/support/bench';
import { deposit, depositOn } from './deposit';
import type { Trace } from './laser';
import { burnPiece, trueLuminanceRatio } from './piece';
import { tuples } from '../../tests/support/tuples';

describe('energy is neither lost nor found', () => {
  it.each([
    [0.4, 0.4, 'a broad spot'],
    [0.02, 0.02, 'a spot far smaller than a pixel'],
    [0.05, 0.3, 'an oblong one'],
  ])('%f x %f px: %s, along an axis and aslant', (sigmaX, sigmaY) => {
    for (const [x1, y1] of tuples([40, 20], [10, 45], [33, 37])) {
      let sum = 0;
      const window = { left: 0, top: 0, width: 60, height: 60 };
      deposit({ x0: 10, y0: 20, x1, y1 }, 7.5, { sigmaX: sigmaX * 3, sigmaY: sigmaY * 3 }, window, (_index, share) => {
        sum += share;
      });
      expect(sum).toBeCloseTo(7.5, 2);
      // On a plane it falls where each pixel is told of it, on top of what was there, by the scale.
      const told = new Float32Array(60 * 60).fill(0.5);
      deposit(
        { x0: 10, y0: 20, x1, y1 },
        7.5,
        { sigmaX, sigmaY },
        window,
        (index, share) => (told[index]! += 3 * share),
      );
      const plane = new Float32Array(60 * 60).fill(0.5);
      depositOn(plane, 3, { x0: 10, y0: 20, x1, y1 }, 7.5, { sigmaX, sigmaY }, window);
      expect(plane.every((value, index) => Math.abs(value - told[index]!) < 1e-5)).toBe(true);
    }
  });
  it('so a small spot marks like a large one at the same energy and interval, to a few per cent of tone', () => {
    // 0.02 mm spots at 0.02 mm against 0.1 mm spots at 0.1 mm: the same energy on every square millimetre.
    const fine = (spotMm: number): number => {
      const traces: Trace[] = [];
      for (let y = 2; y < 4; y += spotMm)
        traces.push({
          x0: 2,
          y0: y,
          x1: 4,
          y1: y,
          joulesPerMm: 0.5 * spotMm,
          watts: 10,
          speedMmPerS: 100,
          focusOffsetMm: 0,
          air: 'on',
        });
      const spot = { xMm: spotMm, yMm: spotMm, rayleighMm: 1.4 };
      const request = square(0, { traces, spot, widthMm: 6, heightMm: 6 });
      return trueLuminanceRatio(burnPiece(request), { x: 2, y: 2, width: 2, height: 2 });
    };
    expect(fine(0.02) / fine(0.1)).toBeGreaterThan(0.9);
    expect(fine(0.02) / fine(0.1)).toBeLessThan(1.1);
  });
});

import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { proposeFill } from './propose-fill';
import { fillDots } from './path';
import { boxOfShape, movedBurn, regionOf, type DotsShape } from './shape';
import { tuples } from '../../../tests/support/tuples';

const { settings } = proposeFill({ pairing: demoPairing('marl', 'alder'), facts: [] });
/** A box that no whole number of dots fills, to the last hundredth. */
const shape: DotsShape = { do: 'dots', box: { x: 5, y: 7, width: 3.26, height: 2.14 }, grey: 0.4, screen: 'bayer' };

describe.each(['horizontal', 'vertical'] as const)('dots whose lines run %s', (direction) => {
  const how = { ...settings, direction, intervalMm: 0.1, passes: 1, bothWays: true, scanOffsetMm: 0 };
  const lies = direction === 'horizontal';
  const burned = () =>
    [...fillDots(shape, how, 0)].flatMap(({ from, to, lit: stretches }) => {
      const [start, end, across] = lies ? [from.x, to.x, from.y] : [from.y, to.y, from.x];
      const way = Math.sign(end - start);
      return stretches.map(({ fromMm, toMm }) => {
        const ends = [start + way * fromMm, start + way * toMm].sort((a, b) => a - b);
        return { across, from: ends[0]!, to: ends[1]! };
      });
    });
  let lit: ReturnType<typeof burned>;
  beforeEach(() => {
    lit = burned();
  });

  it('are in files where the head burns them, a ring for each run, as high as a line', () => {
    const rings = regionOf(shape, how).map((ring) => {
      const box = boxOfShape({ do: 'sweep', area: [ring] });
      const [from, length, at, high] = lies
        ? [box.x, box.width, box.y, box.height]
        : [box.y, box.height, box.x, box.width];
      expect(high).toBeCloseTo(0.1, 9);
      return { across: at + high / 2, from, to: from + length };
    });
    const sorted = (runs: typeof lit) => [...runs].sort((a, b) => a.across - b.across || a.from - b.from);
    expect(rings).toHaveLength(lit.length);
    sorted(rings).forEach((ring, index) => {
      const run = sorted(lit)[index]!;
      for (const of of ['across', 'from', 'to'] as const) expect(ring[of], `${index} ${of}`).toBeCloseTo(run[of], 6);
    });
  });
  it('cover so much of the box as is asked, in its middle and moved with it', () => {
    const dots = lit.reduce((sum, { from, to }) => sum + (to - from) / 0.1, 0);
    // 32 by 21 whole dots; ordered dots are right to 1/128, but for a last row that does not fill their square.
    expect(dots / (32 * 21)).toBeCloseTo(0.4, 1.5);
    const [first, last] = [Math.min(...lit.map(({ across }) => across)), Math.max(...lit.map(({ across }) => across))];
    expect((first + last) / 2).toBeCloseTo(lies ? 7 + 2.14 / 2 : 5 + 3.26 / 2, 1);
    const moved = movedBurn({ shape, settings: how }, 1.5, -2);
    const box = boxOfShape(moved.shape);
    for (const [side, mm] of tuples(['x', 6.5], ['y', 5], ['width', 3.26], ['height', 2.14]))
      expect(box[side]).toBeCloseTo(mm, 9);
  });
});

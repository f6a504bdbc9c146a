import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { opencv } from '../../../tests/support/opencv';
import { fitHomography, intoMirrored, invertHomography, isMirror, project, type Homography } from './homography';
import type { Point } from './point';
import { points } from '../../../tests/support/points';

const square: Point[] = points([0, 0], [50, 0], [50, 40], [0, 40]);
const shift = fc.double({ min: -180, max: 180, noNaN: true });

describe('homography from points', () => {
  const quad = fc.tuple(...square.flatMap(() => [shift, shift])).map((shifts) =>
    square.map((p, index) => ({
      x: 500 + p.x * 30 + shifts[2 * index]!,
      y: 400 + p.y * 30 + shifts[2 * index + 1]!,
    })),
  );

  prop([quad])('maps four points exactly, and its inverse maps them back', (target) => {
    const { homography, rmsError } = fitHomography(square, target);
    expect(rmsError).toBeLessThan(1e-6);
    const back = invertHomography(homography);
    target.forEach((p, index) => {
      const q = project(back, p.x, p.y);
      expect(Math.hypot(q.x - square[index]!.x, q.y - square[index]!.y)).toBeLessThan(1e-6);
    });
  });

  prop([quad])('goes into a mirrored image where the mirror puts each place, and is a mirror then', (target) => {
    const { homography } = fitHomography(square, target);
    const mirrored = intoMirrored(homography, 4000);
    expect([isMirror(homography), isMirror(mirrored)]).toEqual([false, true]);
    for (const { x, y } of square) {
      const [straight, back] = [project(homography, x, y), project(mirrored, x, y)];
      expect([back.x, back.y]).toEqual([expect.closeTo(3999 - straight.x, 6), expect.closeTo(straight.y, 6)]);
    }
  });

  it('agrees with a reference library on sixteen noisy points', async () => {
    const { cv } = await opencv();
    const from: Point[] = square.flatMap((p) =>
      [0, 1, 2, 3].map((k) => ({ x: p.x + (k % 2) * 6, y: p.y + (k >> 1) * 6 })),
    );
    const to = from.map((p, index) => {
      const w = 1 + 0.0011 * p.x - 0.0007 * p.y;
      const noise = Math.sin(index * 12.9898) * 0.8;
      return { x: (31 * p.x + 2.1 * p.y + 300) / w + noise, y: (-1.4 * p.x + 29 * p.y + 200) / w - noise };
    });
    const flat = (points: Point[]): number[] => points.flatMap((p) => [p.x, p.y]);
    const source = cv.matFromArray(from.length, 1, cv.CV_64FC2, flat(from));
    const target = cv.matFromArray(to.length, 1, cv.CV_64FC2, flat(to));
    const expected = cv.findHomography(source, target, 0);
    const { homography } = fitHomography(from, to);
    for (const p of points([25, 20], [0, 40], [53, 3])) {
      const ours = project(homography, p.x, p.y);
      const h = expected.data64F as unknown as typeof homography;
      const theirs = project(h, p.x, p.y);
      expect(Math.hypot(ours.x - theirs.x, ours.y - theirs.y)).toBeLessThan(0.02);
    }
  });

  describe('of more points than it needs', () => {
    // A strong perspective, and points that do not lie where it puts them.
    const from: Point[] = [0, 1, 2, 3, 4, 5, 6, 7, 8].map((k) => ({ x: (k % 3) * 25, y: Math.floor(k / 3) * 20 }));
    const to = from.map(({ x, y }, k) => {
      const w = 1 + 0.008 * x - 0.004 * y;
      return { x: (9 * x + y + 30) / w + 3 * Math.sin(7 * k), y: (8 * y - x + 20) / w + 3 * Math.cos(5 * k) };
    });
    const squares = (map: Homography): number =>
      from.reduce((sum, p, k) => {
        const q = project(map, p.x, p.y);
        return sum + (q.x - to[k]!.x) ** 2 + (q.y - to[k]!.y) ** 2;
      }, 0);
    it('is the one whose points lie nearest in the picture: no step in any of its numbers is better', () => {
      const { homography } = fitHomography(from, to);
      const least = squares(homography);
      for (let place = 0; place < 8; place++)
        for (const share of [1e-4, -1e-4]) {
          const moved = homography.map((value, at) => (at === place ? value * (1 + share) : value));
          expect(squares(moved as unknown as Homography), String(place)).toBeGreaterThan(least);
        }
    });
    it('tells how far they lie off on the average, by squares', () => {
      const { homography, rmsError } = fitHomography(from, to);
      expect(rmsError).toBeGreaterThan(1);
      expect(rmsError).toBeCloseTo(Math.sqrt(squares(homography) / 9), 9);
    });
  });

  it('says which point it is that is none', () => {
    const with_ = (x: number, y: number) => () => fitHomography(square, [...square.slice(0, 3), { x, y }]);
    expect(with_(NaN, 0)).toThrow('invalid point: NaN, 0');
    expect(with_(0, Infinity)).toThrow('invalid point: 0, Infinity');
    expect(() =>
      fitHomography(
        square,
        square.map(() => ({ x: 1, y: 1 })),
      ),
    ).toThrow('invalid points: all in one place');
    // Four places of a line, or three and one beside it, are no picture of a square, nor is a square one of them.
    const line = [0, 1, 2, 3].map((at) => ({ x: at, y: 2 * at }));
    const three = [...line.slice(0, 3), { x: 9, y: 1 }];
    for (const pair of [
      [square, line],
      [line, square],
      [line, line],
      [square, three],
      [three, square],
      [three, three],
    ] as const)
      expect(() => fitHomography(pair[0], pair[1])).toThrow(
        new RangeError('invalid points: three or more on one line'),
      );
    // The sides of a square cross each other: what lies between them is nowhere.
    expect(() => fitHomography(square, [square[0]!, square[2]!, square[1]!, square[3]!])).toThrow(/infinity/);
    // A strip is as good as a square, and what is nearly a line is none.
    const strip = square.map(({ x, y }) => ({ x: 40 * x, y }));
    expect(project(fitHomography(strip, square).homography, 20, 0.5).y).toBeCloseTo(0.5, 9);
  });
  it.each([
    ['three pairs', square.slice(0, 3), square.slice(0, 3)],
    ['unequal counts', square, square.slice(0, 3)],
    ['NaN', square, [...square.slice(0, 3), { x: NaN, y: 0 }]],
    ['one place', square, square.map(() => ({ x: 1, y: 1 }))],
  ])('refuses %s', (_name, from, to) => expect(() => fitHomography(from, to)).toThrow(RangeError));
});

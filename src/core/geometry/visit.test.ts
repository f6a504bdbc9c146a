import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from './point';
import { visitNearest } from './visit';
import { points } from '../../../tests/support/points';

const wayBetween = (lines: readonly (readonly Point[])[], start: Point): number => {
  let head = start;
  return lines.reduce((sum, line) => {
    const step = Math.hypot(line[0]!.x - head.x, line[0]!.y - head.y);
    head = line.at(-1)!;
    return sum + step;
  }, 0);
};

describe('the order in which lines are visited', () => {
  it('goes on to the nearest free end and follows a line from there', () => {
    const far = points([9, 0], [5, 0]);
    const near = points([1, 0], [4, 0]);
    expect(visitNearest([far, [], near], { x: 0, y: 0 })).toEqual([near, [far[1], far[0]]]);
  });
  it('keeps every line, turned at most, and leaves what it was given alone', () => {
    const point = fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) });
    fc.assert(
      fc.property(fc.array(fc.array(point, { minLength: 1, maxLength: 4 }), { maxLength: 12 }), (lines) => {
        const before = JSON.stringify(lines);
        const visited = visitNearest(lines, { x: 0, y: 0 });
        const plain = (line: readonly Point[]): string =>
          [JSON.stringify(line), JSON.stringify([...line].reverse())].sort()[0]!;
        expect(visited.map(plain).sort()).toEqual(lines.map(plain).sort());
        expect(JSON.stringify(lines)).toBe(before);
      }),
    );
  });
  it('takes the least way where the lines lie in a row, whatever order they were written in', () => {
    const row = [3, 0, 4, 1, 2].map((at) => points([at, 0], [at + 0.5, 0]));
    expect(wayBetween(visitNearest(row, { x: -1, y: 0 }), { x: -1, y: 0 })).toBeCloseTo(1 + 4 * 0.5, 12);
  });
});

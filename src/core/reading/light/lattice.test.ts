import { describe, expect, it } from 'vitest';
import { Lattice } from './lattice';
import { points } from '../../../../tests/support/points';
import { tuples } from '../../../../tests/support/tuples';

describe('a lattice over a card', () => {
  const lattice = new Lattice({ widthMm: 10, heightMm: 5 }, 2);
  const plane = (x: number, y: number): number => 3 + 2 * x - 5 * y;
  it('covers it and its edge, and has a plane between its places as at them', () => {
    const places = lattice.map((x, y) => [x, y]);
    expect([places[0], places[1], places.at(-1)]).toEqual(tuples([0, 0], [2, 0], [12, 8]));
    const values = lattice.map(plane);
    for (const { x, y } of points([0, 0], [10, 5], [3.7, 1.1], [9.9, 4.4]))
      expect(lattice.between(values, x, y)).toBeCloseTo(plane(x, y), 9);
  });
  it('has beyond its ends what it has at them', () => {
    const values = lattice.map(plane);
    expect(lattice.between(values, -3, 1)).toBeCloseTo(plane(0, 1), 9);
    expect(lattice.between(values, 1, -3)).toBeCloseTo(plane(1, 0), 9);
    expect(lattice.between(values, 99, 1)).toBeCloseTo(plane(12, 1), 1);
    expect(lattice.between(values, 1, 99)).toBeCloseTo(plane(1, 8), 1);
  });
});

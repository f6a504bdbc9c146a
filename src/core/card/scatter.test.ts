import { describe, expect, it } from 'vitest';
import { alignedShare, scatteredPlaces } from './scatter';

describe('scattered places', () => {
  it.each([
    [6, 6, 1],
    [5, 3, 2],
    [7, 4, 3],
    [2, 2, 1],
  ])('of %i by %i levels, each %i times, are each place once, and the same each time', (columns, rows, repeats) => {
    const places = scatteredPlaces(columns, rows, repeats);
    expect(places).toHaveLength(columns * rows);
    for (const own of places) expect(own).toHaveLength(repeats);
    expect(places.flat().sort((a, b) => a - b)).toEqual(
      Array.from({ length: columns * rows * repeats }, (_, at) => at),
    );
    expect(scatteredPlaces(columns, rows, repeats)).toEqual(places);
  });
  it('hardly go with either direction of the card, where order goes with both', () => {
    const inOrder = Array.from({ length: 36 }, (_, at) => at);
    expect(alignedShare(inOrder, 6)).toBeCloseTo(1, 9);
    expect(alignedShare([...inOrder].reverse(), 6)).toBeCloseTo(1, 9);
    const order = scatteredPlaces(6, 6, 1).map(([place]) => place!);
    expect(alignedShare(order, 6)).toBeLessThan(0.12);
  });
  it('have every level about the middle of the card when each is burned twice: a slope across it cancels', () => {
    const places = scatteredPlaces(6, 5, 2);
    for (const [first, second] of places) expect(first! + second!).toBe(59);
  });
  it('goes by rows and columns, not by their sum alone: a card turned by a quarter goes with both too', () => {
    // Levels of column c lie in row c: columns go wholly with the rows of places.
    const turned = Array.from({ length: 16 }, (_, level) => (level % 4) * 4 + Math.floor(level / 4));
    expect(alignedShare(turned, 4)).toBeCloseTo(1, 9);
  });
});

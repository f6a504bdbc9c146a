import { describe, expect, it } from 'vitest';
import { addedAtMarkers } from './added-by-markers';
import type { AddedLight } from './added-light';
import { isLightOfLamps } from './light-of-lamps';
import { tuples } from '../../../../tests/support/tuples';

const WOOD = [0.5, 0.4, 0.2] as const;
const SLATE = [0.04, 0.03, 0.02] as const;
const luminanceOf = ([red, green, blue]: readonly [number, number, number]): number =>
  0.2126 * red + 0.7152 * green + 0.0722 * blue;
const CORNERS = tuples([5, 5], [45, 5], [45, 35], [5, 35]);
/** Markers of 0.03 of white, which light of their own changes by a few parts in a hundred, with light added at each. */
const markers = (added: readonly number[], own = 0.03, stock: readonly [number, number, number] = WOOD) =>
  addedAtMarkers(
    added.map((a, k) => ({
      x: CORNERS[k]![0],
      y: CORNERS[k]![1],
      stockSpread: 0,
      ratio: (own * (1 + 0.02 * (k % 2)) + a) / (luminanceOf(stock) + a),
    })),
    stock,
  );
/** What colour says was added: a slope over the card from 0 at its left to so much at its right. */
const slope = (most: number): AddedLight => ({
  at: (x) => (most * (x - 5)) / 40,
  sigmaAt: () => 0.002,
  range: most,
  white: [0.8, 0.8, 0.8],
});

describe('a change of colour over a card', () => {
  it('is that of two lamps where its markers show none of the light that would have been added', () => {
    expect(isLightOfLamps(slope(0.03), markers([0, 0, 0, 0]))).toBe(true);
    // On dark stock markers are the lighter part, and tell it as well.
    expect(isLightOfLamps(slope(0.05), markers([0, 0, 0, 0], 0.25, SLATE))).toBe(true);
  });

  it('is told where colour changes between the markers too, but not where most of it lies there', () => {
    expect(isLightOfLamps({ ...slope(0.03), range: 0.055 }, markers([0, 0, 0, 0]))).toBe(true);
    expect(isLightOfLamps({ ...slope(0.03), range: 0.065 }, markers([0, 0, 0, 0]))).toBe(false);
  });

  it('is added light where its markers show as much of it, or nearly', () => {
    expect(isLightOfLamps(slope(0.03), markers([0, 0.03, 0.03, 0]))).toBe(false);
    expect(isLightOfLamps(slope(0.03), markers([0, 0.02, 0.02, 0]))).toBe(false);
  });

  it('stays added light where it is too little for markers to tell, where they are too few, and where it lies between them', () => {
    // 4 % of 0.03 are 0.0012 of white for each of four markers.
    expect(isLightOfLamps(slope(0.003), markers([0, 0, 0, 0]))).toBe(false);
    expect(isLightOfLamps(slope(0.03), markers([0, 0]))).toBe(false);
    const spot: AddedLight = {
      ...slope(0.2),
      at: (x, y) => 0.2 * Math.exp(-(((x - 25) / 6) ** 2) - ((y - 20) / 6) ** 2),
    };
    expect(isLightOfLamps(spot, markers([0, 0, 0, 0]))).toBe(false);
  });
});

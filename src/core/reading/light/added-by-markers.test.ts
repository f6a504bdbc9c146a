import { beforeEach, describe, expect, it } from 'vitest';
import { addedByMarkers } from './added-by-markers';
import type { Tile } from './bare-tiles';
import type { MarkerDarkness } from './marker-darkness';

const GREY = [0.4, 0.4, 0.4] as const;
const CORNERS = [
  { x: 5, y: 5 },
  { x: 45, y: 5 },
  { x: 45, y: 35 },
  { x: 5, y: 35 },
] as const;
/** What is seen of markers that reflect so much on stock of so much, with light added at each of them. */
const markers = (own: number, stock: number, added: readonly number[], stockSpread = 0): MarkerDarkness[] =>
  added.map((a, index) => ({ ...CORNERS[index]!, ratio: (own + a) / (stock + a), stockSpread }));
/** Bare stock under half of the light that the camera takes, from a lamp with little blue. */
const TILES: readonly Tile[] = [0, 1, 2].map((k) => ({
  x: k,
  y: k,
  red: 0.2,
  green: 0.2,
  blue: 0.1,
  logLuminance: Math.log(0.19),
}));
const find = (seen: readonly MarkerDarkness[], stock: readonly [number, number, number] = GREY) =>
  addedByMarkers(seen, TILES, stock);

describe('light added unevenly, by markers of one burn', () => {
  let slope: NonNullable<ReturnType<typeof find>>;
  beforeEach(() => {
    slope = find(markers(0.02, 0.4, [0, 0.012, 0.012, 0]))!;
  });
  it('is told on grey stock, as a plane from where least was added, and nothing below none', () => {
    // 4 % of 0.02 are 0.0008 of white, over 1 - 0.05: four such differ by 0.0018 from the least to the most. 1 - (1.8 / 12)² = 0.98 is told.
    expect(slope.at(45, 20)).toBeCloseTo(0.0117, 4);
    expect(slope.at(25, 20)).toBeCloseTo(0.0117 / 2, 4);
    expect(slope.at(5, 5)).toBeCloseTo(0, 9);
    expect(slope.at(0, 0)).toBe(0);
    expect(slope.range).toBeCloseTo(0.0117, 4);
    const along = find(markers(0.02, 0.4, [0, 0, 0.012, 0.012]))!;
    expect(along.at(5, 35)).toBeCloseTo(0.0117, 4);
    expect(along.at(45, 5)).toBeCloseTo(0, 9);
  });
  it('may lie under all of the card as high as it differs, and by half a hundredth of white more', () => {
    expect(slope.sigmaAt(25, 20)).toBeCloseTo(Math.hypot(0.0119, 0.005), 3);
  });
  it('is none where markers differ by much more than the colour of bare stock would have told: that is their burn', () => {
    const seen = markers(0.2, 0.4, [0, 0.05, 0.1, 0.02]);
    expect(addedByMarkers(seen, TILES, GREY)!.sigmaAt(25, 20)).toBeGreaterThan(0.05);
    expect(addedByMarkers(seen, TILES, GREY, 0.01)).toBeNull();
    // Little more than that may be both.
    expect(addedByMarkers(seen, TILES, GREY, 0.05)).not.toBeNull();
  });
  it('has the colour of the light, not of the stock', () => {
    for (const [channel, white] of [0.5, 0.5, 0.25].entries()) expect(slope.white[channel]).toBeCloseTo(white, 9);
    expect(find(markers(0.02, 0.4, [0, 0, 0, 0]), [0.8, 0.4, 0.2])!.white).toEqual([0.25, 0.5, 0.5]);
  });
  it('is told by markers lighter than stock as well', () => {
    const slate = find(markers(0.35, 0.027, [0, 0.006, 0.006, 0]), [0.027, 0.027, 0.027])!;
    expect(slate.at(45, 20)).toBeGreaterThan(0.004);
    expect(slate.at(45, 20)).toBeLessThan(0.006);
    expect(slate.at(5, 20)).toBeCloseTo(0, 9);
  });
  it('is doubted where three markers tell it, or one alone differs, as at the tail of a spot; by two it is not told', () => {
    const seen = markers(0.02, 0.4, [0, 0.012, 0.012, 0]);
    for (const some of [seen.slice(0, 3), markers(0.02, 0.4, [0, 0, 0.012, 0])]) {
      const told = find(some)!;
      expect(told.range).toBe(0);
      expect(told.at(45, 35)).toBe(0);
      expect(told.sigmaAt(25, 20)).toBeGreaterThan(0.011);
    }
    // From one corner to the one across, as a plane has it.
    expect(find(markers(0.02, 0.4, [0, 0.006, 0.012, 0.006]))!.at(45, 35)).toBeGreaterThan(0.011);
    expect(find(seen.slice(0, 2))).toBeNull();
  });
  it('is not made of burns that differ as burns do', () => {
    const plain = [0.02, 0.0206, 0.0212, 0.0199].map((own, index) => markers(own, 0.4, [0, 0, 0, 0])[index]!);
    const told = find(plain)!;
    expect([told.range, told.at(45, 20), told.sigmaAt(25, 20)]).toEqual([0, 0, 0]);
    // Where light burns differ by as much of more, they explain as much of white.
    const light = [0.28, 0.3, 0.29, 0.27].map((own, index) => markers(own, 0.4, [0, 0, 0, 0])[index]!);
    expect(find(light)!.range).toBe(0);
  });
  it('is not made of stock that differs beside them: the more it is scattered, the less is told', () => {
    const told = (spread: number) => find(markers(0.02, 0.4, [0, 0.005, 0.005, 0], spread))!.range;
    expect(told(0)).toBeGreaterThan(0.004);
    expect(told(0.05)).toBeLessThan(told(0));
    expect(told(0.2)).toBe(0);
  });
  it('is doubted where it is too much for a plane, and not taken out', () => {
    const spot = find(markers(0.02, 0.4, [0, 0, 0.06, 0]))!;
    expect(spot.range).toBe(0);
    expect(spot.at(45, 35)).toBe(0);
    expect(spot.sigmaAt(25, 20)).toBeGreaterThan(0.055);
  });
  it('is not told by markers that hardly stand out, nor by some that are lighter and some darker', () => {
    expect(find(markers(0.37, 0.4, [0, 0, 0, 0]))).toBeNull();
    const mixed = [
      ...markers(0.1, 0.4, [0, 0]),
      { ...CORNERS[2], ratio: 1.5, stockSpread: 0 },
      { ...CORNERS[3], ratio: 1.5, stockSpread: 0 },
    ];
    expect(find(mixed)).toBeNull();
  });
});

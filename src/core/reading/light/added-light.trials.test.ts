import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { linearToSrgb, srgbToLinear } from '../../color/srgb';
import { addedLight, withoutAdded } from './added-light';
import type { Tile } from './bare-tiles';

const WOOD = [0.5, 0.34, 0.18] as const;
const [WIDTH, HEIGHT] = [30, 24];
const random = seedrandom('added');

/** Tiles in gaps a millimetre wide every five, under light that falls from one side, with light added by place; noise as of an average. */
function tilesOf(
  stock: readonly [number, number, number],
  added: (x: number, y: number) => number,
  cast = [1, 0.95, 0.8],
  falls = 0.01,
): Tile[] {
  const tiles: Tile[] = [];
  for (let y = 0.125; y < HEIGHT; y += 0.25)
    for (let x = 0.125; x < WIDTH; x += 0.25) {
      if (x % 5 > 1 && y % 5 > 1) continue;
      const light = 0.8 - falls * x;
      const [red, green, blue] = [0, 1, 2].map(
        (k) => (stock[k]! * light + added(x, y)) * cast[k]! * (1 + 0.01 * (random() - 0.5)),
      ) as [number, number, number];
      tiles.push({ x, y, red, green, blue, logLuminance: Math.log(0.2126 * red + 0.7152 * green + 0.0722 * blue) });
    }
  return tiles;
}
const blob = (x: number, y: number): number => 0.12 * Math.exp(-(((x - 20) / 7) ** 2) - ((y - 12) / 7) ** 2);
const find = (stock: readonly [number, number, number], added: (x: number, y: number) => number) =>
  addedLight(tilesOf(stock, added), stock, WIDTH, HEIGHT);

describe('light added by a lamp’s reflection', () => {
  it('is found by the colour of bare stock: where it is, how much, and none where there is none', () => {
    const found = find(WOOD, blob)!;
    // White stock sends 0.8 of the light at the left edge: the blob is told as a share of that.
    expect(found.at(20, 12) * 0.75).toBeGreaterThan(0.12 * 0.8);
    expect(found.at(20, 12) * 0.75).toBeLessThan(0.12 * 1.1);
    expect(found.at(2, 2)).toBeLessThan(0.01);
    // As strong on either side of its middle.
    expect(found.at(20, 8) / found.at(20, 16)).toBeCloseTo(1, 1);
    expect(found.at(16, 12) / found.at(24, 12)).toBeCloseTo(1, 1);
    expect(found.range).toBeGreaterThan(0.08);
    // Most of the card is clear of it: little can lie under all of it.
    expect(found.sigmaAt(2, 2)).toBeLessThan(0.012);
    expect(found.sigmaAt(20, 12)).toBeGreaterThan(found.sigmaAt(2, 2));
  });
  it('is not made of light that only falls from one side, nor of noise', () => {
    const none = find(WOOD, () => 0)!;
    expect(none.range).toBe(0);
    expect(none.at(20, 12)).toBe(0);
    expect(none.sigmaAt(20, 12)).toBeLessThan(0.003);
  });
  it('is not made of what is darker and bluer than stock: a shadowed finger, a knot', () => {
    const tiles = tilesOf(WOOD, () => 0).map((tile) =>
      tile.x < 8 && tile.y < 8 ? { ...tile, red: 0.08, green: 0.07, blue: 0.07 } : tile,
    );
    expect(addedLight(tiles, WOOD, WIDTH, HEIGHT)!.range).toBe(0);
  });
  it('is not made of skin or another thing that lies there, of whose colour no light on this stock is', () => {
    const skin = [0.45, 0.28, 0.2] as const;
    const corner = ({ x, y }: Tile): boolean => Math.hypot(x - 26, y - 20) < 6;
    const laid = (tiles: Tile[]): Tile[] =>
      tiles.map((tile) => {
        if (!corner(tile)) return tile;
        const [red, green, blue] = [skin[0] * 0.55, skin[1] * 0.52, skin[2] * 0.44];
        return { ...tile, red, green, blue, logLuminance: Math.log(0.2126 * red + 0.7152 * green + 0.0722 * blue) };
      });
    expect(addedLight(laid(tilesOf(WOOD, () => 0)), WOOD, WIDTH, HEIGHT)!.range).toBe(0);
    // Beside it a reflection is told as ever.
    const found = addedLight(laid(tilesOf(WOOD, (x, y) => blob(x + 12, y))), WOOD, WIDTH, HEIGHT)!;
    expect(found.at(8, 12) * 0.75).toBeGreaterThan(0.12 * 0.8);
    expect(found.at(26, 20)).toBeLessThan(0.02);
    // Where half of the card is like that, something else is: nothing is left out, and it is told.
    const half = tilesOf(WOOD, () => 0).map((tile) => (tile.x < 18 ? { ...tile, green: 0.7 * tile.green } : tile));
    expect(addedLight(half, WOOD, WIDTH, HEIGHT)!.range).toBeGreaterThan(0.01);
  });
  it('is told by whatever channels a stock sends most and least of: green and red of moss', () => {
    const moss = [0.06, 0.1, 0.07] as const;
    const found = find(moss, (x, y) => blob(x, y) / 2)!;
    expect(found.at(20, 12) * 0.75).toBeGreaterThan(0.06 * 0.8);
    expect(found.at(20, 12) * 0.75).toBeLessThan(0.06 * 1.15);
    expect(found.at(2, 2)).toBeLessThan(0.01);
  });
  it('is less sure where it is weak: it comes from walls, and half of what it differs by may lie under all of the card', () => {
    const sigma = (adds: number) => {
      const { range, sigmaAt } = find(WOOD, (x, y) => (x < 6 && y < 6 ? adds : 0))!;
      return { range, sigma: sigmaAt(28, 20) };
    };
    const [weak, strong] = [sigma(0.012), sigma(0.03)];
    expect(weak.range).toBeGreaterThan(0.008);
    expect(weak.sigma).toBeGreaterThan(0.5 * weak.range);
    expect(weak.sigma).toBeLessThan(weak.range);
    expect(strong.range).toBeGreaterThan(0.02);
    expect(strong.sigma).toBeLessThan(0.2 * strong.range);
  });
  it('is not made of the steps in which a photo stores its colours', () => {
    const stored = (value: number): number => srgbToLinear(Math.round(linearToSrgb(value) * 255) / 255);
    const dark = [0.05, 0.03, 0.015] as const;
    const tiles = Array.from({ length: 4000 }, (_, k) => ({
      x: (k % 80) * 0.375 + 0.1,
      y: Math.floor(k / 80) * 0.48 + 0.1,
    })).map(({ x, y }) => {
      const light = 0.5 - 0.0012 * x - 0.0004 * y;
      const [red, green, blue] = dark.map((value) => stored(value * light)) as [number, number, number];
      return { x, y, red, green, blue, logLuminance: Math.log(0.2126 * red + 0.7152 * green + 0.0722 * blue) };
    });
    expect(addedLight(tiles, dark, WIDTH, HEIGHT)!.range).toBe(0);
  });
  it('is doubted, and not taken out, where tones that were undone could look like it', () => {
    const weak = (x: number, y: number): number => 0.3 * blob(x, y);
    const tiles = tilesOf(WOOD, weak);
    const [sure, unsure] = [0, 0.01].map((sigma) => addedLight(tiles, WOOD, WIDTH, HEIGHT, () => sigma)!);
    expect(sure!.range).toBeGreaterThan(0.02);
    expect(unsure!.range).toBe(0);
    expect(unsure!.at(20, 12)).toBe(0);
    // 0.036 at its middle, told as a share of 0.8 less what falls off.
    expect(unsure!.sigmaAt(20, 12)).toBeGreaterThan(0.025);
    expect(unsure!.sigmaAt(20, 12)).toBeLessThan(0.06);
    expect(unsure!.sigmaAt(-9, 99)).toBeLessThan(0.008);
    // Beside the card it is as at its border.
    expect(unsure!.sigmaAt(99, 12)).toBe(unsure!.sigmaAt(29.9, 12));
    expect(unsure!.sigmaAt(20, -5)).toBe(unsure!.sigmaAt(20, 0.1));
    const none = addedLight(
      tilesOf(WOOD, () => 0),
      WOOD,
      WIDTH,
      HEIGHT,
      () => 0.01,
    )!;
    expect(none.sigmaAt(20, 12)).toBeLessThan(0.004);
  });
  it('is told only where it is far more than the camera’s tones could make of it', () => {
    const unsure = (sigma: number) => addedLight(tilesOf(WOOD, blob), WOOD, WIDTH, HEIGHT, () => sigma)!;
    // By hand: 0.5 x 0.18 / 0.32 = 0.28 of white for each unit; ten sigmas of 0.02 are 0.056, of 0.06 0.17 of white, and the blob has 0.12 to 0.16.
    expect(unsure(0.02).range).toBeGreaterThan(0.08);
    expect(unsure(0.06).range).toBe(0);
    // However sure it is of its tones, less than a twentieth of white is never told.
    const faint = (sigma: number) =>
      addedLight(
        tilesOf(WOOD, (x, y) => blob(x, y) / 4),
        WOOD,
        WIDTH,
        HEIGHT,
        () => sigma,
      )!;
    expect(faint(0).range).toBeGreaterThan(0.02);
    expect(faint(0.001).range).toBe(0);
  });
  it('cannot be told on grey stock', () => expect(find([0.2, 0.2, 0.2], blob)).toBeNull());
  it('is less sure where it lies over most of the card: as much may lie under all of it', () => {
    const broad = find(WOOD, (x) => 0.05 + 0.002 * x)!;
    const narrow = find(WOOD, (x, y) => (x < 5 && y < 5 ? 0.06 : 0))!;
    expect(broad.sigmaAt(28, 2)).toBeGreaterThan(narrow.sigmaAt(28, 2));
  });
  describe('on a card four times as large', () => {
    const [wide, high] = [60, 44];
    const narrow = (x: number, y: number): number => 0.12 * Math.exp(-(((x - 30) / 9) ** 2) - ((y - 22) / 9) ** 2);
    /** With no bare stock so far from the reflection's middle; 0.15 of white was added there. */
    const found = (half: number) => {
      const tiles = [0, 30].flatMap((right) =>
        [0, 24].flatMap((low) =>
          tilesOf(WOOD, (x, y) => narrow(x + right, y + low), [1, 0.95, 0.8], 0)
            .map((tile) => ({ ...tile, x: tile.x + right, y: tile.y + low }))
            .filter(({ x, y }) => y < high && Math.max(Math.abs(x - 30), Math.abs(y - 22)) >= half),
        ),
      );
      return addedLight(tiles, WOOD, wide, high)!;
    };
    it('is told within a cell that bare stock goes round, and the less surely the larger that is', () => {
      // Bare stock around the two has 0.13 and 0.08.
      const [small, large] = [found(3), found(7)];
      expect(Math.abs(small.at(30, 22) - 0.15)).toBeLessThan(0.012);
      expect(large.sigmaAt(30, 22)).toBeGreaterThan(1.5 * small.sigmaAt(30, 22));
      for (const { at, sigmaAt } of [small, large])
        expect(Math.abs(at(30, 22) - 0.15)).toBeLessThan(2 * sigmaAt(30, 22));
    });
    it('is the less sure the more of it there is, by how well the lamp’s and the stock’s own colours are known', () => {
      // By hand: 0.14 of white added to stock of 0.5 and 0.18 is off by ((0.64 x 0.32) - 0.09) / 0.32 = 0.36 for each unit of the logarithm: 0.005 for 0.014.
      const { sigmaAt } = found(0);
      expect(sigmaAt(30.5, 20.5)).toBeGreaterThan(0.0048);
      expect(sigmaAt(5.5, 5.5)).toBeLessThan(0.003);
    });
  });
  it('has nothing of a white thing that lies on a corner, but at its edge', () => {
    const scrap = tilesOf(WOOD, blob).map((tile) =>
      tile.x < 5 && tile.y < 5 ? { ...tile, red: 1.6, green: 1.5, blue: 1.3 } : tile,
    );
    const found = addedLight(scrap, WOOD, WIDTH, HEIGHT)!;
    expect(found.at(7.5, 7.5)).toBeLessThan(0.03);
    expect(found.at(20, 12) * 0.75).toBeGreaterThan(0.12 * 0.8);
  });
  it('takes for clear what is clear over some millimetres, not the places where a photo’s colours are off most', () => {
    // Weakly coloured stock; every square of 2 mm is off in blue by itself, as stored photos have it.
    const slate = [0.07, 0.08, 0.1] as const;
    const off = seedrandom('squares');
    const squares = Array.from({ length: 15 * 12 }, () => 1 + 0.12 * (off() - 0.5));
    const tiles = tilesOf(slate, blob).map((tile) => ({
      ...tile,
      blue: tile.blue * squares[Math.floor(tile.y / 2) * 15 + Math.floor(tile.x / 2)]!,
    }));
    const { white } = addedLight(tiles, slate, WIDTH, HEIGHT)!;
    expect(Math.abs(white[2] / white[0] / 0.8 - 1)).toBeLessThan(0.01);
  });
  it('is told where nothing else differs at all, as in a drawn picture', () => {
    const [red, green, blue] = WOOD;
    const drawn = tilesOf(WOOD, () => 0).map((tile) => {
      const added = tile.x < 6 && tile.y < 6 ? 0.1 : 0;
      return { ...tile, red: red + added, green: green + added, blue: blue + added };
    });
    const found = addedLight(drawn, WOOD, WIDTH, HEIGHT)!;
    expect(found.at(2, 0.5)).toBeGreaterThan(0.08);
    expect(found.at(25, 20)).toBeLessThan(0.002);
    expect(found.sigmaAt(12.5, 12.5)).toBeLessThan(0.01);
  });
  it('is taken from each pixel by what it is in its middle, and the picture that it came from stays as it is', () => {
    const data = new Float32Array(3 * 2 * 3).fill(1);
    const image = { width: 3, height: 2, pxPerMm: 2, data, clipped: new Uint8Array(6) };
    const at = (x: number, y: number): number => x / 10 + y / 100;
    const clear = withoutAdded(image, { ...find(WOOD, blob)!, at, white: [1, 0.5, 0] });
    const left = (column: number, row: number): number[] =>
      [0, 1, 2].map((channel) => clear.data[(row * 3 + column) * 3 + channel]!);
    expect(left(0, 0)).toEqual([1 - 0.0275, 1 - 0.01375, 1].map((light) => expect.closeTo(light, 6)));
    expect(left(2, 1)).toEqual([1 - 0.1325, 1 - 0.06625, 1].map((light) => expect.closeTo(light, 6)));
    expect(data.every((light) => light === 1)).toBe(true);
  });
  it('is taken from the picture in the lamp’s colour, and nothing falls below black', () => {
    const added = find(WOOD, blob)!;
    const size = { width: WIDTH * 4, height: HEIGHT * 4, pxPerMm: 4 };
    const data = new Float32Array(size.width * size.height * 3).fill(0.1);
    const clear = withoutAdded({ ...size, data, clipped: new Uint8Array(size.width * size.height) }, added);
    const at = (x: number, y: number, channel: number): number =>
      clear.data[(y * 4 * size.width + x * 4) * 3 + channel]!;
    for (const channel of [0, 1, 2])
      expect(0.1 - at(20, 12, channel)).toBeCloseTo(
        Math.min(0.1 - 1e-5, added.at(20.125, 12.125) * added.white[channel]!),
        4,
      );
    expect(at(2, 2, 0)).toBeGreaterThan(0.09);
    expect(clear.data.every((value) => value > 0)).toBe(true);
  });
});

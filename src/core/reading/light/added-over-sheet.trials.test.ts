import { inverse, Matrix } from 'ml-matrix';
import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import type { Layout } from '../../card/layout';
import { luminance } from '../../color/srgb';
import { addedByGreys, addedOverSheet, weighingOf, type SheetAround } from './added-over-sheet';
import type { Tile } from './bare-tiles';
import { broadOver } from './broad-reflection';
import type { LightAt } from './evened';
import type { Lobe } from './lobe';
import { points } from '../../../../tests/support/points';

const WOOD = [0.5, 0.32, 0.17] as const;
const SLATE = [0.09, 0.095, 0.1] as const;
const MIDDLE = { x: 25, y: 20 };
/** Light on white, warm, falling to one side; office paper sends back 0.853 of it. */
const onWhite: LightAt = (x, y) => [0.8 - 0.003 * x, 0.7 - 0.002625 * x + 0.0004 * y, 0.5 - 0.001875 * x];
const paperLight: LightAt = (x, y) => {
  const [red, green, blue] = onWhite(x, y);
  return [0.853 * red, 0.853 * green, 0.853 * blue];
};
/** What a wall adds, as a share of what white sends. */
const wall = (x: number, y: number): number => 0.012 * Math.exp(-(((x - 35) / 40) ** 2) - ((y - 10) / 35) ** 2);
const none = (): number => 0;

function tilesOf(stock: readonly [number, number, number], added: (x: number, y: number) => number): Tile[] {
  const random = seedrandom('tiles');
  const tiles: Tile[] = [];
  for (let x = 0.5; x < 50; x += 0.5)
    for (let y = 0.5; y < 40; y += 0.5) {
      const grain = 1 + 0.01 * (random() - 0.5);
      const white = onWhite(x, y);
      const [red, green, blue] = stock.map((share, channel) => white[channel]! * (share * grain + added(x, y)));
      tiles.push({
        x,
        y,
        red: red!,
        green: green!,
        blue: blue!,
        logLuminance: Math.log(luminance(red!, green!, blue!)),
      });
    }
  return tiles;
}

/** Greys of five steps around the card: what was added to each, as a share of what paper sends. */
function sheetWith(added: (x: number, y: number) => number, greys = [0.04, 0.09, 0.16, 0.6, 1]): SheetAround {
  const places = [-42, -28, -14, 0, 14, 28, 42].flatMap((away) =>
    [-1, 1].flatMap((side) => points([MIDDLE.x + away, MIDDLE.y + 44 * side], [MIDDLE.x + 54 * side, MIDDLE.y + away])),
  );
  return {
    paperLight,
    greys: places.map((place, k) => {
      const grey = greys[k % greys.length]!;
      // Pale greys are told by their light alone, and lie far off.
      return {
        ...place,
        added: grey > 0.5 ? 0.3 : added(place.x, place.y) / 0.853,
        grey,
        sigmaShare: 0.008,
        bentShare: 0,
      };
    }),
  };
}
const meanAtGreys = ({ greys }: SheetAround, added: (x: number, y: number) => number): number => {
  const dark = greys.filter(({ grey }) => grey < 0.5);
  return dark.reduce((sum, { x, y }) => sum + added(x, y), 0) / dark.length;
};

/** The lobe that is told; throws where none is. */
function lobeOver(...how: Parameters<typeof addedOverSheet>): Lobe {
  const told = addedOverSheet(...how);
  if (told === null || told === 'lamp') throw new Error(String(told));
  return told;
}

describe('three channels of bare stock', () => {
  it.each([WOOD, SLATE])('tell what was added to %j by their mean of least variance', (...stock) => {
    const row = Matrix.rowVector([...stock]);
    // Each is off by 2 % of itself, and all by 2 % together. Source: A. C. Aitken, Proc. R. Soc. Edinburgh 55 (1935) 42.
    const covariance = Matrix.diag(stock.map((share) => (0.02 * share) ** 2)).add(
      row
        .transpose()
        .mmul(row)
        .mul(0.02 ** 2),
    );
    const precision = inverse(covariance).mmul(Matrix.ones(3, 1)).to1DArray();
    const total = precision.reduce((sum, one) => sum + one, 0);
    const { weights, variance } = weighingOf(stock);
    expect(variance * total).toBeCloseTo(1, 9);
    weights.forEach((weight, channel) => expect(weight).toBeCloseTo(precision[channel]! / total, 9));
  });
});

describe('what was added over a sheet', () => {
  it.each([
    ['wood', WOOD, 0.004],
    ['slate', SLATE, 0.0012],
  ] as const)('is told on %s, as a share of white', (_, stock, most) => {
    const sheet = sheetWith(wall);
    const lobe = lobeOver(tilesOf(stock, wall), stock, sheet, MIDDLE);
    expect(lobe.chance).toBeGreaterThan(0.95);
    for (const { x, y } of points([5, 35], [25, 20], [45, 5])) {
      const { value, sigma } = lobe.at({ x, y });
      const truth = wall(x, y) - meanAtGreys(sheet, wall);
      expect(Math.abs(value - truth), `${x} ${y}`).toBeLessThan(most);
      expect(Math.abs(value - truth), `${x} ${y}`).toBeLessThan(2 * sigma);
    }
  });

  it('is told on pale stock whose record is far off, as surely as on stock that is as it says', () => {
    const pale = [0.8, 0.75, 0.6] as const;
    const lobe = lobeOver(tilesOf(pale, none), [0.72, 0.675, 0.54], sheetWith(none), MIDDLE);
    expect(lobe.chance).toBeLessThan(0.5);
    expect(Math.abs(lobe.at(MIDDLE).value)).toBeLessThan(5e-4);
  });

  it('is the same whatever the stock’s record is off by', () => {
    const sheet = sheetWith(wall);
    const record = SLATE.map((share) => share * 1.1) as unknown as typeof SLATE;
    const [right, wrong] = [SLATE, record].map((stock) => lobeOver(tilesOf(SLATE, wall), stock, sheet, MIDDLE));
    expect(wrong!.at(MIDDLE).value).toBeCloseTo(right!.at(MIDDLE).value, 3);
    expect(Math.abs(wrong!.at(MIDDLE).value - right!.at(MIDDLE).value)).toBeLessThan(0.0005);
  });

  it('is nothing where nothing was added, on stock and on greys', () => {
    for (const stock of [WOOD, SLATE]) {
      const lobe = lobeOver(tilesOf(stock, none), stock, sheetWith(none), MIDDLE);
      expect(lobe.chance).toBeLessThan(0.5);
      expect(Math.abs(lobe.at(MIDDLE).value)).toBeLessThan(3e-4);
    }
  });

  it('is not told where a lamp’s reflection lies on the stock: that is no broad lobe', () => {
    const lamp =
      (adds: number) =>
      (x: number, y: number): number =>
        wall(x, y) + adds * Math.exp(-(((x - 15) / 8) ** 2) - ((y - 28) / 8) ** 2);
    for (const stock of [WOOD, SLATE]) {
      expect(addedOverSheet(tilesOf(stock, lamp(0.06)), stock, sheetWith(wall), MIDDLE)).toBe('lamp');
      expect(addedOverSheet(tilesOf(stock, lamp(0.01)), stock, sheetWith(wall), MIDDLE)).toHaveProperty('chance');
    }
  });

  it('is told by the greys alone, and not where a bent curve may be what they tell', () => {
    const { greys } = sheetWith(wall);
    const alone = addedByGreys(greys, MIDDLE)!;
    const truth = wall(MIDDLE.x, MIDDLE.y) - meanAtGreys({ paperLight, greys }, wall);
    expect(Math.abs(alone.at(MIDDLE).value - truth)).toBeLessThan(2 * alone.at(MIDDLE).sigma);
    expect(addedByGreys(sheetWith(none).greys, MIDDLE)!.chance).toBeLessThan(0.5);
    const bent = (bentShare: number) =>
      sheetWith(none).greys.map((grey) => ({ ...grey, added: 8e-5 * (grey.x - 25), bentShare }));
    expect(addedByGreys(bent(0.06), MIDDLE)!.chance).toBeLessThan(0.7);
    expect(addedByGreys(bent(0), MIDDLE)!.chance).toBeGreaterThan(0.95);
    expect(addedByGreys(greys.slice(0, 5), MIDDLE)).toBeNull();
  });

  it('is not told by too few dark greys', () => {
    const { greys, ...sheet } = sheetWith(wall);
    const dark = greys.filter(({ grey }) => grey < 0.5);
    const told = (count: number) =>
      addedOverSheet(tilesOf(SLATE, wall), SLATE, { ...sheet, greys: dark.slice(0, count) }, MIDDLE);
    expect(told(8)).not.toBeNull();
    expect(told(7)).toBeNull();
    expect(addedOverSheet(tilesOf(SLATE, wall), SLATE, sheetWith(wall, [0.6, 1]), MIDDLE)).toBeNull();
  });

  it('is taken from each place of a card as the light on it is there, or as on its middle where that was evened', () => {
    const layout = { widthMm: 50, heightMm: 40 } as Layout;
    const [falling, evened] = [false, true].map((isEvened) =>
      broadOver(tilesOf(SLATE, wall), layout, SLATE, sheetWith(wall), isEvened),
    );
    if (!falling || falling === 'lamp' || !evened || evened === 'lamp') throw new Error('not told');
    for (const light of [falling, evened])
      light.white.forEach((value, channel) => expect(value).toBeCloseTo(onWhite(25, 20)[channel]!, 9));
    const lobe = lobeOver(tilesOf(SLATE, wall), SLATE, sheetWith(wall), MIDDLE);
    for (const { x, y } of points([4, 36], [44, 4])) {
      const falls = onWhite(x, y)[1] / onWhite(25, 20)[1];
      expect(Math.abs(falls - 1)).toBeGreaterThan(0.05);
      const { value, sigma } = lobe.at({ x, y });
      expect([evened.at(x, y), evened.sigmaAt(x, y)]).toEqual([expect.closeTo(value, 9), expect.closeTo(sigma, 9)]);
      expect(falling.at(x, y)).toBeCloseTo(falls * value, 9);
      expect(falling.sigmaAt(x, y)).toBeCloseTo(falls * sigma, 9);
    }
    expect(evened.range).toBeGreaterThan(0.003);
    expect(evened.range).toBeLessThan(0.012);
  });
});

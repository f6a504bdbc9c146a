import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { lobeOf, type AddedHere } from './lobe';

const MIDDLE = { x: 25, y: 20 };
const STOCK = { all: 0.01, blotch: 0.0005, greySlope: 1e-5 };
interface Wall {
  readonly x: number;
  readonly y: number;
  readonly wide: number;
  readonly high: number;
  readonly adds: number;
}
const lit = ({ x, y, wide, high, adds }: Wall, at: { readonly x: number; readonly y: number }): number =>
  adds * Math.exp(-(((at.x - x) / wide) ** 2) - ((at.y - y) / high) ** 2);

interface Sight {
  readonly everywhere?: number;
  readonly paler?: number;
  readonly noise?: number;
  /** What stock alone has. */
  readonly onStock?: (x: number, y: number) => number;
}

/** Places on a frame of greys 54 and 44 mm from the middle, and on squares of bare stock 4 mm apart. */
function seen(wall: Wall | null, { everywhere = 0, paler = 0, noise = 1, onStock = () => 0 }: Sight = {}): AddedHere[] {
  const random = seedrandom('lobe');
  const places: AddedHere[] = [];
  const tell = (x: number, y: number, sigma: number, stock: boolean): void => {
    const deviate = noise * sigma * (random() + random() + random() + random() - 2) * Math.sqrt(3);
    const own = stock ? paler + onStock(x, y) : 0;
    places.push({ x, y, added: (wall ? lit(wall, { x, y }) : 0) - everywhere + own + deviate, sigma, onStock: stock });
  };
  for (let step = -3; step <= 3; step++)
    for (const side of [-1, 1]) {
      tell(MIDDLE.x + 14 * step, MIDDLE.y + 44 * side, 4e-4, false);
      tell(MIDDLE.x + 54 * side, MIDDLE.y + 12 * step, 4e-4, false);
    }
  for (let x = 2; x < 50; x += 4) for (let y = 2; y < 40; y += 4) tell(x, y, 8e-4, true);
  return places;
}
const greysMean = (wall: Wall, places: readonly AddedHere[]): number => {
  const greys = places.filter(({ onStock }) => !onStock);
  return greys.reduce((sum, place) => sum + lit(wall, place), 0) / greys.length;
};

const WALLS: readonly Wall[] = [
  { x: 20, y: 25, wide: 45, high: 35, adds: 0.012 },
  { x: 40, y: 5, wide: 30, high: 55, adds: 0.008 },
  { x: -5, y: 40, wide: 50, high: 40, adds: 0.015 },
];

describe('a broad reflection over a card and the sheet around it', () => {
  it.each(WALLS)('is told where it lies and how much it adds: %j', (wall) => {
    const places = seen(wall, { paler: -0.004, everywhere: 0.002 });
    const lobe = lobeOf(places, MIDDLE, STOCK);
    expect(lobe.chance).toBeGreaterThan(0.99);
    const beside = greysMean(wall, places);
    for (const x of [5, 25, 45])
      for (const y of [5, 20, 35]) {
        const { value, sigma } = lobe.at({ x, y });
        const truth = lit(wall, { x, y }) - beside;
        expect(Math.abs(value - truth), `${x} ${y}`).toBeLessThan(0.0012);
        expect(Math.abs(value - truth), `${x} ${y}`).toBeLessThan(2.5 * sigma);
        // A wall's reflection is not quite a normal law: a third of it is unsure, and no more than half.
        expect(sigma).toBeGreaterThan(0.25 * lit(wall, { x, y }));
        expect(sigma).toBeLessThan(0.5 * lit(wall, { x, y }));
      }
  });

  it('is none where nothing was added: nothing is taken away, and it is known', () => {
    const lobe = lobeOf(seen(null, { paler: 0.006 }), MIDDLE, STOCK);
    expect(lobe.chance).toBeLessThan(0.3);
    for (const place of [MIDDLE, { x: 2, y: 38 }]) {
      expect(Math.abs(lobe.at(place).value)).toBeLessThan(2e-4);
      expect(lobe.at(place).sigma).toBeLessThan(5e-4);
    }
  });

  it('is not what stock is paler by in its middle, or from side to side', () => {
    const slope = lobeOf(seen(null, { onStock: (x) => 4e-5 * (x - 25) }), MIDDLE, { ...STOCK, blotch: 0.003 });
    expect(slope.chance).toBeLessThan(0.5);
    const blotch = { x: 25, y: 20, wide: 12, high: 12, adds: 0.004 };
    const knot = lobeOf(seen(null, { onStock: (x, y) => lit(blotch, { x, y }) }), MIDDLE, { ...STOCK, blotch: 0.003 });
    expect(knot.chance).toBeLessThan(0.5);
    // The same on stock without blotches is added light.
    const even = lobeOf(seen(null, { onStock: (x, y) => lit(blotch, { x, y }) }), MIDDLE, { ...STOCK, blotch: 1e-5 });
    expect(even.chance).toBeGreaterThan(0.99);
  });

  it('is not what greys have more from side to side by a bent curve, but what stock has with them', () => {
    const bent = { ...STOCK, greySlope: 0.003 };
    const tilted = (places: readonly AddedHere[]): AddedHere[] =>
      places.map((place) =>
        place.onStock ? place : { ...place, added: place.added + 5e-5 * (place.x - 25) - 3e-5 * (place.y - 20) },
      );
    expect(lobeOf(tilted(seen(null)), MIDDLE, STOCK).chance).toBeGreaterThan(0.99);
    expect(lobeOf(tilted(seen(null)), MIDDLE, bent).chance).toBeLessThan(0.5);
    const wall = WALLS[0]!;
    const places = tilted(seen(wall));
    const { value, sigma } = lobeOf(places, MIDDLE, bent).at(MIDDLE);
    expect(Math.abs(value - lit(wall, MIDDLE) + greysMean(wall, seen(wall)))).toBeLessThan(2 * sigma);
    expect(value).toBeGreaterThan(0.004);
  });

  it('never takes light away: a shadow is none', () => {
    const shadow = lobeOf(seen({ ...WALLS[0]!, adds: -0.01 }), MIDDLE, STOCK);
    for (const x of [5, 25, 45]) expect(shadow.at({ x, y: 20 }).value).toBeLessThan(0.002);
  });

  it('is told though some places are far off', () => {
    const wall = WALLS[0]!;
    const places = seen(wall).map((place, k) => (k % 40 === 3 ? { ...place, added: place.added + 0.02 } : place));
    const lobe = lobeOf(places, MIDDLE, STOCK);
    expect(Math.abs(lobe.at(MIDDLE).value - lit(wall, MIDDLE) + greysMean(wall, places))).toBeLessThan(0.003);
  });

  it('is none where places are only noisier than they say', () => {
    for (const noise of [2, 4])
      expect(lobeOf(seen(null, { noise }), MIDDLE, STOCK).chance, `${noise}`).toBeLessThan(0.5);
  });

  it('is told by greys alone, less surely', () => {
    const wall = WALLS[0]!;
    const places = seen(wall, { noise: 0.3 });
    const alone = lobeOf(
      places.filter(({ onStock }) => !onStock),
      MIDDLE,
      STOCK,
    );
    expect(alone.chance).toBeGreaterThan(0.9);
    expect(Math.abs(alone.at(MIDDLE).value - lit(wall, MIDDLE) + greysMean(wall, places))).toBeLessThan(
      3 * alone.at(MIDDLE).sigma,
    );
  });
});

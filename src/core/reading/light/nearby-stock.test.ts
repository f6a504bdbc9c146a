import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { kinshipOf, nearbyStock } from './nearby-stock';
import { points } from '../../../../tests/support/points';

const KINSHIP = { shared: 4e-4, reachMm: 1.5, own: 1e-4 };
const spot = { x: 10, y: 10, width: 0, height: 0 };

describe('what bare stock tells of stock beside it', () => {
  it('is, of one tile, its residual times their covariance over its own variance', () => {
    const d = 0.9;
    const residual = 0.02;
    const { shift, sigma, tiles } = nearbyStock([{ x: 10 + d, y: 10 }], [residual], KINSHIP, spot);
    // By hand: 4e-4 exp(-0.6) = 2.1953e-4; over 5e-4 that is 0.43905.
    expect(shift).toBeCloseTo(0.43905 * residual, 6);
    expect(tiles).toBe(1);
    // What is left of 4e-4: 4e-4 - 0.43905 * 2.1953e-4 = 3.0362e-4, and the residual's square is 0.8 of what is usual.
    expect(sigma).toBeCloseTo(Math.sqrt(0.8 * 3.0362e-4), 5);
  });
  it('is nearer to each of two tiles the nearer they lie, and the mean of them in their middle', () => {
    const between = (x: number): number =>
      nearbyStock(points([9, 10], [11, 10]), [0.02, -0.01], KINSHIP, { ...spot, x }).shift;
    const [left, right] = [0.02, -0.01];
    // By hand, in the middle: both weigh alike, w = c exp(-1/1.5) / (c + own + c exp(-2/1.5)).
    const weight = (4e-4 * Math.exp(-1 / 1.5)) / (5e-4 + 4e-4 * Math.exp(-2 / 1.5));
    expect(between(10)).toBeCloseTo(weight * (left + right), 9);
    expect(between(9)).toBeGreaterThan(between(10));
    expect(between(11)).toBeLessThan(between(10));
  });
  it('is nothing, and as unsure as stock is anywhere, where no tile is within two millimetres', () => {
    expect(nearbyStock([{ x: 12.1, y: 10 }], [0.05], KINSHIP, spot)).toEqual({ shift: 0, sigma: 0.02, tiles: 0 });
    expect(nearbyStock([{ x: 11.9, y: 10 }], [0.05], KINSHIP, spot).tiles).toBe(1);
  });
  it('is nothing where tiles have nothing in common, and surer the more of them there are', () => {
    const alone = { shared: 0, reachMm: 1, own: 1e-4 };
    const tiles = Array.from({ length: 8 }, (_, k) => ({ x: 9.5 + 0.125 * k, y: 10.2 }));
    const residuals = tiles.map((_, k) => (k % 2 === 0 ? 0.01 : -0.01));
    const { shift, sigma } = nearbyStock(tiles, residuals, alone, spot);
    expect(shift).toBe(0);
    expect(sigma).toBeCloseTo(0.01 / Math.sqrt(8), 9);
  });
  it('is, for the mean over an area, by the mean of nine places in it', () => {
    const area = { x: 10, y: 10, width: 3, height: 1.5 };
    const tile = { x: 9.4, y: 11.2 };
    let [with_, within] = [0, 0];
    const places = [10.5, 11.5, 12.5].flatMap((x) => [10.25, 10.75, 11.25].map((y) => ({ x, y })));
    for (const a of places) {
      with_ += (4e-4 * Math.exp(-Math.hypot(a.x - tile.x, a.y - tile.y) / 1.5)) / 9;
      for (const b of places) within += (4e-4 * Math.exp(-Math.hypot(a.x - b.x, a.y - b.y) / 1.5)) / 81;
    }
    const { shift, sigma } = nearbyStock([tile], [0.02], KINSHIP, area);
    expect(shift).toBeCloseTo((with_ / 5e-4) * 0.02, 9);
    expect(sigma).toBeCloseTo(Math.sqrt(0.8 * (within - with_ ** 2 / 5e-4)), 9);
  });
  it('asks the nine nearest in each eighth of the circle, in whatever order they come', () => {
    // Twenty to the right, 0.1 to 1.05 mm away: the nearer half says one thing, the rest another.
    const right = Array.from({ length: 20 }, (_, k) => ({ x: 10.1 + 0.05 * ((k * 7) % 20), y: 10.01 }));
    const residuals = right.map(({ x }) => (x < 10.525 ? 0.01 : -0.05));
    const told = nearbyStock(right, residuals, KINSHIP, spot);
    const nearest = right.filter(({ x }) => x < 10.525);
    expect(nearest).toHaveLength(9);
    expect(told.tiles).toBe(9);
    const alone = nearbyStock(nearest, Array<number>(9).fill(0.01), KINSHIP, spot);
    expect(told.shift).toBeCloseTo(alone.shift, 9);
    const four = points([10.3, 10.01], [9.7, 10.01], [10.01, 10.3], [10.01, 9.7]);
    expect(nearbyStock([...right, ...four], [...residuals, 0, 0, 0, 0], KINSHIP, spot).tiles).toBe(12);
  });
  it('takes nothing from what is no stock, but is less sure beside it', () => {
    const clear = { x: 9, y: 10 };
    const finger = { x: 11, y: 10 };
    const alone = nearbyStock([clear], [0.01], KINSHIP, spot);
    for (const mark of [0.7, -0.7]) {
      const beside = nearbyStock([clear, finger], [0.01, mark], KINSHIP, spot);
      expect(beside.shift).toBeCloseTo(alone.shift, 12);
      expect(beside.tiles).toBe(1);
      // One of two is no stock: half of 0.3 more.
      expect(beside.sigma).toBeCloseTo(Math.hypot(alone.sigma, 0.15), 9);
      expect(nearbyStock([finger], [mark], KINSHIP, spot)).toEqual({
        shift: 0,
        sigma: Math.hypot(0.02, 0.3),
        tiles: 0,
      });
    }
  });
  it('is less sure where residuals are wilder than over the card', () => {
    const tiles = points([9, 10], [11, 10]);
    const calm = nearbyStock(tiles, [0.01, -0.01], KINSHIP, spot).sigma;
    const wild = nearbyStock(tiles, [0.1, -0.1], KINSHIP, spot).sigma;
    // 0.01 against 5e-4 is 20 times; the calm one is held to 0.3.
    expect((wild / calm) ** 2).toBeCloseTo(20 / 0.3, 6);
  });
});

describe('how tiles go together', () => {
  const places = Array.from({ length: 480 }, (_, k) => ({ x: 0.25 * (k % 24), y: 0.25 * Math.floor(k / 24) }));
  const random = seedrandom('kin');
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  it('is found from fields of known kinship, drawn by their own covariance', () => {
    const covariance = new Matrix(
      places.map((a) =>
        places.map((b) => 4e-4 * Math.exp(-Math.hypot(a.x - b.x, a.y - b.y) / 0.7) + (a === b ? 1e-4 : 0)),
      ),
    );
    const root = new CholeskyDecomposition(covariance).lowerTriangularMatrix;
    const found = Array.from({ length: 24 }, () =>
      kinshipOf(places, root.mmul(Matrix.columnVector(places.map(normal))).to1DArray(), Math.sqrt(5e-4)),
    );
    const mean = (of: (one: (typeof found)[number]) => number): number =>
      found.reduce((sum, one) => sum + of(one), 0) / found.length;
    // A reach from a row of few is right on the whole, not each time.
    expect(mean(({ reachMm }) => reachMm)).toBeGreaterThan(0.45);
    expect(mean(({ reachMm }) => reachMm)).toBeLessThan(2);
    expect(mean(({ shared }) => shared) / 4e-4).toBeGreaterThan(0.7);
    expect(mean(({ shared }) => shared) / 4e-4).toBeLessThan(1.3);
    expect(mean(({ own }) => own) / 1e-4).toBeGreaterThan(0.4);
    expect(mean(({ own }) => own) / 1e-4).toBeLessThan(2);
  });
  it('is found where tiles lie in pairs far from each other: at most distances there is nothing to compare', () => {
    const pairs = Array.from({ length: 10 }, (_, k) => points([20 * k, 1], [20 * k + 0.3, 1])).flat();
    const { shared, own } = kinshipOf(
      pairs,
      pairs.map((_, k) => (Math.floor(k / 2) % 2 === 0 ? 0.01 : -0.01)),
      0.01,
    );
    // Both of a pair are alike: all of the variance is shared, but for the least that is each tile's own.
    expect(shared).toBeCloseTo(1e-4, 9);
    expect(own).toBeCloseTo(0.05 * 1e-4, 9);
  });
  it('is hardly any where each tile is for itself, and one mad tile does not make it', () => {
    const noise = places.map(() => 0.01 * normal());
    noise[300] = 3;
    noise[120] = -3;
    const { shared, own } = kinshipOf(places, noise, 0.01);
    expect(shared).toBeLessThan(0.2 * own);
    expect(own).toBeLessThan(1.5e-4);
  });
});

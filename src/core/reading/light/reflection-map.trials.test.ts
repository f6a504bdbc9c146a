import seedrandom from 'seedrandom';
import { beforeEach, describe, expect, it } from 'vitest';
import { reflectionMap, type ToldLight } from './reflection-map';

const [WIDTH, HEIGHT] = [42, 34];
const blob = (x: number, y: number): number => 0.2 * Math.exp(-(((x - 17) / 8) ** 2) - ((y - 16) / 10) ** 2);

/** Squares in gaps between cells 5 mm wide, every 7 mm, with so much noise each. */
function told(added: (x: number, y: number) => number, sigma: number, seed = 'map'): ToldLight[] {
  const random = seedrandom(seed);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const squares: ToldLight[] = [];
  for (let x = 1; x < WIDTH; x += 2)
    for (let y = 1; y < HEIGHT; y += 2) {
      const inGap = x % 7 < 2 || y % 7 < 2;
      if (inGap) squares.push({ x, y, added: added(x, y) + sigma * normal(), trust: 4 });
    }
  return squares;
}
const SURE = { partSigma: 2 * 0.004, alikeSigma: 0.001 };
/** Middles of cells, further from bare stock than anything else. */
const MIDDLES = Array.from({ length: 20 }, (_, k) => ({ x: 4.5 + 7 * (k % 5), y: 4.5 + 7 * Math.floor(k / 5) }));

describe('a reflection between bare places', () => {
  let map: ReturnType<typeof reflectionMap>;
  beforeEach(() => {
    map = reflectionMap(told(blob, 0.004), SURE, WIDTH, HEIGHT);
  });
  it('stands higher in the middle of a cell than bare stock about it has', () => {
    const about = told(blob, 0).filter(({ x, y }) => Math.hypot(x - 18.5, y - 18.5) < 5);
    const mean = about.reduce((sum, { added }) => sum + added / about.length, 0);
    expect(blob(18.5, 18.5) - mean).toBeGreaterThan(0.015);
    expect(map.at(18.5, 18.5) - mean).toBeGreaterThan(0.6 * (blob(18.5, 18.5) - mean));
    expect(map.at(18.5, 18.5)).toBeLessThan(blob(18.5, 18.5) + 0.01);
    for (const { x, y } of MIDDLES) expect(Math.abs(map.at(x, y) - blob(x, y)), `${x} ${y}`).toBeLessThan(0.012);
  });
  it('is nought where nothing was added, and never less', () => {
    for (const { x, y } of MIDDLES) expect(map.at(x, y)).toBeGreaterThanOrEqual(0);
    expect(map.at(39, 32)).toBeLessThan(0.004);
    expect(
      reflectionMap(
        told(() => -0.01, 0.004),
        SURE,
        WIDTH,
        HEIGHT,
      ).at(18, 18),
    ).toBe(0);
  });
  it('is off by as much as it says on bare stock, and in cells by no more than twice that', () => {
    const scores: number[] = [];
    for (const seed of ['one', 'two', 'three']) {
      const one = reflectionMap(told(blob, 0.004, seed), SURE, WIDTH, HEIGHT);
      const score = ({ x, y }: { x: number; y: number }): number => (one.at(x, y) - blob(x, y)) / one.sigmaAt(x, y);
      // Where it is not held to nought.
      scores.push(
        ...MIDDLES.map(({ x, y }) => ({ x: x + 3.5, y }))
          .filter(({ x, y }) => blob(x, y) > 0.02)
          .map(score),
      );
      for (const middle of MIDDLES) expect(Math.abs(score(middle)), `${middle.x} ${middle.y}`).toBeLessThan(2);
    }
    const rms = Math.sqrt(scores.reduce((sum, value) => sum + value ** 2, 0) / scores.length);
    expect(rms).toBeGreaterThan(0.5);
    expect(rms).toBeLessThan(1.5);
  });
  it('is less sure between bare places than on them, and where they are noisier', () => {
    const quiet = reflectionMap(told(blob, 0.001), { partSigma: 2 * 0.001, alikeSigma: 0.001 }, WIDTH, HEIGHT);
    expect(quiet.sigmaAt(18.5, 18.5)).toBeGreaterThan(1.2 * quiet.sigmaAt(15, 18));
    const noisy = reflectionMap(told(blob, 0.02), { partSigma: 2 * 0.02, alikeSigma: 0.001 }, WIDTH, HEIGHT);
    expect(noisy.sigmaAt(15, 18)).toBeGreaterThan(2 * map.sigmaAt(15, 18));
  });
  it('has no part in what all bare places are off by alike', () => {
    const shifted = told((x, y) => blob(x, y) + 0.02, 0.004);
    const corner = (alikeSigma: number): number =>
      reflectionMap(shifted, { ...SURE, alikeSigma }, WIDTH, HEIGHT).at(39, 32);
    expect(corner(0.02)).toBeLessThan(0.01);
    expect(corner(0.0005)).toBeGreaterThan(0.014);
  });
  it('is not unsure, away from it, of what has edges sharper than any reflection: a scrap of paper over a corner', () => {
    const crumpled = (x: number, y: number): number => (x < 16 && y < 16 ? 0.3 + 0.15 * ((3 * x + 7 * y) % 5) : 0);
    const scrap = reflectionMap(told(crumpled, 0.002), { ...SURE, partSigma: 0.004 }, WIDTH, HEIGHT);
    expect(scrap.sigmaAt(32.5, 25.5)).toBeLessThan(0.004);
    expect(scrap.sigmaAt(25.5, 4.5)).toBeLessThan(0.004);
  });
  it('is told of a single square, and is nought where none has any', () => {
    const mapOf = (added: (x: number, y: number) => number) => reflectionMap(told(added, 0), SURE, WIDTH, HEIGHT);
    const one = mapOf((x, y) => (x === 15 && y === 15 ? 0.4 : 0));
    expect(one.at(15, 15)).toBeGreaterThan(0.05);
    expect(one.at(35, 5)).toBeLessThan(0.01);
    const none = mapOf(() => 0);
    expect(none.at(18.5, 18.5)).toBe(0);
    expect(none.sigmaAt(18.5, 18.5)).toBeLessThan(0.01);
    const two = reflectionMap(
      [
        { x: 3, y: 3, added: 0.2, trust: 4 },
        { x: 5, y: 3, added: 0.1, trust: 4 },
      ],
      SURE,
      WIDTH,
      HEIGHT,
    );
    expect(two.at(4, 3)).toBeGreaterThan(0.05);
  });
  it('refuses sigmas that are none', () => {
    expect(() => reflectionMap(told(blob, 0), { ...SURE, partSigma: 0 }, WIDTH, HEIGHT)).toThrow(RangeError);
  });
});

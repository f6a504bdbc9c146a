import { describe, expect, it } from 'vitest';
import { heightsOf, planeThrough, type ValueAtPlace } from './bed';

const BEND = -0.5;
/** Ripples of a beam that is sharpest at a height: what it leaves of waves falls with the square of the way from there. */
const ripplesAt = (heightMm: number, strongest = 0.6, offsets: readonly number[] = [-1, 0, 1]) =>
  offsets.map((offsetMm) => ({
    offsetMm,
    visibility: strongest * Math.exp(BEND * (offsetMm - heightMm) ** 2),
    sigma: 0.01,
  }));

describe('heights of a sheet over the bed', () => {
  it('are where lines are sharpest: raised where the sheet stands higher', () => {
    const heights = heightsOf([ripplesAt(0), ripplesAt(0.3, 0.4), ripplesAt(-0.2, 0.8)])!;
    expect(heights.at.map((one) => Number(one!.heightMm.toFixed(6)))).toEqual([0, 0.3, -0.2]);
    // Offsets need be neither whole nor even.
    const odd = heightsOf([ripplesAt(0.3, 0.5, [-0.7, 0, 1.6]), ripplesAt(-0.1, 0.5, [-0.7, 0, 1.6])])!;
    expect(odd.at.map((one) => Number(one!.heightMm.toFixed(6)))).toEqual([0.3, -0.1]);
    // All but a fifth: exp(-0.5 z²) = 0.8.
    expect(heights.depthMm).toBeCloseTo(Math.sqrt(2 * Math.log(1.25)), 9);
  });

  it('need two ripples where another place tells how the beam widens, and say nothing of one', () => {
    const heights = heightsOf([ripplesAt(0.1), ripplesAt(0.4, 0.5, [0, 1]), ripplesAt(0.2, 0.5, [1]), []])!;
    expect(heights.at[1]!.heightMm).toBeCloseTo(0.4, 9);
    expect(heights.at[2]).toBeNull();
    expect(heights.at[3]).toBeNull();
  });

  it('are not told by ripples that noise could make, nor by patches that all look alike', () => {
    const faint = ripplesAt(0.2).map((ripple) => ({ ...ripple, sigma: ripple.visibility / 2 }));
    expect(heightsOf([ripplesAt(0), faint])!.at[1]).toBeNull();
    expect(heightsOf([ripplesAt(0).map((ripple) => ({ ...ripple, visibility: 0.5 }))])).toBeNull();
    // Stronger away from the focus: no beam does that.
    expect(
      heightsOf([[0.6, 0.3, 0.6].map((visibility, k) => ({ offsetMm: k - 1, visibility, sigma: 0.01 }))]),
    ).toBeNull();
    expect(heightsOf([])).toBeNull();
  });

  it('are as sure as ripples of many places scatter, not as each of them claims', () => {
    const off = [1.02, 0.99, 1.01, 0.98, 1, 1.02, 0.99, 1.01, 0.98];
    const places = off.map((factor, place) =>
      ripplesAt(0.05 * place).map((ripple, k) => ({
        ...ripple,
        visibility: ripple.visibility * (k === 1 ? factor : 2 - factor),
        // The photo does not know its own blur: all three of a place share that.
        sigma: 0.15 * ripple.visibility,
      })),
    );
    const sure = heightsOf(places)!.at.map((one) => one!.sigmaMm);
    // 2 % between neighbours at a bend of 0.5 are about 0.014 mm; their own claims, 15 %, would say 0.11.
    for (const sigma of sure) expect(sigma).toBeLessThan(0.05);
    for (const sigma of sure) expect(sigma).toBeGreaterThan(0.005);
  });
});

const places = (value: (x: number, y: number) => number, sigma = 0.02): ValueAtPlace[] =>
  [0, 100, 200].flatMap((y) => [0, 150, 300].map((x) => ({ x, y, value: value(x, y), sigma })));
/** Errors that cancel along both axes and over the whole. */
const even = (x: number, y: number): number => 0.01 * (x === 150 ? -2 : 1) * (y === 100 ? -2 : 1);

describe('the plane through places of the bed', () => {
  it('tells its rise along each axis and its corners about the middle', () => {
    const plane = planeThrough(places((x, y) => 0.1 + 0.001 * x - 0.0005 * y + even(x, y)))!;
    expect(plane.middle.value).toBeCloseTo(0.2, 9);
    expect(plane.acrossX.value).toBeCloseTo(0.3, 9);
    expect(plane.acrossY.value).toBeCloseTo(-0.1, 9);
    expect([plane.risesAlongX, plane.risesAlongY]).toEqual([true, true]);
    expect(plane.offMiddle(0, 0).value).toBeCloseTo(-0.1, 9);
    expect(plane.offMiddle(1, 0).value).toBeCloseTo(0.2, 9);
    expect(plane.isBent).toBe(false);
    // Where the places are counted from does not matter.
    const moved = planeThrough(
      places((x, y) => 0.1 + 0.001 * x - 0.0005 * y + even(x, y)).map((one) => ({
        ...one,
        x: one.x + 40,
        y: one.y + 60,
      })),
    )!;
    expect(moved.offPlane).toBeCloseTo(plane.offPlane, 9);
    expect([moved.acrossX.value, moved.acrossY.value, moved.offMiddle(1, 0).value]).toEqual([
      expect.closeTo(0.3, 9),
      expect.closeTo(-0.1, 9),
      expect.closeTo(0.2, 9),
    ]);
    // Two of the nine terms of the square of (1, -2, 1) x (1, -2, 1), 36 / 9 of 0.01².
    expect(plane.offPlane).toBeCloseTo(0.02, 9);
  });

  it('calls a rise one only where noise would hardly make it', () => {
    const { risesAlongX, risesAlongY } = planeThrough(places((x, y) => 0.00005 * x + 0.0005 * y + even(x, y)))!;
    expect([risesAlongX, risesAlongY]).toEqual([false, true]);
  });

  it('says where no plane fits, and is less sure then', () => {
    const bowed = (x: number, y: number): number => 0.3 * (1 - (x / 150 - 1) ** 2) * (1 - (y / 100 - 1) ** 2);
    const plane = planeThrough(places(bowed))!;
    expect(plane.isBent).toBe(true);
    expect(plane.acrossX.sigma).toBeGreaterThan(3 * planeThrough(places(() => 0))!.acrossX.sigma);
    expect(plane.risesAlongX).toBe(false);
  });

  it('goes on to the ends of what was tested, less sure than where it was told', () => {
    const all = places((x, y) => 0.001 * x + 0.0005 * y);
    const near = all.filter(({ x, y }) => x <= 150 && y <= 100);
    const [beyond, alone, whole] = [planeThrough(near, all)!, planeThrough(near)!, planeThrough(all)!];
    expect(beyond.offMiddle(1, 1).value).toBeCloseTo(0.2, 9);
    expect(beyond.middle.value).toBeCloseTo(0.2, 9);
    expect(alone.offMiddle(1, 1).value).toBeCloseTo(0.1, 9);
    expect(beyond.offMiddle(1, 1).sigma).toBeGreaterThan(2 * whole.offMiddle(1, 1).sigma);
  });

  it('is none through three places, or through places on one line', () => {
    expect(planeThrough(places(() => 0).slice(0, 3))).toBeNull();
    expect(planeThrough([0, 1, 2, 3].map((x) => ({ x, y: 0, value: x, sigma: 0.1 })))).toBeNull();
    expect(planeThrough([0, 1, 2, 3].map((x) => ({ x, y: x, value: x, sigma: 0.1 })))).toBeNull();
  });
});

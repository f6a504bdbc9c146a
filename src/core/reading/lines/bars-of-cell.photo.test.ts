import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../../tests/support/bare-layout';
import { drawnPatch } from '../../../../tests/support/drawn-lines';
import type { Cell } from '../../card/layout';
import type { BurnSettings } from '../../card/settings';
import { rectRing, type Region } from '../../card/shape';
import type { Rect } from '../../geometry/point';
import { barsOf, barsOfCell, isToneless } from './bars-of-cell';
import { offsetBetween } from './single-line';

const H = 0.05;
const LINES = 80;
const settings = {
  powerFraction: 0.3,
  speedMmPerS: 100,
  intervalMm: H,
  direction: 'horizontal',
  bothWays: true,
  passes: 1,
  scanOffsetMm: 0,
  lengthenMm: 0,
  lineAngleDeg: 0,
  crossHatch: false,
} as BurnSettings;
/** As along X; turned, x is along Y. */
const turned = ({ x, y, width, height }: Rect): Rect => ({ x: y, y: x, width: height, height: width });

/** Two bars of 0.4 by 4 mm, 2.4 mm apart, the first by the lines there. */
function pair(change: Partial<BurnSettings> = {}, swapped = false): Cell {
  const lies = (change.direction ?? 'horizontal') === 'horizontal';
  const place = (rect: Rect): Rect => (lies ? rect : turned(rect));
  const area: Region = Array.from({ length: LINES }, (_, line) =>
    rectRing(place({ x: ((line % 2 === 0) === swapped ? 3.6 : 1.2) - 0.2, y: line * H, width: 0.4, height: H })),
  );
  return cellOf(
    0,
    { shape: { do: 'sweep', area }, settings: { ...settings, ...change } },
    { box: place({ x: 0, y: 0, width: 4.8, height: 4 }) },
  );
}

/** A photo of both bars, each so far beside its place. */
function photo(beside: readonly [first: number, second: number], lies = true, pxPerMm = 30, reach = 0.22) {
  const isBurned = (along: number, across: number): boolean =>
    across > 0.02 && across < 3.98 && [1.2 + beside[0], 3.6 + beside[1]].some((at) => Math.abs(along - at) < reach);
  const fine = drawnPatch({
    widthMm: lies ? 4.8 : 4,
    heightMm: lies ? 4 : 4.8,
    pxPerMm,
    turned: 0.7,
    blurMm: 0.02,
    noise: 0.004,
    share: (x, y) => ((lies ? isBurned(x, y) : isBurned(y, x)) ? 0.3 : 1),
  });
  return { fine };
}

describe('the bars of a cell', () => {
  it('are where the lines there lie, and where the lines back lie', () => {
    const { there, back } = barsOf(pair())!;
    expect([there.x, there.width]).toEqual([expect.closeTo(1, 9), expect.closeTo(0.4, 9)]);
    expect([back.x, back.width]).toEqual([expect.closeTo(3.4, 9), expect.closeTo(0.4, 9)]);
    expect(there.height).toBeCloseTo((LINES - 2) * H, 9);
    expect(barsOf(pair({}, true))!.there.x).toBeCloseTo(3.4, 9);
    const down = barsOf(pair({ direction: 'vertical' }))!;
    expect([down.there.y, down.back.y]).toEqual([expect.closeTo(1, 9), expect.closeTo(3.4, 9)]);
    // What was laid aside on purpose is no place they were drawn at.
    expect(barsOf(pair({ scanOffsetMm: 0.2 }))).toEqual(barsOf(pair()));
  });
  it('are none in a fill, in one burned one way, or where both ways meet', () => {
    const square = rectRing({ x: 0, y: 0, width: 4, height: 4 });
    const fill = cellOf(0, { shape: { do: 'sweep', area: [square] }, settings });
    expect(barsOf(fill)).toBeNull();
    expect(isToneless(fill)).toBe(false);
    expect(barsOf(pair({ bothWays: false }))).toBeNull();
    const halves = [0, 2.1].map((x) => rectRing({ x, y: 0, width: 1.9, height: 4 }));
    expect(barsOf(cellOf(0, { shape: { do: 'sweep', area: halves }, settings }))).toBeNull();
    const { burns } = pair();
    expect(barsOf({ burns: [...burns, ...burns] })).toBeNull();
    expect(barsOf({ burns: [] })).toBeNull();
    expect(isToneless(pair())).toBe(true);
    const line = cellOf(0, { shape: { do: 'sweep', area: [rectRing({ x: 0, y: 1, width: 4, height: H })] }, settings });
    expect(isToneless(line)).toBe(true);
  });
  it.each(['horizontal', 'vertical'] as const)(
    'of lines that run %s are told by a photo, each beside its place',
    (direction) => {
      const seen = barsOfCell(photo([0.016, -0.031], direction === 'horizontal'), pair({ direction }))!;
      expect(Math.abs(seen.there.besideMm - 0.016)).toBeLessThan(0.003);
      expect(Math.abs(seen.back.besideMm + 0.031)).toBeLessThan(0.003);
      const apart = offsetBetween(seen.there, seen.back);
      expect(Math.abs(apart.mm + 0.047)).toBeLessThan(Math.max(0.003, 3 * apart.sigmaMm));
      const other = barsOfCell(photo([0.016, -0.031], direction === 'horizontal'), pair({ direction }, true))!;
      expect(offsetBetween(other.there, other.back).mm).toBeCloseTo(-apart.mm, 3);
    },
  );
  it('are told without their profiles, up to half a millimetre aside', () => {
    const seen = barsOfCell(photo([0.5, -0.5]), pair())!;
    expect(seen.there.profile).toBeNull();
    expect(offsetBetween(seen.there, seen.back).mm).toBeCloseTo(-1, 2);
  });
  it.each(['horizontal', 'vertical'] as const)(
    'of lines that run %s are as wide as they were burned, along these lines',
    (direction) => {
      for (const reach of [0.22, 0.28]) {
        const { there, back } = barsOfCell(
          photo([0.016, -0.031], direction === 'horizontal', 30, reach),
          pair({ direction }),
        )!;
        for (const { widthMm, widthSigmaMm, depth } of [there, back]) {
          expect(Math.abs(widthMm! - 2 * reach)).toBeLessThan(0.004);
          expect(widthSigmaMm!).toBeLessThan(0.004);
          // Three tenths of the light come back.
          expect(Math.abs(depth! - 0.7)).toBeLessThan(0.02);
        }
      }
    },
  );
  it('are of no known width where they were drawn less than six pixels of the photo wide', () => {
    const { fine } = photo([0, 0]);
    const narrow = cellOf(0, pair().burns[0]!, { box: { x: 0, y: 0, width: 4.8, height: 4 } });
    const thinner: Region = Array.from({ length: LINES }, (_, line) =>
      rectRing({ x: (line % 2 === 0 ? 1.2 : 3.6) - 0.1, y: line * H, width: 0.2, height: H }),
    );
    const thin = { ...narrow, burns: [{ ...narrow.burns[0]!, shape: { do: 'sweep' as const, area: thinner } }] };
    const { there } = barsOfCell({ fine: { ...fine, pxPerMm: 29 } }, thin)!;
    expect([there.widthMm, there.besideMm]).toEqual([null, expect.closeTo(0, 2)]);
  });
  it('are drawn where their outlines are, however much longer their dots are drawn', () => {
    expect(barsOf(pair({ lengthenMm: 0.1 }))).toEqual(barsOf(pair({ lengthenMm: 0 })));
  });
  it('are not told where one is missing, by fewer than 15 pixels to a millimetre, or of another cell', () => {
    const gone = { ...photo([0, 9]) };
    expect(barsOfCell(gone, pair())).toBeNull();
    const { fine } = photo([0, 0]);
    expect(barsOfCell({ fine: { ...fine, pxPerMm: 14 } }, pair())).toBeNull();
    expect(barsOfCell({ fine }, pair({ bothWays: false }))).toBeNull();
  });
});

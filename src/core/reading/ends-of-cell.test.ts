import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import type { BurnSettings } from '../card/settings';
import { rectRing } from '../card/shape';
import { lightnessOfLuminance } from '../color/lab';
import { endsOfCell } from './ends-of-cell';
import type { PhotoContext } from './photo-context';

const PX = 20;
const settings = { direction: 'horizontal', lineAngleDeg: 0, crossHatch: false } as BurnSettings;
/** A bar of 16 by 2 mm, 2 mm from the corner, along X or along Y. */
const bar = (direction: 'horizontal' | 'vertical', wide = 16, high = 2) => {
  const box =
    direction === 'horizontal' ? { x: 2, y: 2, width: wide, height: high } : { x: 2, y: 2, width: high, height: wide };
  return cellOf(0, { shape: { do: 'sweep', area: [rectRing(box)] }, settings: { ...settings, direction } }, { box });
};

/** A straightened photo of white stock, whose light at a place is a share of bare stock's, with so much noise. */
function photo(share: (xMm: number, yMm: number) => number, noise = 0): PhotoContext {
  const side = 20 * PX;
  const random = seedrandom('ends');
  const data = Float32Array.from({ length: side * side * 3 }, (_, k) => {
    const pixel = Math.floor(k / 3);
    return share(((pixel % side) + 0.5) / PX, (Math.floor(pixel / side) + 0.5) / PX) * (1 + noise * (random() - 0.5));
  });
  return {
    rectified: { pxPerMm: PX, width: side, height: side, data, clipped: new Uint8Array(side * side) },
    field: { at: () => [1, 1, 1] as const, under: () => ({ shift: 0, sigma: 0.01, tiles: 20 }) },
    stockLinear: [0.5, 0.5, 0.5],
  } as unknown as PhotoContext;
}
const lightness = (share: number): number => lightnessOfLuminance(0.5 * share);

describe('the ends of a long fill', () => {
  it.each(['horizontal', 'vertical'] as const)(
    'are told against its middle, %s, the left or upper one first',
    (direction) => {
      const share = (along: number): number => (along < 3 ? 0.3 : along > 17 ? 0.5 : 0.4);
      const seen = endsOfCell(
        photo((x, y) => share(direction === 'horizontal' ? x : y)),
        bar(direction),
      )!;
      expect(seen.first).toBeCloseTo(lightness(0.3) - lightness(0.4), 3);
      expect(seen.last).toBeCloseTo(lightness(0.5) - lightness(0.4), 3);
      expect(seen.first).toBeLessThan(-3);
      expect(seen.last).toBeGreaterThan(3);
    },
  );
  it('are no others than the outermost half millimetre, clear of the edge', () => {
    // What a photo softens of the edge itself, and what lies further in, is not theirs.
    const within = photo((x) => (x < 2.15 || (x > 2.75 && x < 7) || x > 17.85 || (x > 13 && x < 17.25) ? 0.1 : 0.4));
    const seen = endsOfCell(within, bar('horizontal'))!;
    expect([seen.first, seen.last]).toEqual([expect.closeTo(0, 3), expect.closeTo(0, 3)]);
  });
  it('are as sure as light scatters there, and never surer than two places of one bar are alike', () => {
    const even = endsOfCell(
      photo(() => 0.4),
      bar('horizontal'),
    )!;
    const rough = endsOfCell(
      photo(() => 0.4, 2),
      bar('horizontal'),
    )!;
    expect(even.sigma).toBeCloseTo(0.25, 6);
    expect(rough.sigma).toBeGreaterThan(1.2 * even.sigma);
    expect(Math.abs(rough.first)).toBeLessThan(3 * rough.sigma);
  });
  it('are none of a short, low or square fill, of turned or crossed lines, or of several fills', () => {
    const flat = photo(() => 0.4);
    const none = (cell: Parameters<typeof endsOfCell>[1]) => expect(endsOfCell(flat, cell)).toBeNull();
    none(bar('horizontal', 5.9));
    none(bar('horizontal', 16, 0.9));
    none(bar('horizontal', 7, 4));
    const { burns } = bar('horizontal');
    none({ burns: [...burns, ...burns] });
    none({ burns: [] });
    for (const change of [{ lineAngleDeg: 30 }, { crossHatch: true }])
      none({ burns: [{ ...burns[0]!, settings: { ...settings, ...change } }] });
    none({ burns: [{ shape: { do: 'follow', lines: [] }, settings }] });
    expect(endsOfCell(flat, { burns })).not.toBeNull();
  });
});

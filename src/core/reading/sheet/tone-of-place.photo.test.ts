import { describe, expect, it } from 'vitest';
import { drawSheet, INK_SHARES } from '../../../../tests/support/drawn-sheet';
import { lightnessOfLuminance } from '../../color/lab';
import { linearToSrgb } from '../../color/srgb';
import type { RgbImage } from '../../image/raster';
import { frameSheet } from '../../sheet/frame-sheet';
import { atLeast, findMarkers } from '../find-markers';
import { toneOfPlace } from './tone-of-place';
import { tuples } from '../../../../tests/support/tuples';

const sheet = frameSheet('a5');
const GREYS = { reflectances: INK_SHARES.map((share) => [share, share, share] as const), contrastSigma: 0.01 };
const PX_PER_MM = 5;
/** The sheet's corner in photos of the tests' renderer. */
const AROUND_MM = 6;
const at = (xMm: number, yMm: number, radiusMm = 3) => ({
  x: (xMm + AROUND_MM) * PX_PER_MM,
  y: (yMm + AROUND_MM) * PX_PER_MM,
  radiusPx: radiusMm * PX_PER_MM,
});
const light = (x: number, y: number): number => 0.8 - 0.0018 * x - 0.0007 * y + 4e-6 * x * y;
/** Deepens what is dark, as phones do. */
const phone = (value: number): number => {
  const stored = linearToSrgb(value);
  return stored - 0.1 * Math.sin(2 * Math.PI * stored);
};
const { window } = sheet;
/** A piece in the sheet's window: bare stock to the left, a mark to the right. */
const PIECE = { bare: 0.4, mark: 0.09 };
const middleY = window.y + window.height / 2;
const bare = at(window.x + window.width * 0.25, middleY);
const mark = at(window.x + window.width * 0.75, middleY);

function withPiece(cast: readonly [number, number, number] = [1, 1, 1], of = PIECE): RgbImage {
  const shown = (x: number, y: number): number => {
    const inWindow = x > window.x && x < window.x + window.width && y > window.y && y < window.y + window.height;
    return !inWindow ? 1 : x < window.x + window.width / 2 ? of.bare : of.mark;
  };
  return drawSheet(sheet, { light: (x, y) => light(x, y) * shown(x, y), stored: phone, cast });
}
const toneIn = (photo: RgbImage, place = mark, beside: typeof bare | null = bare, sheets = { a5: GREYS } as object) =>
  toneOfPlace(photo, findMarkers(photo, atLeast(8)), sheets, place, beside);

describe('the tone of a piece beside a frame sheet', () => {
  it('is that of the piece whatever the camera makes of tones and whatever light falls on it', () => {
    for (const cast of tuples([1, 1, 1], [1, 0.8, 0.55])) {
      const told = toneIn(withPiece(cast));
      if ('fault' in told) throw new Error(told.fault);
      // Paper of the tests sends back all light; office paper is taken to send back 0.853 of it.
      const truth = lightnessOfLuminance(PIECE.mark * 0.853);
      expect(Math.abs(told.lightness - truth)).toBeLessThan(1);
      expect(Math.abs(told.lightness - truth)).toBeLessThan(2 * told.sigma);
      expect(told.sigma).toBeLessThan(2.5);
      const { ratio, sigmaShare } = told.overBare!;
      expect(Math.abs(Math.log(ratio / (PIECE.mark / PIECE.bare)))).toBeLessThan(0.04);
      expect(Math.abs(Math.log(ratio / (PIECE.mark / PIECE.bare)))).toBeLessThan(2 * sigmaShare);
      // Its own bare stock asks nothing of the paper.
      expect(sigmaShare).toBeLessThan(0.06);
    }
  });
  it('is less sure where it is darker than the darkest grey', () => {
    const [usual, dark] = [toneIn(withPiece()), toneIn(withPiece([1, 1, 1], { bare: 0.4, mark: 0.012 }))];
    if ('fault' in usual || 'fault' in dark) throw new Error('not told');
    expect(dark.overBare!.sigmaShare).toBeGreaterThan(3 * usual.overBare!.sigmaShare);
  });
  it('needs no bare stock, and a few pixels are no place', () => {
    const told = toneIn(withPiece(), mark, null);
    expect(told).toMatchObject({ overBare: null });
    // What is as bright as paper is no surer than what paper sends back: 3.5 % of light, 0.9 L* at this tone.
    const bright = toneIn(withPiece(), bare, null);
    expect('sigma' in bright && bright.sigma).toBeGreaterThan(0.8);
    expect(toneIn(withPiece(), { ...mark, radiusPx: 2 })).toEqual({ fault: 'too-small' });
    expect(toneIn(withPiece(), mark, { ...bare, radiusPx: 2 })).toEqual({ fault: 'too-small' });
  });
  it('is not told beyond the sheet, without one, by one that was never measured, or where it is blown out', () => {
    const photo = withPiece();
    expect(toneIn(photo, at(-4, middleY))).toEqual({ fault: 'beyond-sheet' });
    expect(toneIn(photo, mark, at(sheet.widthMm + 3, middleY))).toEqual({ fault: 'beyond-sheet' });
    expect(toneIn(photo, mark, null, {})).toEqual({ fault: 'sheet-not-measured' });
    expect(toneOfPlace(photo, [], { a5: GREYS }, mark)).toEqual({ fault: 'no-sheet' });
    expect(toneIn(withPiece([1, 1, 1], { bare: 0.4, mark: 1.6 }))).toEqual({ fault: 'blown-out' });
  });
});

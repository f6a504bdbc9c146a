import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../../tests/support/bare-layout';
import { drawnPatch } from '../../../../tests/support/drawn-lines';
import type { BurnSettings } from '../../card/settings';
import { rectRing } from '../../card/shape';
import { blurBetween } from './blur';
import { hasOneLine, lineOfCell, linesOfCell } from './lines-of-cell';
import { widthAtLevel } from './single-line';

const settings = { powerFraction: 0.3, intervalMm: 0.1, direction: 'horizontal' } as BurnSettings;
/** A cell of 8 by 1.6 mm whose burn is so high in its middle. */
const cell = (heightMm: number, change: Partial<BurnSettings> = {}) => {
  const area = { x: 0, y: 0.8 - heightMm / 2, width: 8, height: heightMm };
  return cellOf(
    0,
    { shape: { do: 'sweep', area: [rectRing(area)] }, settings: { ...settings, ...change } },
    { box: { x: 0, y: 0, width: 8, height: 1.6 } },
  );
};
/** A line of 0.12 mm, which begins late and ends early. */
const lineShare = (x: number, y: number): number => (x > 0.5 && x < 7.5 && Math.abs(y - 0.83) < 0.06 ? 0.3 : 1);
const fine = drawnPatch({
  widthMm: 8,
  heightMm: 1.6,
  pxPerMm: 46,
  turned: 0.8,
  noise: 0.004,
  share: lineShare,
});
const pixel = 1 / Math.sqrt(12) / 46;
const photo = { fine, blur: () => blurBetween(pixel, pixel) };

describe('the line of a cell', () => {
  it('is one sweep and nothing else', () => {
    expect(hasOneLine(cell(0.1))).toBe(true);
    expect(hasOneLine(cell(0.16))).toBe(false);
    expect(hasOneLine(cell(0.1, { direction: 'vertical' }))).toBe(false);
    const twice = cell(0.1);
    expect(hasOneLine({ burns: [...twice.burns, ...twice.burns] })).toBe(false);
    expect(hasOneLine({ burns: [] })).toBe(false);
    expect(hasOneLine({ burns: [{ shape: { do: 'follow', lines: [] }, settings }] })).toBe(false);
  });
  it('is told by its middle, and is no fill of lines', () => {
    const line = lineOfCell(photo, cell(0.1))!;
    expect(line.besideMm).toBeCloseTo(0.03, 2);
    expect(Math.abs(line.widthMm! - 0.12)).toBeLessThan(0.004);
    expect(linesOfCell(photo, cell(0.1))).toBeNull();
    expect(lineOfCell(photo, cell(0.5))).toBeNull();
  });
  it('has a profile: as wide at any level between bare stock and its middle, and nowhere beyond', () => {
    const { profile } = lineOfCell(photo, cell(0.1))!;
    for (const level of [0.2, 0.35, 0.5]) expect(Math.abs(widthAtLevel(profile!, level)! - 0.12)).toBeLessThan(0.015);
    expect(widthAtLevel(profile!, 0.75)).toBeNull();
    expect(widthAtLevel(profile!, -0.1)).toBeNull();
    expect(widthAtLevel({ stepMm: 0.01, taken: [0, 0.5, 1, 0.5, 0] }, 0.75)).toBeCloseTo(0.01, 12);
    // About its own top, which may lie beside the middle: half a step to the left and a quarter to the right.
    expect(widthAtLevel({ stepMm: 0.01, taken: [0, 0.2, 0.5, 1, 0] }, 0.75)).toBeCloseTo(0.0075, 12);
  });
  it('is not told where the photo’s blur is not known, or below fifteen pixels to a millimetre', () => {
    expect(lineOfCell({ fine, blur: () => null }, cell(0.1))).toBeNull();
    const coarse = {
      ...photo,
      fine: drawnPatch({ widthMm: 8, heightMm: 1.6, pxPerMm: 14, turned: 0.8, noise: 0.004, share: lineShare }),
    };
    const enough = {
      ...photo,
      fine: drawnPatch({ widthMm: 8, heightMm: 1.6, pxPerMm: 16, turned: 0.8, noise: 0.004, share: lineShare }),
    };
    expect(lineOfCell(coarse, cell(0.1))).toBeNull();
    expect(lineOfCell(enough, cell(0.1))).not.toBeNull();
  });
});

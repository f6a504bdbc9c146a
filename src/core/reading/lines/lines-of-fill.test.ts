import { describe, expect, it } from 'vitest';
import type { Rect } from '../../geometry/point';
import { blurBetween, type Blur } from './blur';
import type { FineLight } from './fine-light';
import { hasPixelsFor, linesOfFill, rippleOfFill } from './lines-of-fill';

const NO_BLUR: Blur = { leastMm: 0, mostMm: 0, leftOf: () => ({ share: 1, relativeSigma: 0 }) };
/** Pixels of a photo that lies a little askew, each with the light of the very place that it looks at. */
function fine(light: (x: number, y: number) => number, pxPerMm = 40) {
  const asked: Rect[] = [];
  const of: FineLight = {
    pxPerMm,
    pixelsOf: (area) => {
      asked.push(area);
      const [wide, high] = [Math.floor(area.width * pxPerMm), Math.floor(area.height * pxPerMm)];
      const at = Array.from({ length: wide * high }, (_, k) => {
        const [column, row] = [k % wide, Math.floor(k / wide)];
        return { x: (column + 0.5 + row / 90) / pxPerMm, y: (row + 0.5 + column / 90) / pxPerMm };
      }).filter(({ x, y }) => x < area.width && y < area.height);
      return {
        count: at.length,
        xMm: Float64Array.from(at, ({ x }) => area.x + x),
        yMm: Float64Array.from(at, ({ y }) => area.y + y),
        share: Float64Array.from(at, ({ x, y }) => light(area.x + x, area.y + y)),
      };
    },
  };
  return { of, asked };
}
const AREA = { x: 1, y: 2, width: 2, height: 3 };
/** Waves of so much about 0.5, at a pitch of 0.15 mm. */
const waves =
  (amplitude: number, pitchMm = 0.15) =>
  (_: number, y: number): number =>
    0.5 + amplitude * Math.cos((2 * Math.PI * y) / pitchMm);
const LINES = { intervalMm: 0.15, run: 'horizontal', blur: NO_BLUR } as const;

describe('the lines of a fill', () => {
  it('show by the height of their wave over the mean, at the pitch that they have', () => {
    for (const pitchMm of [0.15, 0.147, 0.154]) {
      const seen = linesOfFill(fine(waves(0.1, pitchMm)).of, AREA, LINES)!;
      expect(seen.pitchMm, String(pitchMm)).toBeCloseTo(pitchMm, 4);
      expect(seen.visibility).toBeCloseTo(0.2, 2);
    }
    const turned = fine((x, y) => waves(0.1)(y, x)).of;
    expect(linesOfFill(turned, AREA, { ...LINES, run: 'vertical' })!.visibility).toBeCloseTo(0.2, 2);
    expect(linesOfFill(turned, AREA, LINES)!.visibility).toBeLessThan(0.02);
    expect(rippleOfFill(fine(waves(0.1)).of, AREA, LINES)!.amplitude).toBeCloseTo(0.2, 2);
  });
  it('leave the gap that two tones of that wave and mean have', () => {
    // Lines of no light that cover 70 % of 0.15 mm: they take 0.7, their first harmonic is 2 sin(0.7 pi) / pi.
    const two = (_: number, y: number): number => ((y / 0.15) % 1 < 0.7 ? 0 : 1);
    const seen = linesOfFill(fine(two, 80).of, AREA, LINES)!;
    expect(seen.gapMm).toBeCloseTo(0.045, 2);
    expect(seen.visibility).toBeCloseTo((2 * Math.sin(0.7 * Math.PI)) / Math.PI / 0.3, 1);
    // Of next to no contrast none is told.
    expect(linesOfFill(fine((x, y) => 0.96 + 0.02 * waves(1)(x, y)).of, AREA, LINES)!.gapMm).toBeNull();
  });
  it('are as much stronger as the camera blunts them, and less sure by how unsure that is', () => {
    const blunted = { ...LINES, blur: { ...NO_BLUR, leftOf: () => ({ share: 0.5, relativeSigma: 0.1 }) } };
    const [plain, seen] = [LINES, blunted].map((how) => linesOfFill(fine(waves(0.1)).of, AREA, how)!);
    expect(seen!.visibility / plain!.visibility).toBeCloseTo(2, 9);
    expect(seen!.visibilitySigma).toBeCloseTo(Math.hypot(2 * plain!.visibilitySigma, 0.1 * seen!.visibility), 9);
    const left = (share: number, relativeSigma: number) =>
      linesOfFill(fine(waves(0.1)).of, AREA, {
        ...LINES,
        blur: { ...NO_BLUR, leftOf: () => ({ share, relativeSigma }) },
      });
    expect([left(0.12, 0.3), left(0.119, 0), left(1, 0.31)].map((one) => one !== null)).toEqual([true, false, false]);
    expect(linesOfFill(fine(waves(0.1)).of, AREA, { ...LINES, blur: blurBetween(0.06, 0.06) })).toBeNull();
  });
  it('take three pixels to a pitch, six lines, and light', () => {
    const { of } = fine(waves(0.1));
    expect([hasPixelsFor(of, 0.075), hasPixelsFor(of, 0.0749)]).toEqual([true, false]);
    expect(linesOfFill(fine(waves(0.1), 19).of, AREA, LINES)).toBeNull();
    expect(linesOfFill(of, { ...AREA, height: 6 * 0.15 }, LINES)).not.toBeNull();
    expect(linesOfFill(of, { ...AREA, height: 5.9 * 0.15 }, LINES)).toBeNull();
    expect(linesOfFill(of, { ...AREA, width: 6 * 0.15, height: 9 }, { ...LINES, run: 'vertical' })).not.toBeNull();
    expect(linesOfFill(fine(() => 0).of, AREA, LINES)).toBeNull();
    expect(linesOfFill(fine(() => 0.5).of, AREA, LINES)).toMatchObject({ pitchMm: null, pitchSigmaMm: null });
  });
  it('are looked at in the middle of a long fill, whose ends have the head under way', () => {
    // 12 000 pixels of 1600 to a square millimetre are 7.5 of them.
    const wide = fine(waves(0.1));
    linesOfFill(wide.of, { x: 1, y: 2, width: 20, height: 3 }, LINES);
    expect(wide.asked).toEqual([{ x: 9.75, y: 2, width: 2.5, height: 3 }]);
    const high = fine((x, y) => waves(0.1)(y, x));
    linesOfFill(high.of, { x: 1, y: 2, width: 3, height: 20 }, { ...LINES, run: 'vertical' });
    expect(high.asked).toEqual([{ x: 1, y: 10.75, width: 3, height: 2.5 }]);
    const small = fine(waves(0.1));
    linesOfFill(small.of, AREA, LINES);
    expect(small.asked).toEqual([AREA]);
  });
});

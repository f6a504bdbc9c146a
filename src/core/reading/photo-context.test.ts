import { describe, expect, it } from 'vitest';
import { meanRatio, type PhotoContext } from './photo-context';

/** Four by three millimetres at 10 px/mm of one colour, its last column of pixels clipped, on bare stock that is brighter further to the right. */
const context = (throughSheet = false) =>
  ({
    throughSheet,
    rectified: {
      width: 40,
      height: 30,
      pxPerMm: 10,
      data: Float32Array.from({ length: 40 * 30 * 3 }, (_, at) => [0.3, 0.2, 0.1][at % 3]!),
      clipped: Uint8Array.from({ length: 40 * 30 }, (_, at) => (at % 40 === 39 ? 1 : 0)),
    },
    field: { at: (x: number) => [0.6, 0.5, x < 2 ? 0.4 : 0.8] as const },
  }) as unknown as PhotoContext;

describe('the mean ratio of an area to bare stock', () => {
  it('is told channel by channel, by the light at each place of it', () => {
    const ratio = meanRatio(context(), { x: 0, y: 0, width: 2, height: 3 });
    expect(ratio.red).toBeCloseTo(0.5, 6);
    expect(ratio.green).toBeCloseTo(0.4, 6);
    expect(ratio.blue).toBeCloseTo(0.25, 6);
    expect(meanRatio(context(), { x: 0, y: 0, width: 4, height: 3 }).blue).toBeCloseTo((0.25 + 0.125) / 2, 6);
    const bare = (): readonly [number, number, number] => [1, 0.1, 1];
    expect(meanRatio(context(), { x: 1, y: 1, width: 0.7, height: 1.3 }, bare).green).toBeCloseTo(2, 5);
  });
  it('says what share of the area is clipped, and counts only what the picture shows', () => {
    expect(meanRatio(context(), { x: 3, y: 1, width: 1, height: 1 }).clippedShare).toBeCloseTo(0.1, 9);
    const beyond = meanRatio(context(), { x: 3.5, y: -2, width: 4, height: 4 });
    expect([beyond.clippedShare, beyond.red]).toEqual([0.2, expect.closeTo(0.5, 6)]);
    expect(meanRatio(context(), { x: 9, y: 9, width: 1, height: 1 }).red).toBeNaN();
  });
  it('takes marks that are seen through their sheet for paler than they are, by what the sheet takes of them', () => {
    const ratio = meanRatio(context(true), { x: 0, y: 0, width: 2, height: 3 });
    expect(1 - ratio.red).toBeCloseTo(0.5 / 0.89, 6);
  });
});

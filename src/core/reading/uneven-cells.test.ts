import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import type { Cell } from '../card/layout';
import type { BurnSettings } from '../card/settings';
import { rectRing } from '../card/shape';
import { LOW_CONFIDENCE, type CellReading } from './observations';
import { doubtingUneven } from './uneven-cells';

/** Cells in a row, every two L*, whose spread grows with their tone as it does on any card; some of them have one of their own. */
function row(own: Readonly<Record<number, number>>, count = 20): CellReading[] {
  return Array.from({ length: count }, (_, cellIndex) => {
    const lightness = 20 + 2 * cellIndex;
    return {
      cellIndex,
      lightness,
      spread: own[cellIndex] ?? lightness / 60,
      lightnessSigma: 0.4,
      confidence: 0.999,
      doubts: [],
    } as unknown as CellReading;
  });
}
const SETTINGS = { direction: 'horizontal', intervalMm: 0.1, focusOffsetMm: 0, crossHatch: false } as BurnSettings;
/** Cells that are filled all over, with lines that may be the cell's own. */
const plain = (count = 20, own: (index: number) => Partial<BurnSettings> = () => ({})): Cell[] =>
  Array.from({ length: count }, (_, index) =>
    cellOf(
      index,
      {
        shape: { do: 'sweep', area: [rectRing({ x: 0, y: 0, width: 5, height: 5 })] },
        settings: { ...SETTINGS, ...own(index) },
      },
      { box: { x: 0, y: 0, width: 5, height: 5 } },
    ),
  );

describe('cells that spread more than others of their tone', () => {
  it('are less sure, and marked, where a knot lies under them', () => {
    // By hand: the usual spread at 40 L* is 2/3, 1.7 times that 1.13; beyond it 2 L* leave sqrt(4 - 1.28) = 1.65.
    const [before, after] = [row({ 10: 2 })[10]!, doubtingUneven(row({ 10: 2 }), plain())[10]!];
    expect(after.lightnessSigma).toBeGreaterThan(1.6);
    expect(after.lightnessSigma).toBeLessThan(1.75);
    expect(after.doubts).toEqual(['uneven']);
    expect(after.confidence).toBeLessThan(LOW_CONFIDENCE);
    expect(after.lightness).toBe(before.lightness);
  });
  it('are left as they are where they spread by chance, or with their tone', () => {
    const readings = row({ 10: 1.1 });
    expect(doubtingUneven(readings, plain())).toEqual(readings);
    // The lightest spreads three times as much as the darkest.
    expect(doubtingUneven(row({}), plain())).toEqual(row({}));
  });
  it('a little more than chance is no mark yet, and keeps its doubts', () => {
    const slight = doubtingUneven(row({ 10: 1.2 }), plain())[10]!;
    expect(slight.lightnessSigma).toBeGreaterThan(0.41);
    expect(slight.doubts).toEqual([]);
    expect(slight.confidence).toBeGreaterThan(LOW_CONFIDENCE);
    const doubted = row({ 10: 2 }).map((one) =>
      one.cellIndex === 10 ? { ...one, doubts: ['clipped'] as const } : one,
    );
    expect(doubtingUneven(doubted, plain())[10]!.doubts).toEqual(['clipped']);
    // A doubt weighs as it does everywhere, however sure the lightness is.
    const sure = row({ 10: 1.2 }).map((one) => (one.cellIndex === 10 ? { ...one, doubts: ['clipped'] as const } : one));
    expect(doubtingUneven(sure, plain())[10]!.confidence).toBe(0.75);
  });
  it('are not told where too few others are of their tone', () => {
    const few = row({ 3: 9 }, 6);
    expect(doubtingUneven(few, plain(6))).toEqual(few);
    // A dark cell among light ones: none is within 15 L* of it.
    const lonely = row({}).map((one) => (one.cellIndex === 0 ? { ...one, lightness: 2, spread: 3 } : one));
    expect(doubtingUneven(lonely, plain())[0]).toEqual(lonely[0]);
  });
  it('are held against those that are burned with the same lines alone', () => {
    const coarse = [3, 7, 11, 15];
    const spreads = { 3: 3, 7: 4, 11: 5, 15: 6 };
    const lines = (own: Partial<BurnSettings>) => plain(20, (index) => (coarse.includes(index) ? own : {}));
    for (const own of [
      { intervalMm: 0.3 },
      { direction: 'vertical' },
      { crossHatch: true },
      { focusOffsetMm: 2 },
      { lineAngleDeg: 45 },
      { frequencyKHz: 20 },
    ] as const)
      expect(doubtingUneven(row(spreads), lines(own)), JSON.stringify(own)).toEqual(row(spreads));
    expect(doubtingUneven(row(spreads), lines({ speedMmPerS: 90 }))[3]!.doubts).toEqual(['uneven']);
  });
  it('are none of those that are not burned to one tone', () => {
    const picture = { burns: [{ shape: { do: 'picture' }, settings: SETTINGS }] } as unknown as Cell;
    const pictures = plain().map((cell, index) => (index === 10 ? picture : cell));
    expect(doubtingUneven(row({ 10: 9 }), pictures)).toEqual(row({ 10: 9 }));
    // A single line 0.1 mm high, with bare stock around it.
    const line = cellOf(
      10,
      {
        shape: { do: 'sweep', area: [rectRing({ x: 0, y: 0.75, width: 8, height: 0.1 })] },
        settings: SETTINGS,
      },
      { box: { x: 0, y: 0, width: 8, height: 1.6 } },
    );
    const lines = plain().map((cell, index) => (index === 10 ? line : cell));
    expect(doubtingUneven(row({ 10: 9 }), lines)).toEqual(row({ 10: 9 }));
    // Nor are others held against them.
    expect(doubtingUneven(row({ 8: 9, 9: 9, 10: 2, 11: 9, 12: 9 }), pictures)[10]!.doubts).toEqual([]);
    const three = plain().map((cell, index) => ([8, 9, 11, 12].includes(index) ? picture : cell));
    expect(doubtingUneven(row({ 8: 9, 9: 9, 10: 2, 11: 9, 12: 9 }), three)[10]!.doubts).toEqual(['uneven']);
  });
});

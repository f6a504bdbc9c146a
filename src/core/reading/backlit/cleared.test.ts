import { describe, expect, it } from 'vitest';
import { clearedCells } from './cleared';
import type { CellThrough } from './observations';

const cell = (through: number, change: Partial<CellThrough> = {}): CellThrough => ({
  cellIndex: 0,
  through,
  sigma: 0.03,
  ownSigma: 0.008,
  darkestTenth: through - 0.02,
  doubts: [],
  ...change,
});
const cleared = (...cells: CellThrough[]): (boolean | null)[] => [
  ...clearedCells(cells.map((one, cellIndex) => ({ ...one, cellIndex }))).values(),
];

describe('whether the coat is off', () => {
  it('is so where a cell lets through what the clearest does, and that what a clear sheet does', () => {
    expect(cleared(cell(0.01), cell(0.6), cell(0.9), cell(0.92))).toEqual([false, false, true, true]);
  });
  it('is so nowhere where the clearest holds back more than a clear sheet can', () => {
    expect(cleared(cell(0.3), cell(0.6))).toEqual([false, false]);
    // Its own uncertainty counts: 0.76 and twice 0.03 may be a tinted sheet.
    expect(cleared(cell(0.3), cell(0.76))).toEqual([false, true]);
    expect(cleared(cell(0.3), cell(0.73))).toEqual([false, false]);
  });
  it('is not where specks of it are left', () => {
    expect(cleared(cell(0.91, { darkestTenth: 0.7 }), cell(0.92))).toEqual([false, true]);
  });
  it('is open where the photo is in doubt, or not sure enough to tell one cell from another', () => {
    expect(cleared(cell(0.9, { doubts: ['room-light'] }), cell(0.92))).toEqual([null, true]);
    expect(cleared(cell(0.86), cell(0.92))).toEqual([null, true]);
    expect(cleared(cell(0.9, { ownSigma: 0.03 }), cell(0.92, { ownSigma: 0.001 }))).toEqual([null, true]);
    expect(cleared(cell(0.9, { doubts: ['blurred'] }))).toEqual([null]);
    expect(cleared()).toEqual([]);
  });
});

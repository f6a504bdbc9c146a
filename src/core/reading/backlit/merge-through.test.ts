import { describe, expect, it } from 'vitest';
import { mergeThrough } from './merge-through';
import type { CellThrough } from './observations';

const cell = (through: number, change: Partial<CellThrough> = {}): CellThrough => ({
  cellIndex: 2,
  through,
  sigma: 0.02,
  ownSigma: 0.012,
  darkestTenth: through - 0.1,
  doubts: [],
  ...change,
});
const photo = (cells: CellThrough[], photoPxPerMm = 20, bareThrough = 0.004) => ({
  cells,
  bareThrough,
  pinholes: { count: Math.round(photoPxPerMm), areaMm2: 100 },
  photoPxPerMm,
});
const merged = (...cells: CellThrough[]): CellThrough => mergeThrough(cells.map((one) => photo([one]))).cells[0]!;

describe('light through a cell in several photos', () => {
  it('is the mean, surer in what is each photo’s own, and no surer in what the table makes of it', () => {
    const both = merged(cell(0.5), cell(0.502));
    expect(both.through).toBeCloseTo(0.501, 12);
    expect(both.ownSigma).toBeCloseTo(0.012 / Math.SQRT2, 12);
    // 0.02² = 0.012² + 0.016²: the latter stays.
    expect(both.sigma).toBeCloseTo(Math.hypot(0.012 / Math.SQRT2, 0.016), 12);
    expect(both.doubts).toEqual([]);
    expect(merged(cell(0.5))).toEqual(cell(0.5));
  });
  it('leaves photos aside that doubt it, where another does not', () => {
    const lit = cell(0.8, { doubts: ['room-light'], sigma: 0.001, ownSigma: 0.001 });
    expect(merged(lit, cell(0.5))).toEqual(cell(0.5));
    expect(merged(lit, { ...lit, sigma: 0.002 }).doubts).toEqual(['room-light']);
  });
  it('is in doubt where photos contradict each other, by more than they may and more than matters', () => {
    expect(merged(cell(0.5), cell(0.6)).doubts).toEqual(['photos-disagree']);
    expect(merged(cell(0.5), cell(0.55)).doubts).toEqual([]);
    const sure = { sigma: 0.001, ownSigma: 0.001 };
    expect(merged(cell(0.5, sure), cell(0.509, sure)).doubts).toEqual([]);
    expect(merged(cell(0.5, sure), cell(0.512, sure)).doubts).toEqual(['photos-disagree']);
  });
  it('has the darkest tenth of the surest photo', () => {
    expect(merged(cell(0.5), cell(0.51, { sigma: 0.013, darkestTenth: 0.2 })).darkestTenth).toBe(0.2);
  });
});

describe('a card in several photos on a light table', () => {
  it('is every cell that any of them shows, bare stock’s mean, and the pinholes of the nearest', () => {
    const other = cell(0.3, { cellIndex: 0 });
    const all = mergeThrough([
      photo([cell(0.5)], 20, 0.004),
      photo([cell(0.5), other], 31, 0.006),
      photo([other], 25, 0.008),
    ]);
    expect(all.cells.map(({ cellIndex }) => cellIndex)).toEqual([0, 2]);
    expect(all.bareThrough).toBeCloseTo(0.006, 12);
    expect(all.pinholes.count).toBe(31);
    expect(() => mergeThrough([])).toThrow(RangeError);
  });
});

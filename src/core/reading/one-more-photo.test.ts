import { describe, expect, it } from 'vitest';
import type { CellReading, Doubt } from './observations';
import { oneMorePhoto } from './one-more-photo';

const cell = (cellIndex: number, doubts: readonly Doubt[], confidence = doubts.length > 0 ? 0.7 : 0.99) =>
  ({ cellIndex, doubts, confidence }) as CellReading;

describe('one more photo', () => {
  it('is the kind that most of the cells in doubt ask for, and says which they are', () => {
    const readings = [cell(5, ['reflection']), cell(2, ['far-from-bare-stock']), cell(3, ['clipped']), cell(4, [])];
    expect(oneMorePhoto(readings)).toEqual({ how: 'turned', cells: [2, 5] });
    expect(oneMorePhoto([cell(3, ['clipped']), cell(1, ['stock-clipped']), cell(0, ['blurred'])])).toEqual({
      how: 'darker',
      cells: [1, 3],
    });
    expect(oneMorePhoto([cell(0, ['off-frame', 'few-markers'])])).toEqual({ how: 'flat', cells: [0] });
    expect(oneMorePhoto([cell(0, ['photos-disagree'])])).toEqual({ how: 'to-decide', cells: [0] });
    expect(oneMorePhoto([cell(0, ['tones-unsure'])])).toEqual({ how: 'same-light', cells: [0] });
  });
  it('is none where the doubt lies in the piece, or where there is none', () => {
    expect(
      oneMorePhoto([cell(0, ['uneven']), cell(1, ['stock-varies']), cell(2, ['reflection', 'uneven'])]),
    ).toBeNull();
    expect(oneMorePhoto([cell(0, []), cell(1, ['reflection'], 0.98)])).toBeNull();
    expect(oneMorePhoto([cell(0, ['tones-unknown'])])).toBeNull();
    expect(oneMorePhoto([])).toBeNull();
  });
});

import { describe, expect, it } from 'vitest';
import type { FrameSheetRecord } from '../../records/frame-sheet';
import { inUse, printWords, sheetState } from './sheet-words';

const sheet = (id: number, change: Partial<FrameSheetRecord> = {}): FrameSheetRecord => ({
  id,
  name: 'Office',
  format: 'a5',
  ruleMm: 99.8,
  greys: null,
  scatter: null,
  measuredAt: null,
  createdAt: '2026-01-01T00:00:00.000Z',
  photos: 0,
  ...change,
});
const measured = {
  greys: { reflectances: [], contrastSigma: 0.01 },
  scatter: 0.0142,
  measuredAt: '2026-01-02T00:00:00.000Z',
};

describe('what is known of a printed sheet', () => {
  it('is said in a line', () => {
    expect(sheetState(sheet(1), false)).toBe('greys still to be measured');
    expect(sheetState(sheet(1, { photos: 1 }), false)).toBe(
      'one photo is here; one more, darker or brighter, measures the greys',
    );
    expect(sheetState(sheet(1, measured), true)).toBe('greys measured, alike to 1.4 %; in use');
    expect(sheetState(sheet(1, measured), false)).toBe('greys measured, alike to 1.4 %; a newer one is in use');
    expect(printWords(sheet(1))).toBe('A5, rule 99.8 mm');
    expect(printWords(sheet(1, { format: 'letter', ruleMm: 100 }))).toBe('Letter, rule 100 mm');
  });
  it('is used from the newest measured one of each paper on', () => {
    const all = [sheet(5), sheet(4, measured), sheet(3, { ...measured, format: 'letter' }), sheet(2, measured)];
    expect([...inUse(all)].sort()).toEqual([3, 4]);
    expect(inUse([sheet(1)]).size).toBe(0);
  });
});

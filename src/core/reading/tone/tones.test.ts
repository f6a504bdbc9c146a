import { describe, expect, it } from 'vitest';
import { areKnown } from './tones';

describe('whether light can be told from stored tones', () => {
  it('is known of photos that told it, and of cameras found true; not of one photo of a camera that nobody checked', () => {
    expect(areKnown({ told: 'by-two', bentBy: 0.4 })).toBe(true);
    expect(areKnown({ told: 'by-sheet', bentBy: 0.4, format: 'a5' })).toBe(true);
    expect(areKnown({ told: 'by-one-photo', cameraIsTrue: true })).toBe(true);
    expect(areKnown({ told: 'by-one-photo', cameraIsTrue: false })).toBe(false);
    expect(areKnown({ told: 'not-told', cameraIsTrue: false, why: 'sheet-not-flat' })).toBe(false);
    expect(areKnown({ told: 'not-told', cameraIsTrue: true, why: 'no-curve' })).toBe(true);
  });
});

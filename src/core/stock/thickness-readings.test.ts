import { describe, expect, it } from 'vitest';
import { QuantityError } from '../quantities/parse';
import { readThicknessReadings, thicknessReadingsText } from './thickness-readings';

describe('thickness readings as they are typed', () => {
  it('are apart by what people put between them, each with its own unit', () => {
    for (const text of [
      '3.08; 3.12; 0.1 in',
      '3.08, 3.12, 0.1 in',
      '3.08 3.12 0.1 in',
      '3.08\n3.12 mm\n0.1in',
      '3,08; 3,12; 0,1 in',
    ]) {
      const readings = readThicknessReadings(text);
      expect(readings, text).toHaveLength(3);
      [3.08, 3.12, 2.54].forEach((mm, index) => expect(readings[index], text).toBeCloseTo(mm, 12));
    }
    expect(readThicknessReadings(' ')).toEqual([]);
  });
  it('are refused where a part is no length, and none is passed over', () => {
    expect(() => readThicknessReadings('3.08; thick; 3.1')).toThrow(QuantityError);
  });
  it('come back as they were written', () => {
    expect(readThicknessReadings(thicknessReadingsText([3.08, 3.1, 12.005]))).toEqual([3.08, 3.1, 12.005]);
  });
});

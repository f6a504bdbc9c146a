import { describe, expect, it } from 'vitest';
import { cellOf } from '../../../tests/support/bare-layout';
import type { BurnSettings } from '../../core/card/settings';
import { rectRing } from '../../core/card/shape';
import type { CellReading } from '../../core/reading/observations';
import { numberOf, numberSize, saidSize } from './cell-number';

describe('the number on a cell', () => {
  it('is its tone, and of a single line its width', () => {
    const settings = { intervalMm: 0.1, direction: 'horizontal' } as BurnSettings;
    const cell = (height: number) =>
      cellOf(0, { shape: { do: 'sweep', area: [rectRing({ x: 0, y: 0, width: 4, height })] }, settings });
    const found = { lightness: 47.6, line: { widthMm: 0.1234 }, bars: null } as CellReading;
    expect([numberOf(cell(4), found), numberOf(cell(0.1), found)]).toEqual(['48', '0.123']);
  });
  it('is as high as a third of its cell, higher on low ones, and never wider than the cell', () => {
    expect(numberSize({ width: 4, height: 4 }, '48')).toBeCloseTo(1.36, 9);
    expect(numberSize({ width: 30, height: 1.6 }, '48')).toBeCloseTo(1.12, 9);
    for (const width of [2, 3, 4, 5]) expect(numberSize({ width, height: 5 }, '-0.009') * 0.62 * 6).toBeLessThan(width);
  });
  it('leaves room for what was said: small, and within the cell however much that is', () => {
    expect(saidSize({ width: 4, height: 5 }, 'D')).toBeCloseTo(0.96, 9);
    expect(saidSize({ width: 40, height: 50 }, 'D')).toBe(2);
    expect(saidSize({ width: 8, height: 8 }, 'D 7.84 7.83') * 0.62 * 11).toBeLessThan(8);
  });
});

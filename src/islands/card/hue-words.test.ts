import { describe, expect, it } from 'vitest';
import type { CellReading } from '../../core/reading/observations';
import { hueOfCard, hueWords } from './hue-words';

const SLATE = { bareLightness: 38, colour: '#5a5d61' };
const LEATHER = { bareLightness: 66, colour: '#c9a06c' };

describe('the hue of a cell', () => {
  it.each([
    [5, 0, 'reddish'],
    [4, 4, 'orange'],
    [0, 5, 'yellowish'],
    [-4, 4, 'greenish yellow'],
    [-5, 0, 'greenish'],
    [-4, -4, 'greenish blue'],
    [0, -5, 'bluish'],
    [4, -4, 'violet'],
  ] as const)('of a* %i and b* %i is %3$s', (a, b, name) => {
    expect(hueWords({ a, b, sigma: 0.5 }, SLATE)).toMatch(new RegExp(`^${name} by [\\d.]+ ± 1$`));
  });
  it('is greyer where it loses the stock’s own colour, which grey stock has not', () => {
    // Leather's own a* and b* are about 9 and 33.
    expect(hueWords({ a: -4, b: -11, sigma: 0.5 }, LEATHER)).toBe('greyer by 12 ± 1');
    expect(hueWords({ a: -4, b: -11, sigma: 0.5 }, SLATE)).toMatch(/^bluish/);
  });
  it('is the stock’s where it is not sure to differ, or could not be seen to', () => {
    expect(hueWords({ a: 0, b: 3, sigma: 1.3 }, SLATE)).toBe('as the stock’s ± 2.6');
    expect(hueWords({ a: 0, b: 1.9, sigma: 0.1 }, SLATE)).toBe('as the stock’s ± 0.2');
    expect(hueWords({ a: 0, b: 3.3, sigma: 1.3 }, SLATE)).toMatch(/^yellowish/);
    expect(hueWords(null, SLATE)).toBe('not looked at');
  });
});

describe('hue over a card', () => {
  const cell = (cellIndex: number, b: number) => ({ cellIndex, hue: { a: 0, b, sigma: 0.5 } }) as CellReading;
  it('is told by the cell that differs most', () => {
    expect(hueOfCard([cell(0, 0.2), cell(1, -4), cell(2, -7)], SLATE)).toEqual({
      words: 'bluish by 7 ± 1, 2 of 3 cells',
      cellIndex: 2,
    });
    expect(hueOfCard([cell(0, 0.2), { ...cell(1, 0), hue: null }], SLATE)).toBeNull();
  });
});

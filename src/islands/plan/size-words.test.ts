import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../../core/quantities/format';
import { sizeWords } from './size-words';

describe('the size of a card', () => {
  it('is its sides and what it takes of the stock', () => {
    expect(sizeWords({ widthMm: 40, heightMm: 30 }, DEFAULT_LIKED_UNITS)).toBe('40 × 30 mm, 12 cm²');
  });
  it('counts the places of one that stands in several, and not what lies between', () => {
    const station = (x: number, y: number) => ({
      name: '',
      cells: [],
      cardNumber: 0,
      box: { x, y, width: 25, height: 12 },
    });
    const layout = {
      widthMm: 225,
      heightMm: 112,
      stations: [station(0, 0), station(200, 0), station(0, 100), station(200, 100)],
    };
    expect(sizeWords(layout, DEFAULT_LIKED_UNITS)).toBe('4 places of 25 × 12 mm, 12 cm² of 225 × 112 mm');
  });
});

import { describe, expect, it } from 'vitest';
import { worthOf, worthWords } from './worth';
import { tuples } from '../../../tests/support/tuples';

const piece = { seconds: 600, areaMm2: 5000 };

describe('a test against the pieces made after it', () => {
  it('costs as much as the dearer of its time and its stock, and pays from that share of all pieces on', () => {
    expect(worthOf({ seconds: 120, areaMm2: 500 }, piece, 20)).toEqual({ inPieces: 0.2, breakEven: 0.01 });
    expect(worthOf({ seconds: 60, areaMm2: 2500 }, piece, 1)).toEqual({ inPieces: 0.5, breakEven: 0.5 });
    // How long a piece takes is not known before anything is: stock is.
    expect(worthOf({ seconds: 120, areaMm2: 500 }, { seconds: 0, areaMm2: 5000 }, 2)).toEqual({
      inPieces: 0.1,
      breakEven: 0.05,
    });
    for (const [of, count] of tuples([piece, 0], [{ seconds: 9, areaMm2: 0 }, 3], [piece, NaN]))
      expect(() => worthOf({ seconds: 1, areaMm2: 1 }, of, count)).toThrow(RangeError);
  });
  it('is said in pieces, with what to do where that is plain', () => {
    const words = (inPieces: number, count: number) => worthWords({ inPieces, breakEven: inPieces / count }, count);
    expect(words(0.2, 20)).toBe('As much as 0.2 of a piece: it pays if it saves one of your 20. Burn it.');
    expect(words(0.3, 1)).toBe(
      'As much as 0.3 of a piece: it pays if without it you would spoil yours more often than 1 in 3.',
    );
    expect(words(3, 12)).toBe('As much as 3 pieces: it pays if it saves more than 1 in 4 of your 12.');
    expect(words(0.98, 40)).toBe('As much as a piece: it pays if it saves one of your 40. Burn it.');
    expect(words(2, 2)).toBe('As much as 2 pieces, and you make only 2: burn a piece straight away and go by that.');
    expect(words(1.2, 1)).toBe('As much as a piece, and you make one: burn a piece straight away and go by that.');
    expect(words(4, 5)).toContain('more than 8 in 10 of your 5');
    expect(words(12, 60)).toMatch(/^As much as 12 pieces: /);
  });
});

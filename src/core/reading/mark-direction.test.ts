import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../bench/random';
import { markDirection, showsMark } from './mark-direction';

const cell = (deltaLightness: number, lightnessSigma = 0.5) => ({ deltaLightness, lightnessSigma });

describe('the direction of a card’s marks', () => {
  it('is the side of bare stock on which the marks stand, whatever the stock is called', () => {
    expect(markDirection([cell(-0.2), cell(-6), cell(-20)])).toBe('darker');
    expect(markDirection([cell(0.2), cell(6), cell(20)])).toBe('brighter');
    // A pale scorch beside strong dark marks does not turn them round.
    expect(markDirection([cell(4), cell(-15), cell(-30)])).toBe('darker');
  });
  it('is none where no mark rises above the card’s own noise, by sigma and by what an eye could tell', () => {
    expect(markDirection([])).toBeNull();
    expect(markDirection([cell(1.2), cell(-1.1), cell(0.3)])).toBeNull();
    expect(markDirection([cell(5, 2), cell(-4, 2)])).toBeNull();
    expect(markDirection([cell(-1.4, 0.05)])).toBeNull();
  });
  it('takes noise for marks on no more than one card in a hundred, however many cells it has', () => {
    const random = randomFrom('bare cards');
    const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const cards = 3000;
    let alarms = 0;
    for (let card = 0; card < cards; card++)
      if (markDirection(Array.from({ length: 42 }, () => cell(2 * normal(), 2))) !== null) alarms++;
    // Binomial: one in a hundred of 3000 is 30 +- 5.4.
    expect(alarms).toBeLessThan(30 + 4 * 5.4);
    expect(alarms).toBeGreaterThan(5);
  });
});

describe('whether a photo shows a mark', () => {
  it('is yes, no, or not to be told', () => {
    expect(showsMark(cell(-4))).toBe(true);
    expect(showsMark(cell(4))).toBe(true);
    expect(showsMark(cell(0.4))).toBe(false);
    expect(showsMark(cell(1.2))).toBeNull();
    expect(showsMark(cell(-8, 4))).toBeNull();
  });
});

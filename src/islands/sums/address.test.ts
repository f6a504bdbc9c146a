import { describe, expect, it } from 'vitest';
import { addressOf, sumsOf, USUAL_SUMS } from './address';

describe('the address of the sums', () => {
  it('holds everything that was typed, and nothing that is as usual', () => {
    expect(addressOf(USUAL_SUMS)).toBe('/sums');
    const typed = { ...USUAL_SUMS, size: 25.4, kerfSigma: 0.006, interval: 0.1, thickness: null };
    const address = addressOf(typed);
    expect(address).toBe('/sums?size=25.4&kerfSigma=0.006&thickness=&interval=0.1');
    expect(sumsOf(address.slice(5))).toEqual(typed);
  });
  it('is read as far as it goes: what is no number is as usual', () => {
    expect(sumsOf('?size=wide&kerf=0.2&colour=red')).toEqual({ ...USUAL_SUMS, kerf: 0.2 });
    expect(sumsOf('')).toEqual(USUAL_SUMS);
  });
});

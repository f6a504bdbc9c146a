import { describe, expect, it } from 'vitest';
import { bareThroughWords, throughDoubtWords, throughWords } from './through-words';

describe('what a light table shows, in words', () => {
  it('is a share of its light with twice its sigma, and what that says of the coat', () => {
    expect(throughWords({ through: 0.52, sigma: 0.03 }, false)).toBe('52 % ± 6 %: coat is left');
    expect(throughWords({ through: 0.918, sigma: 0.02 }, true)).toBe('92 % ± 4 %: the coat is off');
    expect(throughWords({ through: 0.9, sigma: 0.02 })).toBe('90 % ± 4 %: whether the coat is off is not told');
  });
  it('is why that is in doubt, and what to do', () => {
    expect(throughDoubtWords({ doubts: ['room-light', 'blurred'] })).toMatch(/lamps off.*; the photo shows too few/);
  });
  it('is how clean the coat between the cells is', () => {
    const holes = (count: number) => bareThroughWords({ bareThrough: 0.0046, pinholes: { count, areaMm2: 564 } });
    expect([0, 1, 5].map(holes)).toEqual([
      '0.46 %, no pinhole on 5.6 cm²',
      '0.46 %, one pinhole on 5.6 cm²',
      '0.46 %, 5 pinholes on 5.6 cm²',
    ]);
  });
});

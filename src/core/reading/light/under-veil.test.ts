import { describe, expect, it } from 'vitest';
import { lightnessUnderVeil } from './under-veil';

describe('a mark under a veil', () => {
  it('is read by the ratio that is left: worked by hand from the formulas of CIE 15:2004', () => {
    // L* 70: Y = (86/116)³ = 0.407494. L* 19: Y = (35/116)³ = 0.027468. (0.417494 / 0.037468) 0.027468 = 0.306068, L* 62.174.
    expect(lightnessUnderVeil(70, 19, 0.01)).toBeCloseTo(62.174, 2);
    // A dark mark on pale stock is lifted: L* 20 is Y 0.029891, L* 66 Y 0.353238. (0.039891 / 0.363238) 0.353238 = 0.038792, L* 23.268.
    expect(lightnessUnderVeil(20, 66, 0.01)).toBeCloseTo(23.268, 2);
  });
  it('is read as it is under none, and where it is as light as its stock', () => {
    expect(lightnessUnderVeil(70, 19, 0)).toBeCloseTo(70, 9);
    expect(lightnessUnderVeil(40, 40, 0.02)).toBeCloseTo(40, 9);
  });
});

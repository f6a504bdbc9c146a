import { describe, expect, it } from 'vitest';
import { lightnessOfLuminance } from '../color/lab';
import { luminance, srgbToLinear } from '../color/srgb';
import { stockLinearColour } from './stock-colour';

describe('the linear colour of bare stock', () => {
  it('is as light as its L* says, in the ratios of its colour', () => {
    const [red, green, blue] = stockLinearColour({ bareLightness: 50, colour: '#c8a06e' });
    expect(lightnessOfLuminance(luminance(red, green, blue))).toBeCloseTo(50, 9);
    expect(red / green).toBeCloseTo(srgbToLinear(200 / 255) / srgbToLinear(160 / 255), 9);
    expect(blue / green).toBeCloseTo(srgbToLinear(110 / 255) / srgbToLinear(160 / 255), 9);
  });
  it('has something of every channel, so that none is divided by nothing', () => {
    const black = stockLinearColour({ bareLightness: 5, colour: '#000000' });
    expect(lightnessOfLuminance(luminance(...black))).toBeCloseTo(5, 9);
    expect(new Set(black).size).toBe(1);
    for (const channel of stockLinearColour({ bareLightness: 60, colour: '#00ff00' }))
      expect(channel).toBeGreaterThan(0);
  });
});

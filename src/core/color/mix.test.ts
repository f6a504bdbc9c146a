import { interpolate, formatHex } from 'culori';
import { describe, expect, it } from 'vitest';
import { mixColours } from './mix';

describe('mixed colours', () => {
  it('begin with the first and end with the second', () => {
    expect(mixColours('#c79b6b', '#1a2b3c', 0)).toBe('#c79b6b');
    expect(mixColours('#c79b6b', '#1a2b3c', 1)).toBe('#1a2b3c');
  });
  it('are mixed in linear light, as a reference library mixes them', () => {
    for (const share of [0.25, 0.5, 0.8]) {
      const reference = formatHex(interpolate(['#c79b6b', '#1a2b3c'], 'lrgb')(share));
      const bytes = (hex: string): number[] => [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));
      const [ours, theirs] = [bytes(mixColours('#c79b6b', '#1a2b3c', share)), bytes(reference)];
      ours.forEach((byte, index) => expect(Math.abs(byte - theirs[index]!), `${share}`).toBeLessThanOrEqual(1));
    }
    // Half of white in linear light is far lighter than half of its byte.
    expect(mixColours('#000000', '#ffffff', 0.5)).toBe('#bcbcbc');
  });
});

import type { Tile } from '../../src/core/reading/light/bare-tiles';

/** A bare tile of gray stock, by the logarithm of its luminance. */
export function tileOf(x: number, y: number, logLuminance: number): Tile {
  const value = Math.exp(logLuminance);
  return { x, y, red: value, green: value, blue: value, logLuminance };
}

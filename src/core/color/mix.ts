import { byteOfLinear, hexColour, parseHexColour, srgbToLinear } from './srgb';

/** Mixes two colours "#rrggbb" in linear light: `share` 0 gives the first, 1 the second. */
export function mixColours(from: string, to: string, share: number): string {
  const a = parseHexColour(from).map((byte) => srgbToLinear(byte / 255));
  const b = parseHexColour(to).map((byte) => srgbToLinear(byte / 255));
  const mixed = a.map((value, index) => byteOfLinear(value + (b[index]! - value) * share));
  return hexColour([mixed[0]!, mixed[1]!, mixed[2]!]);
}

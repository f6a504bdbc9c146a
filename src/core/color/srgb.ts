/**
 * sRGB transfer function, encoded 0..1 to linear light 0..1. Source: IEC 61966-2-1:1999.
 */
export function srgbToLinear(encoded: number): number {
  return encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4;
}

/** Inverse of `srgbToLinear`; values outside 0..1 are clamped. Source: IEC 61966-2-1:1999. */
export function linearToSrgb(linear: number): number {
  const value = linear < 0 ? 0 : linear > 1 ? 1 : linear;
  return value <= 0.0031308 ? value * 12.92 : 1.055 * value ** (1 / 2.4) - 0.055;
}

/** `srgbToLinear` for the 256 bytes, for loops over pixels. */
export const LINEAR_OF_BYTE: Float32Array = Float32Array.from({ length: 256 }, (_, byte) => srgbToLinear(byte / 255));

const ENCODE_STEPS = 4095;
const ENCODED_BYTE = Uint8Array.from({ length: ENCODE_STEPS + 1 }, (_, step) =>
  Math.round(linearToSrgb((step / ENCODE_STEPS) ** 2) * 255),
);

/** Linear light to an sRGB byte by a table over the square root, exact to half a byte step; clamps outside 0..1. */
export function byteOfLinear(linear: number): number {
  if (!(linear > 0)) return 0;
  if (linear >= 1) return 255;
  // Not the rounding function: for what is above nought this is the same, and quicker by half. Every pixel of a picture comes here.
  return ENCODED_BYTE[(Math.sqrt(linear) * ENCODE_STEPS + 0.5) | 0]!;
}

/** Relative luminance weights of linear sRGB (Rec. 709 primaries, D65). Source: IEC 61966-2-1:1999. */
export const LUMINANCE_RED = 0.2126;
export const LUMINANCE_GREEN = 0.7152;
export const LUMINANCE_BLUE = 0.0722;

/** Relative luminance 0..1 of linear sRGB. */
export function luminance(red: number, green: number, blue: number): number {
  return LUMINANCE_RED * red + LUMINANCE_GREEN * green + LUMINANCE_BLUE * blue;
}

export type Rgb = readonly [red: number, green: number, blue: number];

/** "#c8a06e" to bytes. Throws RangeError for anything but six hexadecimal digits after "#". */
export function parseHexColour(hex: string): Rgb {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!match) throw new RangeError(`invalid colour: ${hex}`);
  return [parseInt(match[1]!, 16), parseInt(match[2]!, 16), parseInt(match[3]!, 16)];
}

export function hexColour([red, green, blue]: Rgb): string {
  return `#${[red, green, blue]
    .map((byte) =>
      Math.round(Math.min(255, Math.max(0, byte)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

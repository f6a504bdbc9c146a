/** sRGB and L* written out anew from IEC 61966-2-1 and CIE 15, so that a slip in the product's own cannot hide here. */
export type Linear = readonly [red: number, green: number, blue: number];

export const decoded = (share: number): number => (share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4);
export const encoded = (linear: number): number =>
  linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;

export const luminanceOf = ([red, green, blue]: Linear): number => 0.2126 * red + 0.7152 * green + 0.0722 * blue;

export const luminanceAt = (lightness: number): number =>
  lightness > 8 ? ((lightness + 16) / 116) ** 3 : (lightness * 27) / 24389;
/** Linear colour of "#rrggbb", made as light as a given L*. */
export function linearOf(hex: string, lightness: number): Linear {
  const plain = [1, 3, 5].map((at) => decoded(parseInt(hex.slice(at, at + 2), 16) / 255)) as unknown as Linear;
  const share = luminanceAt(lightness) / luminanceOf(plain);
  return [plain[0] * share, plain[1] * share, plain[2] * share];
}

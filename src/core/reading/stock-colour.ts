import { luminanceOfLightness } from '../color/lab';
import { luminance, parseHexColour, srgbToLinear } from '../color/srgb';

/** The stock's own look when bare. */
export interface StockLook {
  readonly bareLightness: number;
  readonly colour: string;
}

/** Linear sRGB of the stock's colour, scaled so that its luminance is that of the stock's L*. */
export function stockLinearColour(stock: StockLook): [number, number, number] {
  const linear = parseHexColour(stock.colour).map((byte) => Math.max(0.002, srgbToLinear(byte / 255))) as [
    number,
    number,
    number,
  ];
  const scale = luminanceOfLightness(stock.bareLightness) / luminance(...linear);
  return [linear[0] * scale, linear[1] * scale, linear[2] * scale];
}

import { byteOfLinear, parseHexColour, srgbToLinear, type Rgb } from '../../core/color/srgb';

/** A ramp has one colour more than steps. */
export const RAMP_STEPS = 64;

/** Colours between two ends, in even steps of the light they send. */
export function rampOf(from: string, to: string): Rgb[] {
  const [a, b] = [from, to].map((hex) => parseHexColour(hex).map((byte) => srgbToLinear(byte / 255) ** (1 / 3))) as [
    number[],
    number[],
  ];
  return Array.from({ length: RAMP_STEPS + 1 }, (_, step) => {
    const [red, green, blue] = a.map((value, channel) =>
      byteOfLinear((value + ((b[channel]! - value) * step) / RAMP_STEPS) ** 3),
    );
    return [red!, green!, blue!];
  });
}

import { srgbToLinear } from '../../color/srgb';
import type { ToneCurve } from './tone-spline';

/** What is told of a bend is less its own doubt: so many sigmas. */
const SURELY = 2;

/** A camera that misjudges no tone by more than this stores light as sRGB has it, as far as two photos can tell. */
export const TRUE_TO_LIGHT = 0.12;

/** What a camera did to tones, and how to undo it. */
export interface UndoneTones {
  /** Linear light of each stored byte: what the brightest tone that was seen is as sRGB has it. */
  readonly linearOfByte: Float32Array;
  /** What the curve's logarithm of light is less than that of `linearOfByte`. */
  readonly white: number;
  /** Standard deviation of the logarithm of a ratio of two lights, each as `linearOfByte` has it. */
  sigmaOfRatio(light: number, other: number): number;
  /** The most by which the light of a tone is sure to have been misjudged against its brightest, as a share. */
  readonly bentBy: number;
}

/** How to undo what a tone curve did. */
export function tonesOf(curve: ToneCurve): UndoneTones {
  const [least, most] = curve.range;
  const [dark, bright] = curve.firstRange;
  const white = Math.log(srgbToLinear(most)) - curve.lightAt(most);
  const lightOf = (byte: number): number => (byte === 0 ? 0 : Math.exp(curve.lightAt(byte / 255) + white));
  const linearOfByte = Float32Array.from({ length: 256 }, (_, byte) => lightOf(byte));
  const storedOf = (light: number): number => {
    let [low, high] = [least, most];
    for (let turn = 0; turn < 20; turn++) {
      const middle = (low + high) / 2;
      if (Math.exp(curve.lightAt(middle) + white) < light) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  };
  const off = (tone: number): number => {
    const by = Math.abs(curve.lightAt(tone) + white - Math.log(srgbToLinear(tone)));
    return Math.expm1(Math.max(0, by - SURELY * curve.sigmaBetween(tone, most)));
  };
  const tones = Array.from({ length: 101 }, (_, k) => dark + ((bright - dark) * k) / 100);
  return {
    linearOfByte,
    white,
    sigmaOfRatio: (light, other) => curve.sigmaBetween(storedOf(light), storedOf(other)),
    bentBy: Math.max(...tones.map(off)),
  };
}

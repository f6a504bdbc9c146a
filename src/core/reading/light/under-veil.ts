import { lightnessOfLuminance, luminanceOfLightness } from '../../color/lab';

/**
 * The L* that a mark is read to have when so much light was added to it and to bare stock alike, as a share of what white stock would send, and
 * nothing tells of it: stock of luminance b and a mark of m show the ratio (m + a) / (b + a), which is taken for m / b.
 *
 * Example: a mark of L* 70 on stock of L* 19 under a hundredth of white is read as L* 62.2.
 */
export function lightnessUnderVeil(markLightness: number, bareLightness: number, share: number): number {
  const [mark, bare] = [luminanceOfLightness(markLightness), luminanceOfLightness(bareLightness)];
  return lightnessOfLuminance((bare * (mark + share)) / (bare + share));
}

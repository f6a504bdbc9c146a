import type { Layout } from '../card/layout';
import { findMarkersOfCard } from './find-markers-of-card';
import { locateCard } from './locate-card';
import type { Rectified } from './rectify';
import type { TonesBySheet, SheetFault } from './sheet/sheet-tones';
import { straightened } from './straighten';
import { undoneTones, type SecondExposure } from './tone/second-exposure';
import type { Tones } from './tone/tones';
import type { UndoneTones } from './tone/undone-tones';

/**
 * How much the contrast of a camera of which nothing is known may differ from one: the standard deviation of the logarithm of a ratio of two
 * lights, for each power of e between them. From memory, without a source: phones steepen tones below white by a third to a half.
 */
export const UNKNOWN_CONTRAST = 0.3;
/** Less light than this, as a share of full scale, is the same to every camera: black. */
const DARKEST = 0.001;

/** What is known of what a camera makes of tones. */
export interface TonesOfPhoto {
  readonly tones: Tones;
  readonly undone: UndoneTones | null;
  /** How sure it is that the ratio of two lights is what the photo has: as a logarithm. */
  sigmaOfRatio(light: number, other: number): number;
}

/** What a second exposure of a card, or a frame sheet beside it, tells of the camera's tones; the second exposure where both do. */
export function tonesOfPhoto(
  first: Rectified,
  layout: Layout,
  cameraIsTrue: boolean,
  second: SecondExposure | null,
  bySheet: TonesBySheet | { readonly fault: SheetFault } | null,
): TonesOfPhoto {
  const byTwo = second && tonesByTwo(first, layout, second);
  if (byTwo && 'undone' in byTwo) return toldBy(byTwo.undone, { told: 'by-two', bentBy: byTwo.undone.bentBy });
  if (bySheet && 'undone' in bySheet) {
    const { undone, format } = bySheet;
    return toldBy(undone, { told: 'by-sheet', bentBy: undone.bentBy, format });
  }
  const fault = byTwo ?? bySheet;
  return {
    tones: fault ? { told: 'not-told', cameraIsTrue, why: fault.fault } : { told: 'by-one-photo', cameraIsTrue },
    undone: null,
    sigmaOfRatio: (light, other) =>
      cameraIsTrue ? 0 : UNKNOWN_CONTRAST * Math.abs(Math.log(Math.max(DARKEST, light) / Math.max(DARKEST, other))),
  };
}

const toldBy = (undone: UndoneTones, tones: Tones): TonesOfPhoto => ({
  tones,
  undone,
  sigmaOfRatio: (light, other) => undone.sigmaOfRatio(light, other),
});

function tonesByTwo(
  first: Rectified,
  layout: Layout,
  second: SecondExposure,
): { readonly undone: UndoneTones } | { readonly fault: 'not-found' | 'no-curve' } {
  const location = locateCard(layout, findMarkersOfCard(second.photo, layout));
  if (location.found !== 'card') return { fault: 'not-found' };
  const undone = undoneTones(first, straightened(second.photo, location.toPhoto, layout), second);
  return undone ? { undone } : { fault: 'no-curve' };
}

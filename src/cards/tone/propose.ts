import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeTones } from '../../core/card/propose-tones';
import { proposeSetup } from '../../core/card/work-setup';
import { TONE_VERSION, type TonePlan } from './plan';

const STEPS = 16;
const REPEATS = 2;
const PATCH_MM = 3.2;
const GAP_MM = 0.8;

/**
 * Sixteen greys, each twice, from just above the floor up to the ceiling, as they were found or as is usual; where a table is kept for these settings,
 * the same wedge corrected by it, which proves it. Throws RangeError where the wavelength cannot mark.
 */
export function proposeTone(known: Known): Proposal<TonePlan> {
  const { tones, reasons } = proposeTones(known);
  const frame = proposeFrame(known.pairing);
  return {
    plan: {
      version: TONE_VERSION,
      ...tones,
      steps: STEPS,
      repeats: REPEATS,
      patchMm: PATCH_MM,
      gapMm: GAP_MM,
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      corrected: tones.table
        ? 'a table is kept for these settings: this wedge proves it'
        : 'no table is kept for these settings yet: this wedge makes one',
      steps: 'each grey twice, in mirrored places: light and grain that change evenly across the card cancel',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

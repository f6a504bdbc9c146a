import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { fastestCutMmPerS, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { CUT_CHECK_VERSION, type CutCheckPlan } from './plan';

const SIZE_MM = 6;
const GAP_MM = 2;
/** Of the way from what just comes through to what is laid down, in the logarithm: there a disc tells most. */
const TELLS = [0.25, 0.6] as const;
/** Where nothing is kept, a cut is foretold with this much more than comes through. */
const FORETOLD = 1.4;

const hundredth = (share: number): number => Math.round(share * 100) / 100;

/** Three discs around the cut that is kept, stale or not. Throws RangeError for stock that this source does not cut. */
export function proposeCutCheck(known: Known): Proposal<CutCheckPlan> {
  const kept = factOf(known.facts, 'cut');
  const foretold = proposedCut(known);
  const cut = kept ? kept.value.settings : foretold.cut;
  const over = kept ? kept.value.laidDown / kept.value.comesThrough : FORETOLD;
  const least = cut.speedMmPerS / fastestCutMmPerS(known.pairing.machine);
  const [low, middle] = TELLS.map((way) => Math.min(0.99, Math.max(hundredth(over ** (way - 1)), hundredth(least))));
  const frame = proposeFrame(known.pairing);
  return {
    plan: {
      version: CUT_CHECK_VERSION,
      shares: [low!, middle!, 1],
      sizeMm: SIZE_MM,
      gapMm: GAP_MM,
      cut,
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      'cut.speedMmPerS': kept ? 'the cut that is kept' : foretold.reasons['cut.speedMmPerS']!,
      size: 'with the kept cut, and with less down to little more than just came through: what still drops tells how much it has in hand',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { fastestCutMmPerS, LEAST_CUT_SPEED, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { formatSpeed } from '../../core/quantities/format';
import { PASSES_VERSION, type PassesPlan } from './plan';

const MOST = 5;
const REPEATS = 3;
const SIZE_MM = 9;
const TIP_DEG = 30;
const GAP_MM = 2;

const tenth = (mmPerS: number): number => Math.floor(mmPerS * 10) / 10;

/**
 * Triangles in one to five passes, three of each, all with the energy of the cut that was kept or foretold. Throws RangeError for stock that this
 * source does not cut, or not in this thickness.
 */
export function proposePasses(known: Known): Proposal<PassesPlan> {
  const { machine } = known.pairing;
  const { cut, reasons } = proposedCut(known);
  // As slow as all of its energy takes in one pass.
  const once = tenth(cut.speedMmPerS / cut.passes);
  const most = Math.max(2, Math.min(MOST, Math.floor(fastestCutMmPerS(machine) / once)));
  const frame = proposeFrame(known.pairing);
  return {
    plan: {
      version: PASSES_VERSION,
      most,
      repeats: REPEATS,
      sizeMm: SIZE_MM,
      tipDeg: TIP_DEG,
      gapMm: GAP_MM,
      cut: { ...cut, passes: 1, speedMmPerS: once },
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      'cut.speedMmPerS': `one pass lays down all of it at ${formatSpeed(once, machine.likedUnits)}${once < LEAST_CUT_SPEED ? ', which is slow enough to char' : ''}; two go twice as fast, and so on`,
      most:
        most < MOST
          ? 'more would go faster than half the head’s top speed'
          : 'more than five are seldom worth their time',
      repeats: 'one that drops may be luck',
      size: 'sharp tips show what dwelling burns away',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

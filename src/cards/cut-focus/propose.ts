import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { fastestCutMmPerS, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { formatLength } from '../../core/quantities/format';
import { thicknessOf } from '../../core/stock/stock';
import { CUT_FOCUS_VERSION, type CutFocusPlan } from './plan';

const SIZE_MM = 8;
const GAP_MM = 2;
const REPEATS = 3;
/** What is thinner is cut with the focus on its face, whichever way. */
const LEAST_MM = 1.5;

const hundredth = (mmPerS: number): number => Math.floor(mmPerS * 100) / 100;

/**
 * Three squares for each way to focus, with the cut that was kept or foretold; stepped in two passes at the least, each way in as many. Throws
 * RangeError for stock that this source does not cut, or that is too thin for it to matter.
 */
export function proposeCutFocus(known: Known): Proposal<CutFocusPlan> {
  const { machine, stock } = known.pairing;
  const { cut, reasons } = proposedCut(known);
  const thickness = thicknessOf(stock);
  if (thickness.meanMm < LEAST_MM)
    throw new RangeError('invalid pairing: in a sheet under 1.5 mm it does not matter where the focus stands');
  const passes = Math.max(2, cut.passes);
  const speedMmPerS = hundredth((cut.speedMmPerS * passes) / cut.passes);
  const steps = machine.automaticFocus && speedMmPerS <= fastestCutMmPerS(machine);
  const half = formatLength(Math.round(thickness.meanMm * 5) / 10, machine.likedUnits, 2);
  const frame = proposeFrame(known.pairing);
  return {
    plan: {
      version: CUT_FOCUS_VERSION,
      steps,
      repeats: REPEATS,
      sizeMm: SIZE_MM,
      gapMm: GAP_MM,
      thicknessMm: Math.round(thickness.meanMm * 1000) / 1000,
      cut: { ...cut, focusOffsetMm: 0, ...(steps && { passes, speedMmPerS }) },
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      steps: steps
        ? 'the sharp point goes down with the cut: each pass in the middle of what it takes'
        : 'this machine does not focus by itself between passes',
      thicknessMm: `the middle stands half of it below the face: set the focus on a board of ${half} that lies on the bed beside the sheet`,
      size: 'squares that drop, and are measured at both faces: how straight their edge is',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

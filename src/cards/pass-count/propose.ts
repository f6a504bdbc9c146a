import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { cutConstants, fastestCutMmPerS, LEAST_CUT_SPEED, roundedCutSpeed } from '../../core/card/propose-cut';
import { MOST_COUNTED } from '../../core/card/usual-asks';
import { proposeSetup } from '../../core/card/work-setup';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatSpeed, plainNumber } from '../../core/quantities/format';
import { cutEnergy, cutThroughJPerMm } from '../../core/stock/cutting';
import { familyOf } from '../../core/stock/families';
import { PASS_COUNT_VERSION, type PassCountPlan } from './plan';

/** It should drop in about as many passes: fewer tell it only roughly, more take long. */
const EXPECTED_PASSES = 4;
/** A long outline meets more of what holds a part up. */
const SIZE_MM = 16;

/** One square, in passes of a quarter of what should come through. Throws RangeError for stock that this source does not cut. */
export function proposePassCount(known: Known): Proposal<PassCountPlan> {
  const { machine, stock } = known.pairing;
  const liked = machine.likedUnits;
  const family = familyOf(stock.family);
  const through = cutThroughJPerMm(machine, stock);
  if (through === null) throw new RangeError(`invalid pairing: ${family.name} is not cut through by this source`);
  const { settings, reasons } = cutConstants(known, 'cut');
  const frame = proposeFrame(known.pairing);
  const wanted = (deliveredPowerW(machine, machine.powerCap) * EXPECTED_PASSES) / through;
  const speedMmPerS = Math.max(LEAST_CUT_SPEED, roundedCutSpeed(Math.min(fastestCutMmPerS(machine), wanted)));
  return {
    plan: {
      version: PASS_COUNT_VERSION,
      sizeMm: SIZE_MM,
      mostPasses: MOST_COUNTED,
      cut: { ...settings, passes: 1, speedMmPerS },
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      'cut.speedMmPerS':
        speedMmPerS > wanted
          ? `no slower than ${formatSpeed(LEAST_CUT_SPEED, liked)}, below which a cut chars`
          : `about ${EXPECTED_PASSES} passes should drop it: ${plainNumber(through, 2)} J/mm in all come through ${family.name.toLowerCase()} as thick as this, ${cutEnergy(stock.family).origin}`,
      mostPasses: 'more than twice as many as expected; stop the burn when it has dropped',
      sizeMm: 'a long outline meets more of what holds a part up',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

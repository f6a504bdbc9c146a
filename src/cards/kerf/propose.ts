import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatLength, plainNumber } from '../../core/quantities/format';
import { cutEnergy, cutThroughJPerMm } from '../../core/stock/cutting';
import { familyOf } from '../../core/stock/families';
import { thicknessOf } from '../../core/stock/stock';
import { cutConstants, cutPasses, fastestCutMmPerS, passesReason, roundedCutSpeed } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { KERF_VERSION, type KerfPlan } from './plan';

/** A cut is proposed with this much more than what is expected to just come through. */
const MARGIN = 1.4;
/**
 * Three squares of 20 mm cut with the setting that was kept, or where none was at what should come through with margin, which is a prediction.
 * Throws RangeError for stock that this source does not cut, or not in this thickness.
 */
export function proposeKerf({ pairing, facts }: Known): Proposal<KerfPlan> {
  const { machine, stock } = pairing;
  const through = cutThroughJPerMm(machine, stock);
  const family = familyOf(stock.family);
  if (through === null) throw new RangeError(`invalid pairing: ${family.name} is not cut through by this source`);
  const fallen = factOf(facts, 'burnedThrough');
  const frame = proposeFrame(pairing);
  const wanted = through * MARGIN;
  const constants = cutConstants(pairing, 'cut');
  const kept = factOf(facts, 'cut');
  const cut = kept && kept.stale.length === 0 ? kept.value.settings : null;
  const passes = cut?.passes ?? cutPasses(pairing, wanted);
  const speed = Math.min(fastestCutMmPerS(machine), (deliveredPowerW(machine, machine.powerCap) * passes) / wanted);
  const sizeMm = Math.min(20, Math.floor((Math.min(stock.sheetDepthMm, stock.sheetWidthMm) - 20) / 2));
  return {
    plan: {
      version: KERF_VERSION,
      sizeMm: Math.max(8, sizeMm),
      count: Math.max(8, sizeMm) * 3 + 20 > stock.sheetWidthMm ? 2 : 3,
      gapMm: 3,
      cut: cut ?? { ...constants.settings, passes, speedMmPerS: roundedCutSpeed(speed) },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...(cut
        ? { 'cut.speedMmPerS': `as kept: what drops ${plainNumber(100 * kept!.value.certainty)} of 100 parts` }
        : {
            ...constants.reasons,
            'cut.speedMmPerS': `${plainNumber(wanted, 2)} J/mm: 1.4 times what comes through ${formatLength(thicknessOf(stock).meanMm, machine.likedUnits, 3)} of ${family.name.toLowerCase()}, ${cutEnergy(stock.family).origin}${fallen && fallen.stale.length === 0 ? `; lines of ${plainNumber(fallen.value.lineJPerMm, 2)} J/mm went through where they lay ${formatLength(fallen.value.intervalMm, machine.likedUnits, 2)} apart` : ''}`,
            'cut.passes': passesReason(passes, pairing),
          }),
      size: 'three squares: their scatter is the kerf’s own',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

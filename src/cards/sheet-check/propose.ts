import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeFill } from '../../core/card/propose-fill';
import { proposeSetup } from '../../core/card/work-setup';
import { formatPower, formatSpeed } from '../../core/quantities/format';
import { SHEET_CHECK_VERSION, type SheetCheckPlan } from './plan';

const STEP = 0.08;
const PATCH_MM = 3.2;
const GAP_MM = 1;

/**
 * Six patches around the engraving setting that was kept, everything as it has it; around a guess where none was. Throws RangeError where the wavelength
 * cannot mark.
 */
export function proposeSheetCheck(known: Known): Proposal<SheetCheckPlan> {
  const { pairing, facts } = known;
  const { machine } = pairing;
  const kept = factOf(facts, 'engrave');
  const { settings, reasons } = proposeFill(known);
  const own = kept?.value.settings;
  const constants = own ? { ...own, powerFraction: Math.min(own.powerFraction, machine.powerCap) } : settings;
  const frame = proposeFrame(pairing);
  const why = own
    ? Object.fromEntries(
        Object.keys(constants).map((field) => [`constants.${field}`, 'as the setting that is checked']),
      )
    : reasons;
  return {
    plan: {
      version: SHEET_CHECK_VERSION,
      stepFraction: STEP,
      patchMm: PATCH_MM,
      gapMm: GAP_MM,
      constants,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...why,
      stepFraction: own
        ? `around the kept ${formatPower(own.powerFraction)} at ${formatSpeed(own.speedMmPerS, machine.likedUnits)}: two steps reach as far as sheets usually differ`
        : 'no engraving setting is kept yet: this checks a guess, burn a grid first',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { kerfToGoBy, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { formatLength } from '../../core/quantities/format';
import { familyOf } from '../../core/stock/families';
import { thicknessOf } from '../../core/stock/stock';
import { SLOTS_VERSION, type SlotsPlan } from './plan';

/** Fits of most stock lie within this, once the kerf is made up for (common practice). */
const CLEARANCE = { from: -0.2, to: 0.25 } as const;
const SLOTS = 10;
/** After a comb was kept the next one reaches this far past what it found. */
const BEYOND_MM = 0.06;
const LENGTH_MM = 12;
/** A slot's walls must not give way to the sheet that is pushed in. */
const LEAST_GAP_MM = 5;

/** What is thinner bends before it goes into anything. */
const LEAST_SHEET_MM = 1;

const hundredth = (mm: number): number => Math.round(mm * 100) / 100;

/**
 * Ten slots around the measured thickness, cut with the setting that was kept, drawn narrower by the kerf. Throws RangeError for
 * stock that this source does not cut, or not in this thickness, and for what gives way when it is pushed.
 */
export function proposeSlots({ pairing, facts }: Known): Proposal<SlotsPlan> {
  const { machine, stock } = pairing;
  const { cut, reasons } = proposedCut({ pairing, facts });
  const kerf = kerfToGoBy({ pairing, facts });
  const fit = factOf(facts, 'fit');
  const thickness = thicknessOf(stock);
  if (thickness.meanMm < LEAST_SHEET_MM)
    throw new RangeError('invalid pairing: sheets under a millimetre bend, and are not stuck through a slot on edge');
  const family = familyOf(stock.family);
  if (family.limp)
    throw new RangeError(
      `invalid pairing: ${family.name.toLowerCase()} gives way, and is not pushed through a slot on edge`,
    );
  const ends = fit
    ? { from: fit.value.fromMm.press - BEYOND_MM, to: fit.value.fromMm.loose + BEYOND_MM }
    : { from: CLEARANCE.from - kerf.xMm, to: CLEARANCE.to - kerf.xMm };
  const madeUp = `drawn narrower by ${formatLength(kerf.xMm, machine.likedUnits, 3)}, ${kerf.origin}`;
  const frame = proposeFrame(pairing);
  return {
    plan: {
      version: SLOTS_VERSION,
      thicknessMm: Math.round(thickness.meanMm * 1000) / 1000,
      coatMm: 0,
      clearance: { from: hundredth(ends.from), to: hundredth(ends.to), count: SLOTS, spacing: 'even' },
      // Clearly longer than wide, however thick the sheet.
      lengthMm: Math.max(LENGTH_MM, Math.ceil(1.5 * thickness.meanMm)),
      gapMm: Math.max(LEAST_GAP_MM, Math.ceil(thickness.meanMm)),
      cut,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      thicknessMm:
        thickness.origin === 'measured'
          ? 'as measured'
          : 'the label’s: measure the sheet, labels are off by up to a tenth of a millimetre and more',
      'clearance.from': fit
        ? 'a little tighter than what was pressed last time'
        : `tighter than most stock goes in; ${madeUp}`,
      'clearance.to': fit ? 'a little wider than what was loose last time' : 'wider than what rattles',
      size: 'an offcut of the sheet is pushed into each slot, on edge',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

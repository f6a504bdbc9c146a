import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import type { Stock } from '../../core/stock/stock';
import { KERF_VERSION, sizesOf, type KerfPlan } from './plan';

/** Calipers still stand well on a square of this size, and in the hole it leaves. */
const SMALL_MM = 8;

/** Around the squares, for the frame's lettering and a hand. */
const ASIDE_MM = 20;

/** Two sizes, each twice, or what the sheet leaves of that: rather two sizes once than one twice. */
function squaresFor({ sheetWidthMm, sheetDepthMm }: Stock): Pick<KerfPlan, 'sizeMm' | 'smallMm' | 'count' | 'gapMm'> {
  const room = Math.floor((Math.min(sheetDepthMm, sheetWidthMm) - ASIDE_MM) / 2);
  const sizeMm = Math.max(SMALL_MM, Math.min(20, room));
  const small = sizeMm >= 1.5 * SMALL_MM ? SMALL_MM : null;
  const tries = [
    { smallMm: small, count: 2 },
    { smallMm: small, count: 1 },
    { smallMm: null, count: 1 },
  ].map((one) => ({ sizeMm, gapMm: 3, ...one }));
  const widthOf = (plan: (typeof tries)[number]): number =>
    sizesOf(plan).reduce((sum, size) => sum + size + plan.gapMm, ASIDE_MM - plan.gapMm);
  return tries.find((one) => widthOf(one) <= sheetWidthMm) ?? tries.at(-1)!;
}

/**
 * Two squares of 20 mm and two of 8 cut with the setting that was kept, or where none was at what should come through with margin, which is a prediction.
 * Throws RangeError for stock that this source does not cut, or not in this thickness.
 */
export function proposeKerf({ pairing, facts }: Known): Proposal<KerfPlan> {
  const { cut, reasons } = proposedCut({ pairing, facts });
  const frame = proposeFrame(pairing);
  return {
    plan: {
      version: KERF_VERSION,
      ...squaresFor(pairing.stock),
      cut,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      size: 'two sizes, each twice: what differs with the size is the axis, what does not is the kerf',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

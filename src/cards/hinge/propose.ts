import { axisValues } from '../../core/card/axis';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { kerfToGoBy, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { thicknessOf } from '../../core/stock/stock';
import { HINGE_VERSION, USUAL_CROSSED, type HingePlan } from './plan';

/** Pitches that people start from (common practice), and what stands between crossed slits. */
const PITCHES = { rows: { from: 1.75, to: 4, count: 3, spacing: 'ratio' }, crossed: USUAL_CROSSED.between } as const;
const SLITS = { rows: { slitMm: 18, bridgeMm: 2 }, crossed: { slitMm: USUAL_CROSSED.slitMm, bridgeMm: 2 } } as const;
/** Strips of either pattern on a card of both. */
const EACH = 2;
/** Strips from the ones that tell most to the ones that cut soonest; the first that keeps within the limit is proposed. */
const SIZES = [
  { count: 3, slitMm: 18, widthMm: 22, fieldMm: 14 },
  { count: 3, slitMm: 14, widthMm: 18, fieldMm: 10 },
  { count: 2, slitMm: 14, widthMm: 18, fieldMm: 8 },
  { count: 2, slitMm: 10, widthMm: 14, fieldMm: 8 },
] as const;
const LONGEST_S = 215;
const HOLD_MM = 5;
const GAP_MM = 2;

/** Seconds that the cuts alone take, about. */
const timeOf = ({ pitch, widthMm, fieldMm, holdMm, cut }: HingePlan): number => {
  const rows = axisValues(pitch).reduce((sum, mm) => sum + fieldMm / mm, 0);
  const outlines = pitch.count * 2 * (widthMm + fieldMm + 2 * holdMm);
  return ((rows * widthMm + outlines) * cut.passes) / cut.speedMmPerS;
};

/** Another pattern, with pitches and slits that suit it; or both, two strips of each. */
export const withPattern = (plan: HingePlan, pattern: HingePlan['pattern']): HingePlan =>
  pattern === 'both'
    ? {
        ...plan,
        pattern,
        pitch: { ...PITCHES.rows, count: EACH },
        slitMm: Math.min(SLITS.rows.slitMm, Math.floor(0.8 * plan.widthMm)),
        bridgeMm: SLITS.rows.bridgeMm,
        crossed: { ...USUAL_CROSSED, between: { ...USUAL_CROSSED.between, count: EACH } },
      }
    : { ...plan, pattern, pitch: PITCHES[pattern], ...SLITS[pattern] };

/** Three strips of staggered slits. Throws RangeError for stock that this source does not cut, or not in this thickness. */
export function proposeHinge(known: Known): Proposal<HingePlan> {
  const { pairing } = known;
  const { cut, reasons } = proposedCut(known);
  const kerf = kerfToGoBy(known);
  const thickness = thicknessOf(pairing.stock);
  const frame = proposeFrame(pairing);
  const planOf = ({ count, ...size }: (typeof SIZES)[number]): HingePlan => ({
    version: HINGE_VERSION,
    pattern: 'rows',
    pitch: { ...PITCHES.rows, count },
    ...SLITS.rows,
    crossed: USUAL_CROSSED,
    ...size,
    holdMm: HOLD_MM,
    gapMm: GAP_MM,
    thicknessMm: Math.round(thickness.meanMm * 1000) / 1000,
    kerfMm: kerf.yMm,
    cut,
    frame: frame.settings,
    setup: proposeSetup(pairing),
  });
  const size = SIZES.find((one) => timeOf(planOf(one)) < LONGEST_S) ?? SIZES.at(-1)!;
  return {
    plan: planOf(size),
    reasons: {
      ...reasons,
      'pitch.from': 'tight rows bend furthest, and take longest',
      'pitch.to': 'wide ones are stiff and strong',
      kerfMm: kerf.origin,
      thicknessMm:
        thickness.origin === 'measured'
          ? 'as measured'
          : 'the label’s: measure the sheet, labels are off by up to a tenth of a millimetre and more',
      size: `${size.count} strips that two hands can hold, as many and as wide as are cut in under four minutes`,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

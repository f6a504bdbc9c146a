import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeFill } from '../../core/card/propose-fill';
import { plainNumber } from '../../core/quantities/format';
import { MM_PER_INCH } from '../../core/quantities/quantity';
import { INTERVAL_VERSION, type IntervalPlan } from './plan';

const STRIPS = 6;
/** Densities that are usually tried: 500 down to 150 lines per inch (common practice). */
const FINEST_MM = MM_PER_INCH / 500;
const COARSEST_MM = MM_PER_INCH / 150;
/** Lines closer than this share of the spot only add time; further apart than this many spots they leave gaps on any stock. */
const SPOTS = { finest: 0.5, coarsest: 1.8 } as const;

/** Six strips from half a spot to nearly two, within 500 to 150 lines per inch, at the setting that engraves. */
export function proposeIntervals(known: Known): Proposal<IntervalPlan> {
  const { lens } = known.pairing;
  const { settings, reasons: fillReasons } = proposeFill(known);
  const spotMm = settings.direction === 'horizontal' ? lens.spotYMm : lens.spotXMm;
  const frame = proposeFrame(known.pairing);
  const round = (mm: number): number => Math.round(mm * 1000) / 1000;
  const from = round(Math.max(FINEST_MM, spotMm * SPOTS.finest));
  const to = round(Math.max(from * 2, Math.min(COARSEST_MM, spotMm * SPOTS.coarsest)));
  const { intervalMm: _varies, ...constants } = settings;
  const { 'constants.intervalMm': _said, ...reasons } = fillReasons;
  return {
    plan: {
      version: INTERVAL_VERSION,
      interval: { from, to, count: STRIPS, spacing: 'ratio' },
      stripWidthMm: 15,
      stripHeightMm: 4,
      gapMm: 1,
      constants,
      frame: frame.settings,
    },
    reasons: {
      ...reasons,
      'interval.from': `${from > FINEST_MM + 1e-6 ? 'half of' : '500 lines per inch, more than half of'} the ${plainNumber(spotMm)} mm spot across the lines: closer ones only add time`,
      'interval.to': 'nearly two spots: further apart lines leave gaps',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

import type { Known, Proposal } from '../../core/card/contract';
import { proposeSetup } from '../../core/card/work-setup';
import { proposeFrame } from '../../core/card/frame-settings';
import { widthAcross } from '../../core/card/mark-across';
import { proposeFill } from '../../core/card/propose-fill';
import { formatLength } from '../../core/quantities/format';
import { MM_PER_INCH } from '../../core/quantities/quantity';
import { INTERVAL_VERSION, type IntervalPlan } from './plan';

const STRIPS = 6;
/** Densities that are usually tried: 500 down to 150 lines per inch (common practice); a finer spot goes on from there. */
const FINEST_MM = MM_PER_INCH / 500;
const COARSEST_MM = MM_PER_INCH / 150;
/** Lines closer than this share of the spot only add time; further apart than this many marks they leave gaps. */
const CLOSEST_SPOTS = 0.5;
const WIDEST_MARKS = 1.5;

/** Six strips from half a spot to one and a half marks, within 500 to 150 lines per inch where the spot is not finer than that. */
export function proposeIntervals(known: Known): Proposal<IntervalPlan> {
  const { settings, reasons: fillReasons } = proposeFill(known);
  const liked = known.pairing.machine.likedUnits;
  const { spotMm, markMm } = widthAcross(known.pairing, settings.direction);
  const frame = proposeFrame(known.pairing);
  const round = (mm: number): number => Math.round(mm * 1000) / 1000;
  const closest = spotMm * CLOSEST_SPOTS;
  const from = round(Math.max(closest, Math.min(FINEST_MM, markMm * 0.7)));
  const to = round(Math.max(from * 2, Math.min(COARSEST_MM, markMm * WIDEST_MARKS)));
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
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      'interval.from': `${from <= closest + 1e-3 ? 'half of' : '500 lines per inch or finer, more than half of'} the ${formatLength(spotMm, liked)} spot across the lines: closer ones only add time`,
      'interval.to': `one and a half of the ${formatLength(markMm, liked, 2)} that a line is expected to mark: further apart they leave gaps`,
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { kerfToGoBy, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { formatLength } from '../../core/quantities/format';
import { KNOBS_VERSION, type KnobsPlan } from './plan';

/** Drawn as they are, a hole and a part are loose; tighter by a whole kerf a side and a little more they do not go together (common practice). */
const BEYOND_KERF_MM = 0.04;
/** After a ladder was kept the next one reaches this far past what it found, full width. */
const BEYOND_MM = 0.05;
const EACH = 4;
const HEAD_MM = 10;
const GAP_MM = 5;
/** No program and no axis is finer. */
const LEAST_STEP_MM = 0.003;

const thousandth = (mm: number): number => Math.round(mm * 1000) / 1000;

/**
 * Four holes and four parts, whose sixteen pairs go from loose to too tight by even steps. Throws RangeError for stock that this source does not cut, or
 * not in this thickness.
 */
export function proposeKnobs(known: Known): Proposal<KnobsPlan> {
  const { pairing, facts } = known;
  const { cut, reasons } = proposedCut(known);
  const kerf = kerfToGoBy(known);
  const kerfMm = thousandth((kerf.xMm + kerf.yMm) / 2);
  const kept = factOf(facts, 'mating');
  const [loosest, tightest] = kept
    ? [kept.value.fromMm.loose + BEYOND_MM, kept.value.fromMm.press - BEYOND_MM]
    : [0, -2 * (kerfMm + BEYOND_KERF_MM)];
  const frame = proposeFrame(pairing);
  return {
    plan: {
      version: KNOBS_VERSION,
      shape: 'knob',
      headMm: HEAD_MM,
      holes: EACH,
      parts: EACH,
      fromMm: thousandth(-loosest / 2) || 0,
      stepMm: Math.max(LEAST_STEP_MM, thousandth((loosest - tightest) / 2 / (EACH * EACH - 1))),
      cutHere: 'both',
      otherStock: '',
      otherKerfMm: kerfMm,
      kerfMm,
      gapMm: GAP_MM,
      cut,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      kerfMm: kerf.origin,
      otherKerfMm: 'as of this sheet: type what was kept of the other stock',
      fromMm: kept
        ? 'a little looser than what was loose last time'
        : `drawn as they are, which is loose: the two cuts leave ${formatLength(2 * kerfMm, pairing.machine.likedUnits, 3)} between them`,
      stepMm: 'so that the last pair is tighter than both cuts take',
      size: 'four holes and four parts make sixteen pairs: each goes into each',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

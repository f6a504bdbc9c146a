import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { fastestCutMmPerS, kerfToGoBy, proposedCut } from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { SCORE_VERSION, USUAL_STITCHES, type ScorePlan } from './plan';

const FLAP = { widthMm: 13, heightMm: 6 } as const;
const GAP_MM = 2;
const DASH = { from: 1.5, to: 4, count: 2, spacing: 'ratio' } as const;
const COLUMNS = 3;
/** Skips stand by so much more than the kerf takes of them. */
const STANDS_MM = { from: 0.25, to: 1.2 } as const;
const SCORE = { from: 0.12, to: 0.45 } as const;

const hundredth = (mm: number): number => Math.round(mm * 100) / 100;

/** Flaps by two dashes, three skips and three depths. Throws RangeError for stock that this source does not cut, or not in this thickness. */
export function proposeScore(known: Known): Proposal<ScorePlan> {
  const { machine } = known.pairing;
  const { cut, reasons } = proposedCut(known);
  const kerf = kerfToGoBy(known);
  const frame = proposeFrame(known.pairing);
  // Scored in one pass the head must not go faster than it surely does.
  const scoreFrom = Math.min(
    0.85,
    hundredth(Math.max(SCORE.from, cut.speedMmPerS / (cut.passes * fastestCutMmPerS(machine)) + 0.01)),
  );
  return {
    plan: {
      version: SCORE_VERSION,
      dash: DASH,
      skip: {
        from: hundredth(kerf.xMm + STANDS_MM.from),
        to: hundredth(kerf.xMm + STANDS_MM.to),
        count: COLUMNS,
        spacing: 'ratio',
      },
      scoreFrom,
      scoreTo: Math.max(SCORE.to, Math.min(0.95, hundredth(scoreFrom + 0.1))),
      ...USUAL_STITCHES,
      flapWidthMm: FLAP.widthMm,
      flapHeightMm: FLAP.heightMm,
      gapMm: GAP_MM,
      kerfMm: kerf.xMm,
      cut,
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      'skip.from': 'a little more than the kerf takes: what stands tears easily',
      'skip.to': 'stands by a millimetre and more: it folds before it tears',
      kerfMm: kerf.origin,
      scoreFrom: 'of a cut’s energy, in one pass: shallow',
      stitchFromMm: 'as long as stitches by hand are',
      size: 'flaps that a finger can bend',
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { widthAcross } from '../../core/card/mark-across';
import { proposeFill } from '../../core/card/propose-fill';
import { crossingsOf, type BurnSettings } from '../../core/card/settings';
import { proposeSetup } from '../../core/card/work-setup';
import { ladderInReeds } from '../../core/picture/ladder-in-reeds';
import { WHOLE } from '../../core/picture/sample';
import { formatLength, formatPower, formatSpeed } from '../../core/quantities/format';
import { SHOWPIECE_VERSION, type ShowpiecePlan } from './plan';

const WIDTH_MM = 16;
/** So many lines show all of the drawing: where they are finer, it is smaller. */
const MOST_LINES = 320;
const GAP_MM = 1.4;
/** Letters with bowls and arms, which close before others do. */
const WORDS = 'REED 258';
/** Heights of capitals, in widths of a mark: strokes of the smallest are hardly wider than one; and the least an eye reads at hand's length. */
const HEIGHTS = { small: 5, middle: 9, large: 16 } as const;
const LEAST_HEIGHT_MM = 0.6;
/** In lines of the fill: fewer make no letter. */
const LEAST_LINES = 7;
/** More passes than this no plan has. */
const MOST_PASSES = 20;

const tenth = (mm: number): number => Math.round(mm * 10) / 10;

/** The parts of a showpiece around one setting, and why. */
function around(
  { pairing }: Known,
  settings: BurnSettings,
  reasons: Readonly<Record<string, string>>,
): Proposal<ShowpiecePlan> {
  const { machine } = pairing;
  const { lineAngleDeg: _angle, crossHatch, ...constants } = settings;
  const frame = proposeFrame(pairing);
  const markMm = Math.max(settings.intervalMm, widthAcross(pairing, settings.direction).markMm);
  const leastMm = Math.max(LEAST_HEIGHT_MM, Math.ceil(10 * LEAST_LINES * settings.intervalMm) / 10);
  const height = (widths: number, times: number): number => tenth(Math.max(times * leastMm, widths * markMm));
  const finest = Math.max(settings.intervalMm, Math.round(markMm * 0.5 * 100) / 100);
  const mark = formatLength(markMm, machine.likedUnits, 2);
  return {
    plan: {
      version: SHOWPIECE_VERSION,
      drawing: { name: 'Ladder in the reeds', ...ladderInReeds() },
      crop: WHOLE,
      widthMm: Math.min(WIDTH_MM, tenth(MOST_LINES * settings.intervalMm)),
      words: WORDS,
      heights: {
        smallMm: height(HEIGHTS.small, 1),
        middleMm: height(HEIGHTS.middle, 1.6),
        largeMm: height(HEIGHTS.large, 2.8),
      },
      hairlineMm: finest,
      pointMm: finest,
      gapMm: GAP_MM,
      // A hatch crosses each place twice: lines of one way do so in twice as many passes.
      constants: { ...constants, passes: Math.min(MOST_PASSES, crossHatch ? crossingsOf(settings) : settings.passes) },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      ...(crossHatch ? { 'constants.passes': 'twice as many: the setting is cross-hatched, drawings are not' } : {}),
      drawing: 'a drawing of our own to begin with: choose yours, as SVG or as a picture',
      words: 'letters with bowls and arms close before others do',
      'heights.smallMm': `strokes of about the ${mark} that one line marks here: smaller ones run together`,
      hairlineMm: `half of the ${mark} that one line marks here`,
      pointMm: `half of the ${mark} that one line marks here`,
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

/**
 * A small drawing, lettering, hairlines and points with the engraving setting that was kept, or with a guess where none was. Throws RangeError where
 * the wavelength cannot mark.
 */
export function proposeShowpiece(known: Known): Proposal<ShowpiecePlan> {
  const kept = factOf(known.facts, 'engrave');
  const { settings, reasons } = proposeFill(known);
  if (!kept)
    return around(known, settings, {
      ...reasons,
      'constants.powerFraction': 'no engraving setting is kept yet: this shows a guess, burn a grid first',
    });
  return proveByShowpiece(known, kept.value.settings);
}

/** The same with a setting of one's choice. */
export function proveByShowpiece(known: Known, settings: BurnSettings): Proposal<ShowpiecePlan> {
  const { machine } = known.pairing;
  const own = { ...settings, powerFraction: Math.min(settings.powerFraction, machine.powerCap) };
  return around(known, own, {
    'constants.powerFraction': `as the setting that is shown: ${formatPower(own.powerFraction)} at ${formatSpeed(own.speedMmPerS, machine.likedUnits)}`,
  });
}

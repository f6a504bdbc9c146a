import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { widthAcross } from '../../core/card/mark-across';
import { clearMark, fastAtTone } from '../../core/card/fast-at-tone';
import { proposeFill } from '../../core/card/propose-fill';
import { proposeSetup } from '../../core/card/work-setup';
import { formatLength } from '../../core/quantities/format';
import { SCAN_OFFSET_VERSION, type ScanOffsetPlan } from './plan';

const STEPS = 4;
const REPEATS = 4;
/** Slowest over fastest: a lag shows by how the offset grows with speed. */
const SPAN = 4;
const BAR_MM = 4;
/** A bar is as wide as this many marks, so that it has two edges; and no narrower than this. */
const BAR_MARKS = 3;
const LEAST_BAR_MM = 0.4;
/** Bare stock between two bars: more than late beams move them, and enough to be told from. */
const BETWEEN_MM = 2;

/**
 * Four speeds up to the fastest that pays, four pairs of each, clear but not deep; where power does not reach so far, up to the fastest that still
 * marks so. The machine's own offset is off: what is measured is all of it. Throws RangeError where the wavelength cannot mark.
 */
export function proposeScanOffset(known: Known): Proposal<ScanOffsetPlan> {
  const { pairing } = known;
  const { likedUnits } = pairing.machine;
  const { settings, reasons: fillReasons } = proposeFill(known);
  const { direction } = settings;
  const frame = proposeFrame(pairing);
  const { speedMmPerS: to, powerFraction, useful } = fastAtTone(pairing, settings, clearMark(pairing));
  const round = (mmPerS: number): number => Math.round(mmPerS * 10) / 10;
  const { markMm } = widthAcross(pairing, direction === 'horizontal' ? 'vertical' : 'horizontal');
  const barWidthMm = Math.max(LEAST_BAR_MM, Math.round(BAR_MARKS * markMm * 10) / 10);
  const intervalMm = Math.max(0.01, Math.round((settings.intervalMm / 2) * 1e4) / 1e4);
  const { focusOffsetMm, air, runUpMm, frequencyKHz } = settings;
  const kept = Object.entries(fillReasons).filter(([path]) => /\.(focusOffsetMm|air|direction|runUpMm)$/.test(path));
  return {
    plan: {
      version: SCAN_OFFSET_VERSION,
      speed: { from: round(to / SPAN), to, count: STEPS, spacing: 'even' },
      repeats: REPEATS,
      barWidthMm,
      barMm: BAR_MM,
      pitchMm: Math.round((barWidthMm + BETWEEN_MM) * 10) / 10,
      constants: {
        powerFraction,
        intervalMm,
        focusOffsetMm,
        air,
        direction,
        runUpMm,
        scanOffsetMm: 0,
        lengthenMm: 0,
        frequencyKHz,
      },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...Object.fromEntries(kept),
      'speed.from': 'a quarter of the fastest: a lag shows by how the offset grows with speed',
      'speed.to':
        to < Math.floor(useful)
          ? 'the fastest at which the cap still marks clearly'
          : 'the fastest sweep that pays on usual lines: there the offset is largest',
      'constants.powerFraction': 'a clear mark at the fastest, not yet a deep one; slower pairs get less in proportion',
      'constants.intervalMm': `half of the usual ${formatLength(settings.intervalMm, likedUnits)}: every second line goes to the other bar`,
      'constants.scanOffsetMm':
        'none: what is measured is all of it. Switch off what the controller does by itself, too',
      'constants.lengthenMm': 'none: how long dots come out is measured, too',
      repeats: 'every second pair has its bars the other way round: what the photo’s own scale adds falls out',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

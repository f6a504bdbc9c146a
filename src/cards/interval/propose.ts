import type { Known, Proposal } from '../../core/card/contract';
import { proposeSetup } from '../../core/card/work-setup';
import { proposeFrame } from '../../core/card/frame-settings';
import { factOf, isUnproven } from '../../core/book/facts';
import { widthAcross } from '../../core/card/mark-across';
import { widthBy } from '../../core/fit/line-width';
import { axisValues } from '../../core/card/axis';
import { deliveredPowerW, sweepLimits, type Machine } from '../../core/machine/machine';
import type { BurnSettings } from '../../core/card/settings';
import { proposeFill } from '../../core/card/propose-fill';
import { formatLength } from '../../core/quantities/format';
import { MM_PER_INCH } from '../../core/quantities/quantity';
import { INTERVAL_VERSION, RAMP, type IntervalPlan } from './plan';

const STRIPS = 6;
/** Densities that are usually tried: 500 down to 150 lines per inch (common practice); a finer spot goes on from there. */
const FINEST_MM = MM_PER_INCH / 500;
const COARSEST_MM = MM_PER_INCH / 150;
/** Lines closer than this share of the spot only add time; further apart than this many marks they leave gaps. */
const CLOSEST_SPOTS = 0.5;
const WIDEST_MARKS = 1.5;

/** How wide one line was found to mark at the settings' power, where lines that run so were measured; null where none were. */
function measuredMark({ facts, pairing }: Known, { powerFraction, direction }: BurnSettings): number | null {
  const line = factOf(facts, 'line')?.value;
  if (!line || line.direction !== direction) return null;
  if (line.spotMm === null || line.thresholdFraction === null) return line.widthMm;
  const watts = (fraction: number): number => deliveredPowerW(pairing.machine, fraction);
  const foretold = widthBy({ spotMm: line.spotMm, thresholdW: watts(line.thresholdFraction) }, watts(powerFraction));
  // Weaker than any line was half dark: the law says nothing there, and what was seen is wider.
  return foretold > 0 ? Math.min(foretold, line.widthMm) : null;
}

/** A second card goes on in steps of this many lines per inch, over what the first left open and a step beyond each end. */
const CLOSER_DPI = 10;
const MOST_CLOSER = 12;

/** Strips around the interval that a card found, up to the coarser one whose lines showed; null where none was found, or nothing was left open. */
function closerStrips({ facts }: Known): IntervalPlan['interval'] | null {
  const found = factOf(facts, 'interval');
  if (!found || found.stale.length > 0 || isUnproven(found.origin)) return null;
  const { intervalMm, upToMm: coarserMm } = found.value;
  if (coarserMm == null) return null;
  const [dense, sparse] = [MM_PER_INCH / intervalMm + CLOSER_DPI, MM_PER_INCH / coarserMm - CLOSER_DPI];
  const count = Math.ceil((dense - sparse) / CLOSER_DPI) + 1;
  if (!(sparse > 0) || count <= LEAST_CLOSER) return null;
  const round = (mm: number): number => Math.round(mm * 1e4) / 1e4;
  return {
    from: round(MM_PER_INCH / dense),
    to: round(MM_PER_INCH / sparse),
    count: Math.min(MOST_CLOSER, count),
    spacing: 'ratio',
  };
}

/** Fewer steps than these leave nothing to be told closer. */
const LEAST_CLOSER = 4;

/** Strips are as wide as their lines can be burned in about three minutes: a step of 3 mm still shows dozens of them. */
const WIDTHS_MM = [15, 12, 9] as const;
const LONGEST_S = 160;

/** About how long the lines of all strips take: each runs up, marks and runs out. */
function stripsS(
  { interval, stripWidthMm, stripHeightMm, constants }: Omit<IntervalPlan, 'version' | 'frame' | 'setup'>,
  machine: Machine,
): number {
  const { speedMmPerS, passes, direction } = constants;
  const stands = direction === 'vertical';
  const along = stands ? stripHeightMm : stripWidthMm / RAMP.length;
  const across = stands ? stripWidthMm : RAMP.length * stripHeightMm;
  const rampsS = machine.head === 'galvo' ? 0 : (2 * speedMmPerS) / sweepLimits(machine, direction).accelerationMmPerS2;
  const lines = axisValues(interval).reduce((sum, intervalMm) => sum + across / intervalMm, 0);
  return lines * passes * (along / speedMmPerS + rampsS);
}

/** Six strips from half a spot to one and a half marks, within 500 to 150 lines per inch where the spot is not finer than that; where a card found one, closer ones around it. */
export function proposeIntervals(known: Known): Proposal<IntervalPlan> {
  const { settings, reasons: fillReasons } = proposeFill(known);
  const liked = known.pairing.machine.likedUnits;
  const { spotMm, markMm: expected } = widthAcross(known.pairing, settings.direction);
  const measured = measuredMark(known, settings);
  const markMm = measured ?? expected;
  const frame = proposeFrame(known.pairing);
  const round = (mm: number): number => Math.round(mm * 1000) / 1000;
  const closest = spotMm * CLOSEST_SPOTS;
  const from = round(Math.max(closest, Math.min(FINEST_MM, markMm * 0.7)));
  const to = round(Math.max(from * 2, Math.min(COARSEST_MM, markMm * WIDEST_MARKS)));
  const closer = closerStrips(known);
  const around = closer && 'around the interval that was found, in steps of about 10 lines per inch';
  const { intervalMm: _varies, ...constants } = settings;
  const { 'constants.intervalMm': _said, ...reasons } = fillReasons;
  const strips = (stripWidthMm: number) => ({
    interval: closer ?? { from, to, count: STRIPS, spacing: 'ratio' as const },
    stripWidthMm,
    stripHeightMm: 4,
    gapMm: 1,
    constants,
  });
  const widthMm = WIDTHS_MM.find((mm) => stripsS(strips(mm), known.pairing.machine) < LONGEST_S) ?? WIDTHS_MM.at(-1)!;
  return {
    plan: {
      version: INTERVAL_VERSION,
      ...strips(widthMm),
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      'interval.from':
        around ??
        `${from <= closest + 1e-3 ? 'half of' : '500 lines per inch or finer, more than half of'} the ${formatLength(spotMm, liked)} spot across the lines: closer ones only add time`,
      'interval.to':
        around ??
        `one and a half of the ${formatLength(markMm, liked, 2)} that a line ${measured === null ? 'is expected to mark' : 'was found to mark'}: further apart they leave gaps`,
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { fastAtTone, middleTone } from '../../core/card/fast-at-tone';
import { proposeFill } from '../../core/card/propose-fill';
import { proposeSetup } from '../../core/card/work-setup';
import { sweepLimits } from '../../core/machine/machine';
import { runUpMm } from '../../core/motion/move';
import { formatLength, formatSpeed } from '../../core/quantities/format';
import { RUN_UP_VERSION, type RunUpPlan } from './plan';

const STEPS = 8;
const REPEATS = 2;
const BAR_MM = 1.6;
/** The longest run-up is so much of what the record asks for: heads are slower than their record. */
const LONGEST = 1.4;
/** Of each bar so much in the middle is burned at full speed, whatever its run-up. */
const MIDDLE_MM = 6;
const MOST_MM = 80;

/**
 * Eight run-ups from none to more than the record asks for, two bars of each, at a middle tone, where more energy shows best; as fast as pays, or as
 * the cap still marks so. Throws RangeError where the wavelength cannot mark, and where nothing runs up or the controller does so by itself.
 */
export function proposeRunUp(known: Known): Proposal<RunUpPlan> {
  const { pairing } = known;
  const { machine } = pairing;
  const liked = machine.likedUnits;
  const { settings, reasons: fillReasons } = proposeFill(known);
  if (machine.head === 'galvo') throw new RangeError('invalid pairing: mirrors need no run-up, they jump');
  if (machine.addsRunUp)
    throw new RangeError('invalid pairing: this controller adds run-up by itself, a program cannot change it');
  const { speedMmPerS, powerFraction, useful } = fastAtTone(pairing, settings, middleTone(pairing));
  const needed = runUpMm(speedMmPerS, sweepLimits(machine, settings.direction).accelerationMmPerS2);
  const longest = Math.max(0.5, Math.ceil(LONGEST * needed * 10) / 10);
  const frame = proposeFrame(pairing);
  const { runUpMm: _varies, lineAngleDeg: _angle, crossHatch: _hatch, ...constants } = settings;
  const kept = Object.entries(fillReasons).filter(
    ([path]) => !/\.(runUpMm|lineAngleDeg|crossHatch|powerFraction|speedMmPerS|passes)$/.test(path),
  );
  return {
    plan: {
      version: RUN_UP_VERSION,
      runUp: { from: 0, to: longest, count: STEPS, spacing: 'even' },
      repeats: REPEATS,
      lengthMm: Math.min(MOST_MM, Math.ceil(2 * LONGEST * needed + MIDDLE_MM)),
      barMm: BAR_MM,
      constants: { ...constants, passes: 1, powerFraction, speedMmPerS },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...Object.fromEntries(kept),
      'runUp.from': 'none: where power follows speed, or a mark begins slowly, none may be needed',
      'runUp.to': `${LONGEST} of the ${formatLength(needed, liked, 2)} that the recorded acceleration asks for at ${formatSpeed(speedMmPerS, liked)}`,
      lengthMm: 'longer than both ramps, so that the middle is burned at full speed whatever the run-up',
      'constants.speedMmPerS':
        speedMmPerS < Math.floor(useful)
          ? 'the fastest at which the cap still marks a middle tone'
          : 'the fastest sweep that pays on usual lines: slower ones need less in proportion to their square',
      'constants.powerFraction': 'a middle tone: there more energy shows best',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

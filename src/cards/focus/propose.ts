import { rayleighRangeMm } from '../../core/beam/gaussian';
import { USUAL_BEAM } from '../../core/beam/usual-beam';
import type { Known, Pairing, Proposal } from '../../core/card/contract';
import { proposeSetup } from '../../core/card/work-setup';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeFill } from '../../core/card/propose-fill';
import { formatLength } from '../../core/quantities/format';
import { FOCUS_VERSION, leastSpacerMm, type FocusPlan } from './plan';

const PATCH_MM = 5;
const GAP_MM = 1.2;
/** Lines this many spots apart leave gaps in focus, so that it shows where they close. */
const GAP_SPOTS = 1.5;
/** Lowered further than this, many heads come near the work (common practice: look before the head goes down). */
const LOWEST_MM = 3;
/** Set by hand, offsets go no further: spacers of whole and half millimetres. */
const BY_HAND_MM = 2;

/** Rayleigh range of a beam across the lines of a fill, by its spot. */
function rayleighOf({ machine, lens }: Pairing, direction: FocusPlan['constants']['direction']): number {
  const spotMm = direction === 'horizontal' ? lens.spotYMm : lens.spotXMm;
  return rayleighRangeMm(spotMm, machine.wavelengthNm / 1e6, USUAL_BEAM[machine.sourceKind].beamQuality);
}

/** Over a tilted board many patches cost nothing. */
const ON_TILT = 13;

/** Offsets and patches that a way of setting them goes with; whole halves of a millimetre. */
function axisFor(
  way: FocusPlan['way'],
  direction: FocusPlan['constants']['direction'],
  on: Pairing,
): FocusPlan['focus'] {
  const { automaticFocus } = on.machine;
  const rayleighMm = rayleighOf(on, direction);
  const many = automaticFocus || way === 'tilt';
  // Five patches that a hand sets must all show their lines to tell where these show most: they lie closer than those that cost no stop.
  const wanted = many ? 2 * rayleighMm : Math.min(BY_HAND_MM, rayleighMm);
  const reach = Math.min(LOWEST_MM, Math.max(0.5, Math.round(2 * wanted) / 2));
  const count = way === 'tilt' ? ON_TILT : automaticFocus ? 9 : 5;
  return { from: -reach, to: reach, count, spacing: 'even' };
}

/** A plan whose offsets come about in another way than before. */
export function withWay(plan: FocusPlan, on: Pairing): FocusPlan {
  const focus = axisFor(plan.way, plan.constants.direction, on);
  const support = plan.way === 'tilt' ? 'board' : proposeSetup(on).support;
  return { ...plan, focus, spacerMm: leastSpacerMm({ ...plan, focus }), setup: { ...plan.setup, support } };
}

/**
 * Patches at offsets on both sides of the focus that was set: nine to about two Rayleigh ranges where a motor sets them, or as far as a head may safely go down; five
 * where a hand must, to one Rayleigh range, so that all of them show their lines. Lines lie a spot and a half apart, so that gaps show where it is sharp.
 */
export function proposeFocus(known: Known): Proposal<FocusPlan> {
  const { machine, lens } = known.pairing;
  const { settings, reasons: fillReasons } = proposeFill(known);
  const frame = proposeFrame(known.pairing);
  const spotMm = settings.direction === 'horizontal' ? lens.spotYMm : lens.spotXMm;
  const rayleighMm = rayleighOf(known.pairing, settings.direction);
  const axis = axisFor('stops', settings.direction, known.pairing);
  const reach = axis.to;
  const intervalMm = Math.round(Math.min(0.4, GAP_SPOTS * spotMm) * 1000) / 1000;
  // As much power for each line as the fill has: the lines are further apart, not stronger.
  const { focusOffsetMm: _varies, ...constants } = { ...settings, intervalMm };
  const { 'constants.focusOffsetMm': _said, ...reasons } = fillReasons;
  return {
    plan: {
      version: FOCUS_VERSION,
      focus: axis,
      way: 'stops',
      spacerMm: leastSpacerMm({ focus: axis, patchMm: PATCH_MM, gapMm: GAP_MM }),
      patchMm: PATCH_MM,
      gapMm: GAP_MM,
      constants,
      frame: frame.settings,
      setup: proposeSetup(known.pairing),
    },
    reasons: {
      ...reasons,
      'focus.from': !machine.automaticFocus
        ? `by hand no further than lines still show, about one Rayleigh range (${formatLength(rayleighMm, machine.likedUnits, 2)} by the spot), and to both sides: one alone cannot tell up from down`
        : reach < LOWEST_MM
          ? `about two Rayleigh ranges (${formatLength(rayleighMm, machine.likedUnits, 2)} by the spot) to each side: one side alone cannot tell up from down`
          : `${formatLength(LOWEST_MM, machine.likedUnits)} to each side: lowered further, a head may touch the work (two Rayleigh ranges would be ${formatLength(2 * rayleighMm, machine.likedUnits, 2)})`,
      'focus.count': machine.automaticFocus
        ? 'nine: the motor sets them'
        : 'five: each is a stop at which your hand sets the focus',
      way: machine.automaticFocus
        ? 'the motor sets them by itself'
        : 'with spacers under the head; a tilted board asks for no stops, and tells it finer',
      'constants.intervalMm': 'a spot and a half: gaps show where it is sharp, and close where it is not',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

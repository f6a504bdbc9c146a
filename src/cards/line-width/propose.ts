import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { widthAcross } from '../../core/card/mark-across';
import { proposeFill } from '../../core/card/propose-fill';
import { proposeSetup } from '../../core/card/work-setup';
import { peakOfLine } from '../../core/fit/line-width';
import { commandFor, leastCommand } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatPower, plainNumber } from '../../core/quantities/format';
import { familyOf } from '../../core/stock/families';
import { responseOf } from '../../core/stock/response';
import { LINE_WIDTH_VERSION, type LineWidthPlan } from './plan';

const STEPS = 8;
const REPEATS = 2;
const LINE_MM = 8;
/** Bare stock on both sides as wide as this many marks, and enough for the widest. */
const PITCH_MARKS = 9;
const LEAST_PITCH_MM = 2;
/** The weakest line's peak is this many times the energy that shows faintly, and the strongest this share of what spoils. */
const ABOVE_FAINT = 1.5;
const BELOW_OVER = 0.9;
/** Less than this from end to end tells no law. */
const LEAST_RANGE = 3;

/**
 * Eight powers at the speed that is engraved at, from a line that just shows to one that is nearly spoiled, two lines of each. Where the cap does not
 * reach so far, slower. Throws RangeError where the wavelength cannot mark.
 */
export function proposeLines(known: Known): Proposal<LineWidthPlan> {
  const { pairing, facts } = known;
  const { machine, stock } = pairing;
  const { settings, reasons: fillReasons } = proposeFill(known);
  const { energies } = responseOf(stock, machine);
  const family = familyOf(stock.family).name.toLowerCase();
  const frame = proposeFrame(pairing);
  const { spotMm, markMm } = widthAcross(pairing, settings.direction);
  // Joules to each mm of line whose peak fluence is one J/mm².
  const forPeak = 1 / peakOfLine(1, spotMm);
  const capW = deliveredPowerW(machine, machine.powerCap);
  const strongest = energies.over * BELOW_OVER * forPeak;
  const kept = factOf(facts, 'engrave');
  const speed = kept ? settings.speedMmPerS : Math.min(settings.speedMmPerS, capW / strongest);
  const speedMmPerS = speed < 10 ? Math.round(speed * 10) / 10 : Math.floor(speed);
  const least = leastCommand(machine);
  const round = (power: number): number => Math.round(power * 1000) / 1000;
  const to = round(
    Math.min(machine.powerCap, Math.max(least * LEAST_RANGE, commandFor(machine, strongest * speedMmPerS))),
  );
  const faint = commandFor(machine, energies.faint * ABOVE_FAINT * forPeak * speedMmPerS);
  const from = round(Math.max(least, Math.min(faint, to / LEAST_RANGE)));
  const { powerFraction: _varies, lineAngleDeg: _angle, crossHatch: _hatch, ...constants } = settings;
  const { 'constants.powerFraction': _said, ...reasons } = fillReasons;
  const paths = Object.entries(reasons).filter(([path]) => !/lineAngleDeg|crossHatch/.test(path));
  return {
    plan: {
      version: LINE_WIDTH_VERSION,
      power: { from, to, count: STEPS, spacing: 'ratio' },
      repeats: REPEATS,
      lineMm: LINE_MM,
      pitchMm: Math.max(LEAST_PITCH_MM, Math.round(PITCH_MARKS * markMm * 10) / 10),
      constants: { ...constants, speedMmPerS },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...Object.fromEntries(paths),
      'power.from':
        from <= least + 1e-3
          ? `about the lowest command that fires, ${formatPower(least)}`
          : `a line whose middle gets half as much again as the ${plainNumber(energies.faint, 2)} J/mm² at which ${family} begins to show`,
      'power.to':
        to >= machine.powerCap - 1e-9
          ? `the cap of this machine: ${family} is spoiled from ${plainNumber(energies.over, 2)} J/mm² on`
          : `a line whose middle gets nearly the ${plainNumber(energies.over, 2)} J/mm² at which ${family} is spoiled`,
      'constants.speedMmPerS': kept
        ? 'the speed that was found to engrave well: a width holds at its speed'
        : 'slow enough for the strongest line within the cap',
      repeats: 'two of each tell how lines scatter',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

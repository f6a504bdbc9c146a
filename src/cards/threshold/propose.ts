import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeSetup } from '../../core/card/work-setup';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeConstants } from '../../core/card/propose-constants';
import { withMachineFacts } from '../../core/card/propose-machine-facts';
import { commandFor } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { fastestUsefulMmPerS } from '../../core/card/useful-speed';
import { formatPower, plainNumber } from '../../core/quantities/format';
import { familyOf } from '../../core/stock/families';
import { responseOf } from '../../core/stock/response';
import type { Constants } from '../../core/card/settings';
import { THRESHOLD_VERSION, type ThresholdPlan } from './plan';

const PATCH_MM = 3;
const STEPS = 10;
/** A first mark is looked for from this share of the family's faint energy to this. */
const AROUND = { below: 0.3, above: 1.5 } as const;

/** A second strip spans this around the floor that the first one found, in two rows: the first mark lies within a step above it, and one day's eye is sharper than another's. */
const CLOSER = { below: 1.2, above: 1.3, rows: 2 } as const;

/** The floor that was found at these very settings, and still holds. */
function floorAt({ facts }: Known, { intervalMm, passes }: Constants, speedMmPerS: number): number | null {
  const floor = factOf(facts, 'floor');
  if (!floor || floor.stale.length > 0) return null;
  const { speed, interval, passes: times } = floor.at;
  return speed === speedMmPerS && interval === intervalMm && times === passes ? floor.value.powerFraction : null;
}

/**
 * A strip of ten patches around where the first mark is expected: at the speed that was found to engrave, or at one where the faint mark
 * takes about a sixth of the cap. Where a strip found the floor there, a closer one around it, in two rows. Never below what fires. Throws RangeError where the wavelength cannot mark.
 */
export function proposeThreshold(known: Known): Proposal<ThresholdPlan> {
  const { pairing, facts } = known;
  const { machine, stock } = pairing;
  const family = familyOf(stock.family);
  const fit = responseOf(stock, machine);
  if (fit.verdict === 'no') throw new RangeError(`invalid pairing: ${fit.reason}`);
  const { constants, reasons: constantReasons } = proposeConstants(known);
  const frame = proposeFrame(pairing);
  const faint = fit.energies.faint;
  const engrave = factOf(facts, 'engrave');
  const capW = deliveredPowerW(machine, machine.powerCap);
  const usefulTop = fastestUsefulMmPerS(machine, constants.direction);
  const speed = engrave
    ? engrave.value.settings.speedMmPerS
    : Math.min(usefulTop, Math.max(5, capW / 6 / (faint * constants.intervalMm)));
  const speedMmPerS = Math.round(speed * 10) / 10;
  const measured = withMachineFacts(constants, known, speedMmPerS);
  const watts = faint * constants.intervalMm * speedMmPerS;
  const least = Math.max(0.005, machine.lowestFiringCommand);
  const from = Math.max(least, commandFor(machine, watts * AROUND.below));
  const to = Math.min(machine.powerCap, Math.max(from * 1.8, commandFor(machine, watts * AROUND.above)));
  const round = (power: number): number => Math.round(power * 1000) / 1000;
  const found = floorAt(known, measured.constants, speedMmPerS);
  const closer = found !== null && {
    from: round(Math.max(least, found / CLOSER.below)),
    to: round(Math.min(machine.powerCap, found * CLOSER.above)),
  };
  const around = found !== null && `around the floor of ${formatPower(found)} that was found: steps of a few per cent`;
  return {
    plan: {
      version: THRESHOLD_VERSION,
      way: 'strip',
      power: { ...(closer || { from: round(from), to: round(to) }), count: STEPS, spacing: 'ratio' },
      repeats: closer ? CLOSER.rows : 1,
      patchMm: PATCH_MM,
      gapMm: 1,
      constants: { ...measured.constants, speedMmPerS },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...constantReasons,
      ...measured.reasons,
      'power.from':
        around ||
        (from <= least + 1e-9
          ? `the lowest command that fires, ${formatPower(least)}`
          : `well below ${plainNumber(faint, 2)} J/mm², where ${family.name.toLowerCase()} begins to show a mark`),
      ...(closer && { repeats: 'each step twice: one patch may lie on a streak of grain' }),
      'power.to': around || `half as much again as where ${family.name.toLowerCase()} begins to show a mark`,
      'constants.speedMmPerS': engrave
        ? 'the speed that was found to engrave well: a floor holds at its speed'
        : 'a speed at which the first mark takes about a sixth of the cap',
      way: 'a strip shows all steps at once; a search takes fewer patches, and no photo',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

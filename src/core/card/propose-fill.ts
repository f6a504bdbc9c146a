import { factOf } from '../book/facts';
import { commandFor, leastCommand } from '../machine/command';
import { deliveredPowerW } from '../machine/machine';
import { familyOf } from '../stock/families';
import { responseOf } from '../stock/response';
import type { Known } from './contract';
import { proposeConstants } from './propose-constants';
import { clearMark } from './fast-at-tone';
import { withMachineFacts } from './propose-machine-facts';
import type { BurnSettings } from './settings';
import { fastestUsefulMmPerS } from './useful-speed';

/**
 * Settings of a plain fill to try other things with: those that were found to engrave, or a guess at a medium mark at a useful speed.
 * With the reason for each under its path in a plan's `constants`. Throws RangeError where the wavelength cannot mark.
 */
export function proposeFill(known: Known): { settings: BurnSettings; reasons: Record<string, string> } {
  const { machine, stock } = known.pairing;
  const family = familyOf(stock.family);
  const fit = responseOf(stock, machine);
  if (fit.verdict === 'no') throw new RangeError(`invalid pairing: ${fit.reason}`);
  const { constants, reasons } = proposeConstants(known);
  const engrave = factOf(known.facts, 'engrave');
  if (engrave) {
    const { powerFraction, speedMmPerS } = engrave.value.settings;
    const measured = withMachineFacts(constants, known, speedMmPerS);
    return {
      settings: { ...measured.constants, powerFraction: Math.min(machine.powerCap, powerFraction), speedMmPerS },
      reasons: {
        ...reasons,
        ...measured.reasons,
        'constants.powerFraction': 'as the kept engraving setting',
        'constants.speedMmPerS': 'as the kept engraving setting',
      },
    };
  }
  const wanted = clearMark(known.pairing);
  const top = fastestUsefulMmPerS(machine, constants.direction);
  const capW = deliveredPowerW(machine, machine.powerCap);
  const speed = Math.max(1, Math.min(top, (capW * 0.7) / (wanted * constants.intervalMm)));
  const speedMmPerS = speed < 10 ? Math.round(speed * 10) / 10 : Math.round(speed);
  const power = commandFor(machine, wanted * constants.intervalMm * speedMmPerS);
  const measured = withMachineFacts(constants, known, speedMmPerS);
  return {
    settings: {
      ...measured.constants,
      powerFraction: Math.min(machine.powerCap, Math.max(leastCommand(machine), Math.round(power * 1000) / 1000)),
      speedMmPerS,
    },
    reasons: {
      ...reasons,
      ...measured.reasons,
      'constants.powerFraction': `a guess at a medium mark on ${family.name.toLowerCase()}: no engraving setting is kept yet`,
      'constants.speedMmPerS': 'a useful speed of this head for the guess',
    },
  };
}

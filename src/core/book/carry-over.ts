import type { Pairing } from '../card/contract';
import { deliveredBy } from '../card/energy';
import { widthAcross } from '../card/mark-across';
import { crossingsOf, type BurnSettings } from '../card/settings';
import { commandFor } from '../machine/command';
import { deliveredPowerW, sweepLimits } from '../machine/machine';
import { formatLength, formatPower, formatSpeed, plainNumber } from '../quantities/format';
import { familyOf } from '../stock/families';
import { responseOf } from '../stock/response';

export interface Carried {
  readonly settings: BurnSettings;
  /** What was changed and why, in words; what is not named stayed as it was. */
  readonly reasons: readonly string[];
}

/** Further off than this from the energy that is wanted, a setting says so. */
const ENERGY_SLACK = 0.05;

const round = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits;

/**
 * A setting foretold for another machine, lens or stock: the same energy per area, scaled where the families differ by what each takes
 * for its darkest mark, at the same speed as far as power allows; lines no wider apart than the mark; air, focus and run-up as the other
 * machine has them. A guess that wants a small card, never a measurement. Deterministic.
 * Throws RangeError, with the reason, where the other source cannot mark that stock.
 *
 * 20 % of 40 W at 200 mm/s and 0.1 mm (0.4 J/mm²) goes to a source of 10 W as 80 % at the same speed.
 */
export function carrySettings(settings: BurnSettings, from: Pairing, to: Pairing): Carried {
  const { machine, stock, lens } = to;
  const liked = machine.likedUnits;
  const fit = responseOf(stock, machine);
  if (fit.verdict === 'no') throw new RangeError(`invalid pairing: ${fit.reason}`);
  const reasons: string[] = [];

  let areal = deliveredBy(settings, from).arealJPerMm2;
  const before = responseOf(from.stock, from.machine);
  const sameMark = before.energies.deep === fit.energies.deep;
  if (!sameMark && before.verdict !== 'no') {
    const ratio = fit.energies.deep / before.energies.deep;
    areal *= ratio;
    reasons.push(
      `energy ${plainNumber(ratio, 2)} times as before: ${familyOf(stock.family).name.toLowerCase()} under this source darkens at ${plainNumber(fit.energies.deep, 2)} J/mm², the other at ${plainNumber(before.energies.deep, 2)}`,
    );
  } else reasons.push(`the same ${plainNumber(areal, 2)} J/mm²`);

  const { markMm } = widthAcross(to, settings.direction);
  const intervalMm = Math.min(settings.intervalMm, Math.max(0.01, Math.floor(markMm * 1000) / 1000));
  if (intervalMm < settings.intervalMm)
    reasons.push(`lines ${formatLength(intervalMm, liked)} apart: as wide as this lens marks`);

  const crossHatch = machine.head === 'galvo' && settings.crossHatch;
  const crossings = crossingsOf({ passes: settings.passes, crossHatch });
  const top = sweepLimits(machine, settings.direction).topSpeedMmPerS;
  const lineJ = (areal * intervalMm) / crossings;
  const capW = deliveredPowerW(machine, machine.powerCap);
  const leastCommand = Math.max(0.005, machine.lowestFiringCommand * 1.05);
  let speed = Math.min(settings.speedMmPerS, top);
  if (lineJ * speed > capW) {
    speed = capW / lineJ;
    reasons.push(
      `slower, ${formatSpeed(round(speed, 1), liked)}: the power cap of ${formatPower(machine.powerCap)} gives no more`,
    );
  } else if (lineJ * speed < deliveredPowerW(machine, leastCommand)) {
    speed = Math.min(top, deliveredPowerW(machine, leastCommand) / lineJ);
    reasons.push(
      `faster, ${formatSpeed(round(speed, 1), liked)}: weaker than ${formatPower(leastCommand)} this source does not fire`,
    );
  } else if (speed < settings.speedMmPerS) reasons.push(`at this head’s top speed of ${formatSpeed(top, liked)}`);
  speed = speed < 10 ? round(speed, 2) : round(speed, 1);
  const power = Math.min(machine.powerCap, Math.max(leastCommand, round(commandFor(machine, lineJ * speed), 4)));

  const delivered = (deliveredPowerW(machine, power) / speed / intervalMm) * crossings;
  if (Math.abs(delivered / areal - 1) > ENERGY_SLACK)
    reasons.unshift(
      `careful: ${plainNumber(delivered, 2)} J/mm² instead of ${plainNumber(areal, 2)}, this machine comes no nearer`,
    );

  const otherLens = JSON.stringify(lens) !== JSON.stringify(from.lens);
  if (otherLens && settings.focusOffsetMm !== 0)
    reasons.push('focus offset back to 0: the old one belongs to its lens');
  const air =
    machine.airAssist === 'none'
      ? 'off'
      : machine.airAssist === 'on-off' && settings.air === 'low'
        ? 'off'
        : settings.air;
  if (air !== settings.air) reasons.push(`air ${air}: what this machine can do`);
  const otherMachine = machine.name !== from.machine.name;
  const range = machine.galvo?.frequencyKHz ?? null;
  const { frequencyKHz } = settings;
  const pulses = frequencyKHz !== null && range !== null && frequencyKHz >= range.least && frequencyKHz <= range.most;
  return {
    settings: {
      ...settings,
      powerFraction: power,
      speedMmPerS: speed,
      intervalMm,
      air,
      focusOffsetMm: otherLens ? 0 : settings.focusOffsetMm,
      runUpMm: otherMachine ? null : settings.runUpMm,
      scanOffsetMm: otherMachine ? 0 : settings.scanOffsetMm,
      lengthenMm: otherMachine ? 0 : settings.lengthenMm,
      lineAngleDeg: machine.head === 'galvo' ? settings.lineAngleDeg : 0,
      crossHatch,
      frequencyKHz: pulses ? frequencyKHz : null,
    },
    reasons,
  };
}

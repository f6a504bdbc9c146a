import { factOf } from '../../core/book/facts';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeFill } from '../../core/card/propose-fill';
import { proposeSetup } from '../../core/card/work-setup';
import { commandFor, leastCommand } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatPower, plainNumber } from '../../core/quantities/format';
import { familyOf } from '../../core/stock/families';
import { responseOf } from '../../core/stock/response';
import { CEILING_VERSION, type CeilingPlan } from './plan';

const WEDGES = 4;
const STEPS = 8;
const PATCH_MM = 3;
const GAP_MM = 1;
/** The greatest top is this share of what spoils, the lowest this share of what marks as deep as it gets. */
const BELOW_OVER = 0.95;
const BELOW_DEEP = 0.7;
/** Tops lie apart by this factor at the least, from end to end. */
const LEAST_RANGE = 1.6;

/**
 * Four wedges of eight steps at the speed that is engraved at: up to powers between what is hardly as dark as it gets and what nearly spoils. Slower
 * where the cap does not reach so far and no speed is kept. Throws RangeError where the wavelength cannot mark.
 */
export function proposeCeiling(known: Known): Proposal<CeilingPlan> {
  const { pairing, facts } = known;
  const { machine, stock } = pairing;
  const { settings, reasons: fillReasons } = proposeFill(known);
  const { energies } = responseOf(stock, machine);
  const family = familyOf(stock.family).name.toLowerCase();
  const frame = proposeFrame(pairing);
  const kept = factOf(facts, 'engrave');
  const floor = factOf(facts, 'floor');
  const capW = deliveredPowerW(machine, machine.powerCap);
  const perSpeed = (energy: number): number => energy * settings.intervalMm;
  const reached = capW / perSpeed(energies.over * BELOW_OVER);
  const speed = kept ? settings.speedMmPerS : Math.min(settings.speedMmPerS, reached);
  const speedMmPerS = speed < 10 ? Math.max(0.1, Math.floor(speed * 10) / 10) : Math.floor(speed);
  const round = (fraction: number): number => Math.round(fraction * 1000) / 1000;
  const powerFor = (energy: number): number => commandFor(machine, perSpeed(energy) * speedMmPerS);
  const least = leastCommand(machine);
  const to = round(Math.min(machine.powerCap, Math.max(least * 2 * LEAST_RANGE, powerFor(energies.over * BELOW_OVER))));
  const from = round(Math.min(to / LEAST_RANGE, Math.max(least * 2, powerFor(energies.deep * BELOW_DEEP))));
  const measuredFloor = floor && floor.stale.length === 0 ? floor.value.powerFraction : null;
  const faint = Math.max(machine.lowestFiringCommand, powerFor(energies.faint));
  const floorFraction = round(Math.min(from / 2, measuredFloor ?? faint));
  const { powerFraction: _varies, ...constants } = settings;
  const { 'constants.powerFraction': _said, ...reasons } = fillReasons;
  return {
    plan: {
      version: CEILING_VERSION,
      top: { from, to, count: WEDGES, spacing: 'ratio' },
      floorFraction,
      steps: STEPS,
      patchMm: PATCH_MM,
      gapMm: GAP_MM,
      constants: { ...constants, speedMmPerS },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      'top.from': `hardly as strong as ${family} gets, by what is usual: there the darkest steps still differ`,
      'top.to':
        to >= machine.powerCap - 1e-9
          ? `the cap of this machine: ${family} is spoiled from ${plainNumber(energies.over, 2)} J/mm² on`
          : `nearly the ${plainNumber(energies.over, 2)} J/mm² at which ${family} is spoiled`,
      floorFraction:
        measuredFloor === null
          ? `about where ${family} begins to show a mark, ${formatPower(floorFraction)}: no floor is measured yet`
          : 'the measured floor: below it nothing marks',
      'constants.speedMmPerS': kept
        ? 'the speed that was found to engrave well: a ceiling holds at its speed'
        : 'slow enough for the strongest wedge within the cap',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

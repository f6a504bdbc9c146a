import { factOf, type FactNow } from '../../core/book/facts';
import { powerAtSpeed } from '../../core/card/at-speed';
import type { Known, Proposal } from '../../core/card/contract';
import { proposeFill } from '../../core/card/propose-fill';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeSetup } from '../../core/card/work-setup';
import { commandFor, leastCommand } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { isPictureMode, type PictureMode } from '../../core/picture/mode';
import { formatPower } from '../../core/quantities/format';
import { familyOf } from '../../core/stock/families';
import { responseOf } from '../../core/stock/response';
import { TONE_VERSION, type KeptTable, type TonePlan } from './plan';

const STEPS = 16;
const REPEATS = 2;
const PATCH_MM = 3.2;
const GAP_MM = 0.8;
/** Black needs at least so many times the power of the floor for tones to lie between. */
const LEAST_RANGE = 2;
/** Stock that has no midtones: it is marked in a place or it is not (common practice). */
const NO_MIDTONES: ReadonlySet<string> = new Set(['acrylic-cast', 'acrylic-extruded', 'slate', 'light-stone', 'glass', 'coated-clear', 'two-layer', 'tile']); // prettier-ignore

/** The newest table that was kept for these very settings and powers; null where there is none. */
function keptTable(
  facts: readonly FactNow[],
  constants: Pick<TonePlan['constants'], 'speedMmPerS' | 'intervalMm' | 'passes'>,
): KeptTable | null {
  const fits = facts.filter(
    ({ name, at }) =>
      name === 'tone' &&
      at['speed'] === constants.speedMmPerS &&
      at['interval'] === constants.intervalMm &&
      at['passes'] === constants.passes,
  );
  const kept = factOf(fits, 'tone');
  const mode = kept?.at['picture'];
  if (!kept || kept.stale.length > 0 || !isPictureMode(mode)) return null;
  const { floorFraction, topFraction, table } = kept.value;
  const { speedMmPerS, intervalMm, passes } = constants;
  return { mode, floorFraction, topFraction, speedMmPerS, intervalMm, passes, entries: table };
}

/**
 * Sixteen greys, each twice, from just above the floor up to the ceiling, as they were found or as is usual; where a table is kept for these settings,
 * the same wedge corrected by it, which proves it. Throws RangeError where the wavelength cannot mark.
 */
export function proposeTone(known: Known): Proposal<TonePlan> {
  const { pairing, facts } = known;
  const { machine, stock } = pairing;
  const { settings, reasons: fillReasons } = proposeFill(known);
  const { energies } = responseOf(stock, machine);
  const family = familyOf(stock.family);
  const { powerFraction: _power, lineAngleDeg: _angle, crossHatch: _hatch, ...fill } = settings;
  const round = (fraction: number): number => Math.round(fraction * 1000) / 1000;
  const engrave = factOf(facts, 'engrave');
  const capW = deliveredPowerW(machine, machine.powerCap);
  const reached = capW / (energies.deep * settings.intervalMm);
  const speed = engrave ? settings.speedMmPerS : Math.min(settings.speedMmPerS, reached);
  const speedMmPerS = speed < 10 ? Math.max(0.1, Math.floor(speed * 10) / 10) : Math.floor(speed);
  const constants = { ...fill, speedMmPerS };
  const powerFor = (energy: number): number => commandFor(machine, energy * settings.intervalMm * speedMmPerS);
  const least = leastCommand(machine);
  const ceiling = powerAtSpeed(factOf(facts, 'ceiling'), speedMmPerS, machine);
  const floor = powerAtSpeed(factOf(facts, 'floor'), speedMmPerS, machine);
  const usualTop = engrave && !ceiling ? settings.powerFraction : powerFor(energies.deep);
  const topFraction = round(Math.min(machine.powerCap, Math.max(LEAST_RANGE * least, ceiling?.powerFraction ?? usualTop))); // prettier-ignore
  const floorFraction = round(
    Math.min(topFraction / LEAST_RANGE, floor?.powerFraction ?? Math.max(machine.lowestFiringCommand, powerFor(energies.faint))),
  ); // prettier-ignore
  const table = keptTable(facts, constants);
  const mode: PictureMode = table?.mode ?? (NO_MIDTONES.has(stock.family) ? 'floyd-steinberg' : 'power');
  const frame = proposeFrame(pairing);
  const { 'constants.powerFraction': _said, ...reasons } = fillReasons;
  const modeReason = NO_MIDTONES.has(stock.family)
    ? `${family.name.toLowerCase()} has next to no midtones of its own: dots of one power make them`
    : 'the stock takes tones between: power that follows grey shows no dots';
  const found = (what: string, measured: boolean): string =>
    measured ? `the measured ${what}` : `the measured ${what}, brought to this speed by equal energy`;
  return {
    plan: {
      version: TONE_VERSION,
      mode,
      steps: STEPS,
      repeats: REPEATS,
      floorFraction: table?.floorFraction ?? floorFraction,
      topFraction: table?.topFraction ?? topFraction,
      corrected: table !== null,
      table,
      patchMm: PATCH_MM,
      gapMm: GAP_MM,
      constants,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      mode: table ? 'as the kept table was measured' : modeReason,
      corrected: table
        ? 'a table is kept for these settings: this wedge proves it'
        : 'no table is kept for these settings yet: this wedge makes one',
      topFraction: table
        ? 'as the kept table was measured'
        : ceiling
          ? `${found('ceiling', ceiling.measured)}: past it nothing gets darker`
          : engrave
            ? 'the power of the kept engraving setting: no ceiling is measured yet'
            : `where ${family.name.toLowerCase()} hardly gets stronger, by what is usual: no ceiling is measured yet`,
      floorFraction: table
        ? 'as the kept table was measured'
        : floor
          ? `${found('floor', floor.measured)}: white stays white`
          : `about where ${family.name.toLowerCase()} begins to show a mark, ${formatPower(floorFraction)}: no floor is measured yet`,
      steps: 'each grey twice, in mirrored places: light and grain that change evenly across the card cancel',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

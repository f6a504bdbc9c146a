import { factOf, type FactNow } from '../book/facts';
import { commandFor, leastCommand } from '../machine/command';
import { deliveredPowerW } from '../machine/machine';
import { isPictureMode, PICTURE_MODE_NAMES, PICTURE_MODES, type PictureMode } from '../picture/mode';
import { formatPower } from '../quantities/format';
import { familyOf } from '../stock/families';
import { responseOf } from '../stock/response';
import { powerAtSpeed } from './at-speed';
import { checkPower } from './check-settings';
import type { Known, Pairing, PlanProblem } from './contract';
import type { PlanField } from './plan-fields';
import { proposeFill } from './propose-fill';
import type { BurnSettings } from './settings';

/** A tone table as it was kept, and what it was measured with: it corrects nothing else. */
export interface KeptTable {
  readonly mode: PictureMode;
  readonly floorFraction: number;
  readonly topFraction: number;
  readonly speedMmPerS: number;
  readonly intervalMm: number;
  readonly passes: number;
  /** 256 greys to burn, for the greys of a picture. */
  readonly entries: readonly number[];
}

/** How greys are burned: by which mode, between which powers, corrected by which table. */
export interface Tones {
  readonly mode: PictureMode;
  /** Power of a grey of next to nothing, where power follows grey. */
  readonly floorFraction: number;
  /** Power of black, and of every dot. */
  readonly topFraction: number;
  /** Whether greys go through the kept table first. */
  readonly corrected: boolean;
  readonly table: KeptTable | null;
  readonly constants: Omit<BurnSettings, 'powerFraction' | 'lineAngleDeg' | 'crossHatch'>;
}

/** Black needs at least so many times the power of the floor for tones to lie between. */
const LEAST_RANGE = 2;
/** A plan whose black has not so many times the power of its floor burns one tone. */
const LEAST_FACTOR = 1.2;
/** Two powers this close are one: what is worked out of a card's cells is rounded. */
const SAME_POWER = 5e-4;
/** Stock that has no midtones: it is marked in a place or it is not (common practice). */
const NO_MIDTONES: ReadonlySet<string> = new Set([
  'acrylic-cast',
  'acrylic-extruded',
  'slate',
  'light-stone',
  'glass',
  'coated-clear',
  'two-layer',
  'tile',
]);

/** The newest table that was kept for these very settings and powers; null where there is none. */
function keptTable(
  facts: readonly FactNow[],
  constants: Pick<Tones['constants'], 'speedMmPerS' | 'intervalMm' | 'passes'>,
): KeptTable | null {
  const fits = facts.filter(
    ({ at }) =>
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
 * How greys would be burned on a pairing: as the kept table was measured, else from just above the floor up to the ceiling, as they were found or as
 * is usual. With the reason for each under its path in a plan. Throws RangeError where the wavelength cannot mark.
 */
export function proposeTones(known: Known): { tones: Tones; reasons: Record<string, string> } {
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
  const topFraction = round(
    Math.min(machine.powerCap, Math.max(LEAST_RANGE * least, ceiling?.powerFraction ?? usualTop)),
  );
  const floorFraction = round(
    Math.min(
      topFraction / LEAST_RANGE,
      floor?.powerFraction ?? Math.max(machine.lowestFiringCommand, powerFor(energies.faint)),
    ),
  );
  const table = keptTable(facts, constants);
  const mode: PictureMode = table?.mode ?? (NO_MIDTONES.has(stock.family) ? 'floyd-steinberg' : 'power');
  const { 'constants.powerFraction': _said, ...reasons } = fillReasons;
  const modeReason = NO_MIDTONES.has(stock.family)
    ? `${family.name.toLowerCase()} has next to no midtones of its own: dots of one power make them`
    : 'the stock takes tones between: power that follows grey shows no dots';
  const found = (what: string, measured: boolean): string =>
    measured ? `the measured ${what}` : `the measured ${what}, brought to this speed by equal energy`;
  return {
    tones: {
      mode,
      floorFraction: table?.floorFraction ?? floorFraction,
      topFraction: table?.topFraction ?? topFraction,
      corrected: table !== null,
      table,
      constants,
    },
    reasons: {
      ...reasons,
      mode: table ? 'as the kept table was measured' : modeReason,
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
    },
  };
}

/** How greys are burned, for a planner: by which mode, and whether the kept table corrects them, where one is kept. */
export const toneFields = ({ table }: Tones): PlanField[] => [
  {
    path: 'mode',
    label: 'Greys are burned by',
    as: 'choice',
    options: PICTURE_MODES.map((value) => ({ value, name: PICTURE_MODE_NAMES[value] })),
    group: 'cells',
  },
  ...(table ? [{ path: 'corrected', label: 'Corrected by the kept table', as: 'flag', group: 'cells' } as const] : []),
];

/** Between which powers greys are burned, for a planner: dots have one. */
export const tonePowerFields = ({ mode }: Tones): PlanField[] => [
  ...(mode === 'power'
    ? [{ path: 'floorFraction', label: 'Power of next to nothing', as: 'power', group: 'cells' } as const]
    : []),
  { path: 'topFraction', label: mode === 'power' ? 'Power of black' : 'Power of dots', as: 'power', group: 'cells' },
];

/** What is wrong with how greys are to be burned. `without` says what to do where no table is kept that is to correct them. */
export function checkTones(tones: Tones, on: Pairing, without: string): PlanProblem[] {
  const { mode, floorFraction, topFraction } = tones;
  return [
    ...checkPower('topFraction', topFraction, on),
    ...(mode !== 'power' || (floorFraction >= 0 && floorFraction * LEAST_FACTOR <= topFraction)
      ? []
      : [{ field: 'floorFraction', message: 'The floor lies well below the power of black, at 0 % or more.' }]),
    ...checkTable(tones, without),
  ];
}

/** What is wrong where greys are to be corrected: a kept table corrects only what it was measured with. `without` says what to do where none is kept. */
function checkTable(
  { corrected, table, mode, floorFraction, topFraction, constants }: Tones,
  without: string,
): PlanProblem[] {
  if (!corrected) return [];
  const field = 'corrected';
  if (!table) return [{ field, message: `No table is kept for these settings yet: ${without}` }];
  const same =
    table.mode === mode &&
    (['speedMmPerS', 'intervalMm', 'passes'] as const).every((field) => table[field] === constants[field]) &&
    Math.abs(table.topFraction - topFraction) < SAME_POWER &&
    (mode !== 'power' || Math.abs(table.floorFraction - floorFraction) < SAME_POWER);
  return same
    ? []
    : [
        {
          field,
          message:
            'The kept table was measured with another mode, speed, interval or power, and corrects nothing else.',
        },
      ];
}

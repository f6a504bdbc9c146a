import { factOf } from '../../core/book/facts';
import type { Known, Pairing, Proposal } from '../../core/card/contract';
import { estimateCard } from '../../core/card/estimate';
import { proposeSetup } from '../../core/card/work-setup';
import { proposeFrame } from '../../core/card/frame-settings';
import { layCard, planProblems } from '../../core/card/lay';
import { freePlace } from '../../core/card/place';
import { proposeConstants } from '../../core/card/propose-constants';
import { withMachineFacts } from '../../core/card/propose-machine-facts';
import type { Constants } from '../../core/card/settings';
import { fastestUsefulMmPerS, USUAL_LINE_MM } from '../../core/card/useful-speed';
import { commandFor } from '../../core/machine/command';
import { deliveredPowerW, sweepLimits, type Machine } from '../../core/machine/machine';
import { formatDuration, formatLength, formatPower, formatSpeed, plainNumber } from '../../core/quantities/format';
import { familyOf, type EngravingEnergies, type Family } from '../../core/stock/families';
import { responseOf } from '../../core/stock/response';
import { boundGrid } from './bound';
import { checkGridPlan } from './check';
import { drawGrid } from './draw';
import { GRID_EASES, GRID_VERSION, type GridPlan } from './plan';

/** A full grid at default size has taken an hour; a proposal stays under these. */
const PROPOSAL_LIMITS = { burnS: 180, areaCm2: 25 } as const;

/** Counts and cell sizes from the most to the least informative; the first that keeps within the limits is proposed. */
const SIZES = [
  { columns: 7, rows: 6, cellMm: 5 },
  { columns: 6, rows: 6, cellMm: 5 },
  { columns: 6, rows: 6, cellMm: 4 },
  { columns: 6, rows: 5, cellMm: 4 },
  { columns: 5, rows: 5, cellMm: 4 },
  { columns: 5, rows: 5, cellMm: 3 },
  { columns: 4, rows: 4, cellMm: 3 },
  { columns: 3, rows: 3, cellMm: 3 },
] as const;

/** High power over low power, and high speed over low: together they span from a faint mark to just short of spoiling. */
const POWER_SPAN = 4;

interface Ends {
  readonly powerLow: number;
  readonly powerHigh: number;
  readonly speedLow: number;
  readonly speedHigh: number;
  readonly reasons: Record<string, string>;
}

const roundTo = (value: number, step: number): number => Math.round(Math.round(value / step) * step * 1e6) / 1e6;
const speedStep = (speed: number): number => (speed < 20 ? 1 : speed < 100 ? 5 : 10);

/** Cells are planned to get this much less than what spoiled, or went through, at the most. */
const SHORT_OF = 0.92;

function chooseEnds(
  machine: Machine,
  family: Family,
  energies: EngravingEnergies,
  constants: Constants,
  throughJPerMm2: number,
): Ends {
  const { intervalMm, direction } = constants;
  const liked = machine.likedUnits;
  const limits = sweepLimits(machine, direction);
  const { faint } = energies;
  const strongest = SHORT_OF * Math.min(energies.over, throughJPerMm2);
  const bounded = throughJPerMm2 < energies.over;
  const spoils = bounded ? 'what burned through here' : `spoiling ${family.name.toLowerCase()}`;
  const reasons: Record<string, string> = {};

  const capW = deliveredPowerW(machine, machine.powerCap);
  const usefulTop = fastestUsefulMmPerS(machine, direction);
  // At the cap and the fastest useful sweep the mark should be about faint at a quarter of the power.
  const speedSpan = Math.max(1.5, strongest / faint / POWER_SPAN);
  let speedLow = capW / (intervalMm * strongest);
  let powerHigh = machine.powerCap;
  reasons['across.to'] =
    `the machine’s cap: the strongest corner reaches ${plainNumber(strongest, 2)} J/mm², just short of ${spoils}`;
  if (speedLow * speedSpan > usefulTop) {
    speedLow = usefulTop / speedSpan;
    const enough = commandFor(machine, strongest * speedLow * intervalMm);
    // A hair below the cap is the cap.
    powerHigh = enough > machine.powerCap - 0.02 ? machine.powerCap : enough;
  }
  if (powerHigh < machine.powerCap) {
    reasons['across.to'] =
      `not the machine’s ${plainNumber(machine.powerCap * 100)} %: above this ${bounded ? 'the sheet was burned through' : `${family.name.toLowerCase()} is spoiled`} at every useful speed (over ${plainNumber(strongest, 2)} J/mm²)`;
  }
  let speedHigh = Math.min(usefulTop, speedLow * speedSpan);
  let powerLow = powerHigh / POWER_SPAN;
  reasons['across.from'] =
    `a quarter of the high end: at ${formatSpeed(speedHigh, liked)} about where a mark begins (${plainNumber(faint, 2)} J/mm²)`;
  const firing = machine.lowestFiringCommand * 1.15;
  if (powerLow < firing) {
    powerLow = firing;
    powerHigh = Math.max(powerHigh, Math.min(machine.powerCap, firing * 1.8));
    reasons['across.from'] =
      `just above ${plainNumber(machine.lowestFiringCommand * 100)} %, below which this source does not fire`;
  }
  // Even the weakest power that fires may be too much at speeds that pay: then the head must go faster than that.
  const slowest = deliveredPowerW(machine, powerHigh) / (intervalMm * strongest);
  const hurried = slowest > speedLow * 1.001;
  if (hurried) {
    speedLow = Math.min(slowest, limits.topSpeedMmPerS * 0.7);
    speedHigh = Math.min(limits.topSpeedMmPerS, Math.max(speedHigh, speedLow * 1.5));
  }
  reasons['down.from'] =
    `slower than this, the strongest column is past ${plainNumber(strongest, 2)} J/mm² and ${bounded ? 'goes through' : 'spoils'} the sheet`;
  reasons['down.to'] = hurried
    ? 'faster than pays by time: slower, even the lowest power that fires would spoil the sheet'
    : speedHigh >= usefulTop - 1e-9
      ? usefulTop < limits.topSpeedMmPerS - 1e-9
        ? `the fastest sweep that still pays on lines of ${formatLength(USUAL_LINE_MM, liked)}: past it run-up costs more than speed gains (top ${formatSpeed(limits.topSpeedMmPerS, liked)})`
        : 'the top speed of this axis'
      : 'faster than this, the weakest column leaves no mark';
  return { powerLow, powerHigh, speedLow, speedHigh, reasons };
}

/** A second card spans this factor up and down in power and in speed around what the first one found. */
const AROUND = { power: 1.45, speed: 1.45 } as const;

/** Ends around the setting that an earlier card found, within the machine's limits. */
function endsAround(
  machine: Machine,
  found: { powerFraction: number; speedMmPerS: number },
  topSpeed: number,
  throughJPerMm: number,
): Ends {
  const { powerFraction, speedMmPerS } = found;
  const strongestW = SHORT_OF * throughJPerMm * speedMmPerS;
  // The strongest corner stays short of what burned through, by its power where the setting's own speed is not enough, but not below the setting.
  const bound = Number.isFinite(strongestW) ? Math.max(powerFraction, commandFor(machine, strongestW)) : Infinity;
  const powerHigh = Math.min(machine.powerCap, powerFraction * AROUND.power, bound);
  const slowest = deliveredPowerW(machine, powerHigh) / (SHORT_OF * throughJPerMm);
  const speedLow = Math.max(speedMmPerS / AROUND.speed, Math.min(slowest, speedMmPerS));
  const because = 'around the kept setting';
  return {
    powerLow: Math.max(machine.lowestFiringCommand * 1.15, powerFraction / AROUND.power),
    powerHigh,
    speedLow,
    speedHigh: Math.min(topSpeed, speedMmPerS * AROUND.speed),
    reasons: {
      'across.from': `${because} of ${formatPower(powerFraction)}, closer than the first card`,
      'across.to':
        bound < powerFraction * AROUND.power
          ? 'above this, cells get what burned through here'
          : `${because} of ${formatPower(powerFraction)}, closer than the first card`,
      'down.from':
        speedLow > speedMmPerS / AROUND.speed
          ? 'slower than this, the strongest column gets what burned through here'
          : `${because} of ${formatSpeed(speedMmPerS, machine.likedUnits)}`,
      'down.to': `${because} of ${formatSpeed(speedMmPerS, machine.likedUnits)}`,
    },
  };
}

/** Rows are proposed where they save more than this share of the time. */
const ROWS_SAVE = 0.2;

/** The same card with its rows crossed in one sweep; null where its lines do not run along the rows. */
function inRows(plan: GridPlan, { machine }: Pairing): GridPlan | null {
  if (machine.head === 'galvo' || plan.constants.direction !== 'horizontal') return null;
  return { ...plan, sweeps: 'rows' };
}

const KIND = {
  kind: 'grid',
  version: GRID_VERSION,
  check: checkGridPlan,
  bound: boundGrid,
  eases: GRID_EASES,
  draw: drawGrid,
} as const;

/**
 * The card to burn on a pairing, with a reason for each value: the first one from a faint mark to just short of spoiling the sheet for
 * this source and family, a later one closer around the setting that was kept, never below a measured floor; the largest size that
 * burns in under three minutes on less than 25 cm². Throws RangeError for stock of unknown family or that the wavelength cannot mark.
 */
export function proposeGrid(known: Known): Proposal<GridPlan> {
  const { pairing, facts } = known;
  const { machine, stock } = pairing;
  const family = familyOf(stock.family);
  const fit = responseOf(stock, machine);
  if (fit.verdict === 'no') throw new RangeError(`invalid pairing: ${fit.reason}`);
  const { constants, reasons: constantReasons } = proposeConstants(known);
  const limits = sweepLimits(machine, constants.direction);
  const found = factOf(facts, 'engrave');
  const through = factOf(facts, 'burnedThrough');
  // Of one pass.
  const throughJPerMm2 =
    through && through.stale.length === 0 ? through.value.arealJPerMm2 / constants.passes : Infinity;
  const ends = found
    ? endsAround(machine, found.value.settings, limits.topSpeedMmPerS, throughJPerMm2 * constants.intervalMm)
    : chooseEnds(machine, family, fit.energies, constants, throughJPerMm2);
  const frame = proposeFrame(pairing);
  const reasons: Record<string, string> = {
    ...ends.reasons,
    ...constantReasons,
    'frame.marker.powerFraction': frame.reasons.marker,
    'frame.lettering.powerFraction': frame.reasons.lettering,
  };
  const floor = factOf(facts, 'floor');
  let lowEnd = ends.powerLow;
  if (floor && floor.stale.length === 0 && floor.value.powerFraction > lowEnd) {
    lowEnd = Math.min(floor.value.powerFraction, ends.powerHigh * 0.8);
    reasons['across.from'] = `the measured floor: below ${formatPower(floor.value.powerFraction)} nothing marks here`;
  }

  const step = 0.005;
  const powerLow = Math.max(step, roundTo(lowEnd, step));
  const powerHigh = Math.max(powerLow + 4 * step, Math.min(machine.powerCap, roundTo(ends.powerHigh, step)));
  const speedHigh = Math.min(limits.topSpeedMmPerS, roundTo(ends.speedHigh, speedStep(ends.speedHigh)));
  const speedLow = Math.min(speedHigh * 0.7, roundTo(ends.speedLow, speedStep(ends.speedLow)) || ends.speedLow);
  // One offset for the whole card: right in the middle of its speeds, and little off at their ends. Run-up is as the fastest needs it.
  const atMiddle = withMachineFacts(constants, known, Math.round(Math.sqrt(speedLow * speedHigh)));
  const atFastest = withMachineFacts(constants, known, Math.round(speedHigh));
  const { scanOffsetMm, lengthenMm } = atMiddle.constants;
  const { runUpMm } = atFastest.constants;
  for (const [path, { reasons: why }] of [
    ['constants.scanOffsetMm', atMiddle],
    ['constants.lengthenMm', atMiddle],
    ['constants.runUpMm', atFastest],
  ] as const)
    if (why[path] !== undefined) reasons[path] = why[path];

  const base: GridPlan = {
    version: GRID_VERSION,
    across: { channel: 'power', from: powerLow, to: powerHigh, count: 6, spacing: 'ratio' },
    down: { channel: 'speed', from: roundTo(speedLow, 1) || speedLow, to: speedHigh, count: 6, spacing: 'ratio' },
    repeats: 1,
    placing: 'ordered',
    cellMm: 4,
    gapMm: 1,
    constants: {
      ...constants,
      scanOffsetMm,
      lengthenMm,
      runUpMm,
      powerFraction: Math.sqrt(powerLow * powerHigh),
      speedMmPerS: Math.sqrt(speedLow * speedHigh),
    },
    frame: frame.settings,
    leaveOutFailing: true,
    setup: proposeSetup(pairing),
    sweeps: 'cells',
  };
  reasons['leaveOutFailing'] =
    'cells bound to spoil the sheet, or to leave nothing, are not burned: tick it off to see them all';
  reasons['across.spacing'] = 'by ratio: each step changes the energy by the same factor';
  for (const size of SIZES) {
    const plan: GridPlan = {
      ...base,
      across: { ...base.across, count: size.columns },
      down: { ...base.down, count: size.rows },
      cellMm: size.cellMm,
    };
    // What cannot be laid here, with a source too strong for this stock, is shown with what is wrong, for the operator to mend.
    if (planProblems(KIND, plan, pairing).length > 0) return { plan, reasons };
    const alone = layCard(KIND, plan, pairing, { cardNumber: 0 });
    const rows = inRows(plan, pairing);
    const [aloneS, rowsS] = [alone, rows && layCard(KIND, rows, pairing, { cardNumber: 0 })].map((laid) =>
      laid ? estimateCard(laid, machine).totalS : Infinity,
    ) as [number, number];
    const byRow = rowsS < aloneS * (1 - ROWS_SAVE);
    const burnS = byRow ? rowsS : aloneS;
    const fits =
      burnS < PROPOSAL_LIMITS.burnS &&
      (alone.widthMm * alone.heightMm) / 100 < PROPOSAL_LIMITS.areaCm2 &&
      freePlace(stock, [], alone) !== null;
    if (fits || size === SIZES.at(-1)) {
      reasons['size'] =
        `${size.columns} × ${size.rows} cells of ${formatLength(size.cellMm, machine.likedUnits)}: the most that burns in under three minutes on less than 25 cm²`;
      reasons['sweeps'] = byRow
        ? `a row in one sweep takes ${formatDuration(rowsS)} instead of ${formatDuration(aloneS)}`
        : 'each cell by itself: heat and smoke of one do not run into the next, and a row would save less than a fifth of the time';
      return { plan: byRow ? rows! : plan, reasons };
    }
  }
  throw new Error('unreachable: the last size is always proposed');
}

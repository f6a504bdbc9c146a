import type { Known, Proposal } from '../../core/card/contract';
import { estimateCard } from '../../core/card/estimate';
import { deliveredPowerW, sweepLimits, type Machine } from '../../core/machine/machine';
import { fastestFillSpeedMmPerS } from '../../core/motion/move';
import { plainNumber } from '../../core/quantities/format';
import { suitability } from '../../core/stock/absorption';
import { familyOf, type Family } from '../../core/stock/families';
import { layGrid } from './lay';
import type { GridPlan } from './plan';

/** A full grid at default size has taken an hour; a proposal stays under these. */
export const PROPOSAL_LIMITS = { burnS: 240, areaCm2: 30 } as const;

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

/** The command that delivers `wantedW`, by bisection: delivered power never falls with the command. */
function commandFor(machine: Machine, wantedW: number): number {
  let low = 0;
  let high = 1;
  for (let step = 0; step < 30; step++) {
    const middle = (low + high) / 2;
    if (deliveredPowerW(machine, middle) < wantedW) low = middle;
    else high = middle;
  }
  return high;
}

function chooseEnds(machine: Machine, family: Family, absorption: number, intervalMm: number): Ends {
  const limits = sweepLimits(machine, 'horizontal');
  const faint = family.energies.faint / absorption;
  const strongest = (family.energies.over * 0.92) / absorption;
  const reasons: Record<string, string> = {};

  const capW = deliveredPowerW(machine, machine.powerCap);
  const usefulTop = Math.min(limits.topSpeedMmPerS * 0.8, fastestFillSpeedMmPerS(40, limits.accelerationMmPerS2) * 1.6);
  // At the cap and the fastest useful sweep the mark should be about faint at a quarter of the power.
  const speedSpan = Math.max(1.5, strongest / faint / POWER_SPAN);
  let speedLow = capW / (intervalMm * strongest);
  let powerHigh = machine.powerCap;
  reasons['power.to'] =
    `the machine’s cap: the strongest corner reaches ${plainNumber(strongest, 2)} J/mm², just short of spoiling ${family.name.toLowerCase()}`;
  if (speedLow * speedSpan > usefulTop) {
    speedLow = usefulTop / speedSpan;
    const enough = commandFor(machine, strongest * speedLow * intervalMm);
    // A hair below the cap is the cap.
    powerHigh = enough > machine.powerCap - 0.02 ? machine.powerCap : enough;
  }
  if (powerHigh < machine.powerCap) {
    reasons['power.to'] =
      `not the machine’s ${plainNumber(machine.powerCap * 100)} %: above this ${family.name.toLowerCase()} is spoiled at every useful speed (over ${plainNumber(strongest, 2)} J/mm²)`;
  }
  const speedHigh = Math.min(usefulTop, speedLow * speedSpan);
  let powerLow = powerHigh / POWER_SPAN;
  reasons['power.from'] =
    `a quarter of the high end: at ${plainNumber(speedHigh)} mm/s about where a mark begins (${plainNumber(faint, 2)} J/mm²)`;
  const firing = machine.lowestFiringCommand * 1.15;
  if (powerLow < firing) {
    powerLow = firing;
    powerHigh = Math.max(powerHigh, Math.min(machine.powerCap, firing * 1.8));
    reasons['power.from'] =
      `just above ${plainNumber(machine.lowestFiringCommand * 100)} %, below which this source does not fire`;
  }
  reasons['speed.from'] =
    `slower than this, the strongest column is past ${plainNumber(strongest, 2)} J/mm² and spoils the sheet`;
  reasons['speed.to'] =
    speedHigh >= usefulTop - 1e-9
      ? `the fastest sweep that still pays: past it run-up costs more than speed gains (top ${plainNumber(limits.topSpeedMmPerS)} mm/s)`
      : 'faster than this, the weakest column leaves no mark';
  return { powerLow, powerHigh, speedLow, speedHigh, reasons };
}

/**
 * The card to burn first on a pairing, with a reason for each value: ends that run from a faint mark to just short of
 * spoiling the sheet for this source and family, and the largest size that burns in under four minutes on less than 30 cm².
 * Throws RangeError for stock of unknown family or that the wavelength cannot mark.
 */
export function proposeGrid({ pairing }: Known): Proposal<GridPlan> {
  const { machine, stock, lens } = pairing;
  const family = familyOf(stock.family);
  const fit = suitability(stock.family, machine.sourceKind, stock.type);
  if (fit.verdict === 'no') throw new RangeError(`invalid pairing: ${fit.reason}`);
  // Lines closer than the spot resolves only add time and mud; much wider than the spot they leave ridges.
  const spotMm = lens.spotYMm;
  const intervalMm = roundTo(Math.min(Math.max(family.intervalMm, spotMm * 0.8), 0.3), 0.005);
  const ends = chooseEnds(machine, family, fit.absorption, intervalMm);
  const reasons = ends.reasons;
  reasons['constants.intervalMm'] =
    intervalMm > family.intervalMm + 1e-9
      ? `0.8 of this lens’s ${plainNumber(spotMm)} mm spot: closer lines only add time`
      : `usual for ${family.name.toLowerCase()}`;

  const air =
    machine.airAssist === 'none' ? 'off' : machine.airAssist === 'on-off' && family.air === 'low' ? 'off' : family.air;
  reasons['constants.air'] =
    air === family.air ? family.airReason : 'what this machine can do; the family would like low air';
  const direction =
    stock.grain === 'along-depth' || !family.grained
      ? 'horizontal'
      : stock.grain === 'along-width'
        ? 'vertical'
        : 'horizontal';
  const lines =
    direction === 'vertical' && machine.accelerationYMmPerS2 < machine.accelerationXMmPerS2 / 2
      ? 'horizontal'
      : direction;
  reasons['constants.direction'] =
    lines !== direction
      ? 'along x: across the grain would be better, but this head is much quicker along x'
      : family.grained && stock.grain !== 'none'
        ? 'across the grain'
        : 'along x, the axis that moves the lighter part';
  const limits = sweepLimits(machine, lines);

  const step = 0.005;
  const powerLow = Math.max(step, roundTo(ends.powerLow, step));
  const powerHigh = Math.max(powerLow + 4 * step, Math.min(machine.powerCap, roundTo(ends.powerHigh, step)));
  const speedHigh = Math.min(limits.topSpeedMmPerS, roundTo(ends.speedHigh, speedStep(ends.speedHigh)));
  const speedLow = Math.min(speedHigh * 0.7, roundTo(ends.speedLow, speedStep(ends.speedLow)) || ends.speedLow);

  const solidJPerMm2 = (family.energies.deep * 0.85) / fit.absorption;
  const markerInterval = Math.max(intervalMm, 0.12);
  const markerSpeed = Math.min(speedHigh, deliveredPowerW(machine, powerHigh) / (solidJPerMm2 * markerInterval));
  const markerPower = commandFor(machine, solidJPerMm2 * markerInterval * markerSpeed);
  const markerSettings = {
    powerFraction: Math.min(machine.powerCap, roundTo(markerPower, step)),
    speedMmPerS: roundTo(markerSpeed, 1) || markerSpeed,
    intervalMm: markerInterval,
  };
  const letteringSettings = {
    powerFraction: markerSettings.powerFraction,
    speedMmPerS: Math.max(1, roundTo(Math.min(markerSettings.speedMmPerS, 120) * 0.7, 1)),
  };
  reasons['markerSettings'] =
    `a solid mark, ${plainNumber(solidJPerMm2, 2)} J/mm²: markers must show clearly in the photo`;
  reasons['letteringSettings'] = 'the markers’ power, slower for narrow lines';

  const base: GridPlan = {
    power: { from: powerLow, to: powerHigh, count: 6, spacing: 'ratio' },
    speed: { from: roundTo(speedLow, 1) || speedLow, to: speedHigh, count: 6, spacing: 'ratio' },
    cellMm: 4,
    gapMm: 1,
    constants: { intervalMm, passes: 1, focusOffsetMm: 0, air, direction: lines, bothWays: true },
    markerSettings,
    letteringSettings,
    leaveOutFailing: false,
  };
  reasons['power.spacing'] = 'by ratio: each step changes the energy by the same factor';
  for (const size of SIZES) {
    const plan: GridPlan = {
      ...base,
      power: { ...base.power, count: size.columns },
      speed: { ...base.speed, count: size.rows },
      cellMm: size.cellMm,
    };
    const layout = layGrid(plan, pairing, { cardNumber: 0 });
    const burnS = estimateCard(layout, machine).totalS;
    const fits =
      burnS < PROPOSAL_LIMITS.burnS &&
      (layout.widthMm * layout.heightMm) / 100 < PROPOSAL_LIMITS.areaCm2 &&
      layout.widthMm <= stock.sheetWidthMm &&
      layout.heightMm <= stock.sheetDepthMm;
    if (fits || size === SIZES.at(-1)) {
      reasons['size'] =
        `${size.columns} × ${size.rows} cells of ${size.cellMm} mm: the most that burns in under four minutes on less than 30 cm²`;
      return { plan, reasons };
    }
  }
  throw new Error('unreachable: the last size is always proposed');
}

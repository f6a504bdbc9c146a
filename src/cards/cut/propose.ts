import { factOf } from '../../core/book/facts';
import { axisValues, type Axis } from '../../core/card/axis';
import type { Known, Pairing, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import {
  cutConstants,
  cutPasses,
  fastestCutMmPerS,
  LEAST_CUT_SPEED,
  passesReason,
  roundedCutSpeed,
} from '../../core/card/propose-cut';
import { proposeSetup } from '../../core/card/work-setup';
import { commandFor } from '../../core/machine/command';
import { deliveredPowerW } from '../../core/machine/machine';
import { formatLength, formatPower, formatSpeed, plainNumber } from '../../core/quantities/format';
import { cutEnergy, cutThroughJPerMm } from '../../core/stock/cutting';
import { familyOf } from '../../core/stock/families';
import { thicknessOf } from '../../core/stock/stock';
import { CUT_VERSION, outlineOf, type CutPlan, type RowAxis } from './plan';

/** Speeds, powers and squares from the most to the least that they tell; the first that keeps within the limit is proposed: 36 squares tell one place in thirty that holds up. */
const SIZES = [
  { columns: 6, rows: 6, sizeMm: 6 },
  { columns: 6, rows: 5, sizeMm: 6 },
  { columns: 5, rows: 5, sizeMm: 5 },
  { columns: 5, rows: 4, sizeMm: 4 },
  { columns: 4, rows: 4, sizeMm: 4 },
] as const;
type Size = (typeof SIZES)[number];
const GAP_MM = 2;
const LONGEST_S = 235;

/** Of what is expected to just come through, the least and the most that is tried: a table's figure is good to a factor of two to either side. */
const TRIED = { least: 0.4, most: 2.8 } as const;
/** Of what was found: sound stock comes through at the one, and parts drop surely at the other. */
const AROUND = { least: 0.85, most: 1.25 } as const;

interface Energies {
  /** J/mm of all passes. */
  readonly least: number;
  readonly most: number;
  readonly why: string;
}

/** Which energies to try: around what was kept, or from the family's figure. */
function energiesToTry({ pairing, facts }: Known, through: number): Energies {
  const { machine, stock } = pairing;
  const kept = factOf(facts, 'cut');
  if (kept && kept.stale.length === 0) {
    const { comesThrough, laidDown } = kept.value;
    const thickness = thicknessOf(stock).meanMm;
    return {
      least: AROUND.least * comesThrough * thickness,
      most: AROUND.most * laidDown * thickness,
      why: 'around what was kept, closer than the first card',
    };
  }
  const fallen = factOf(facts, 'burnedThrough');
  const told =
    fallen && fallen.stale.length === 0
      ? `; lines of ${plainNumber(fallen.value.lineJPerMm, 2)} J/mm went through where a fill lay them close`
      : '';
  return {
    least: TRIED.least * through,
    most: TRIED.most * through,
    why: `about ${plainNumber(through, 2)} J/mm should just come through ${familyOf(stock.family).name.toLowerCase()} as thick as this under ${machine.name}, ${cutEnergy(stock.family).origin}${told}: from less than half of that to almost three times as much`,
  };
}

/**
 * Speeds by equal ratios, and powers that divide one step of speed evenly among the rows: so every square gets an energy of its own, all of them evenly
 * spaced in its logarithm. At the cap where the head is fast enough, or else with less power.
 */
function endsFor(
  { least, most }: Energies,
  { columns, rows }: Size,
  passes: number,
  { machine }: Pairing,
): { speed: Axis; rows: RowAxis } {
  const stepOfRow = (most / least) ** (1 / (columns * rows - 1));
  const speedSpan = stepOfRow ** (rows * (columns - 1));
  const fastest = fastestCutMmPerS(machine);
  const slowest = (deliveredPowerW(machine, machine.powerCap) * passes) / most;
  const slow = Math.min(slowest, fastest / speedSpan);
  const powerTo = slow < slowest ? commandFor(machine, (most * slow) / passes) : machine.powerCap;
  const from = Math.max(0.1, roundedCutSpeed(slow));
  const round = (fraction: number): number => Math.round(fraction * 1000) / 1000;
  return {
    speed: { from, to: Math.round(from * speedSpan * 10) / 10, count: columns, spacing: 'ratio' },
    rows: {
      channel: 'power',
      from: round(
        Math.max(
          machine.lowestFiringCommand * 1.15,
          commandFor(machine, deliveredPowerW(machine, powerTo) / stepOfRow ** (rows - 1)),
        ),
      ),
      to: round(powerTo),
      count: rows,
      spacing: 'ratio',
    },
  };
}

/** The same card with rows of 1 to 4 passes at the same speeds, or of four powers again. */
export function withRows(plan: CutPlan, on: Pairing): CutPlan {
  const { machine } = on;
  if (plan.rows.channel === 'power') {
    const to = Math.min(machine.powerCap, plan.cut.powerFraction);
    return {
      ...plan,
      rows: { channel: 'power', from: Math.round(to * 790) / 1000, to, count: 4, spacing: 'ratio' },
    };
  }
  return { ...plan, rows: { channel: 'passes', from: 1, to: 4, count: 4, spacing: 'even' } };
}

/**
 * Up to 36 squares of 6 mm, each with an energy of its own, from what hardly comes through to what surely does: closer around a cut that was kept. Throws
 * RangeError for stock that this source does not cut, or not in this thickness.
 */
export function proposeCut(known: Known): Proposal<CutPlan> {
  const { pairing } = known;
  const { machine, stock } = pairing;
  const liked = machine.likedUnits;
  const through = cutThroughJPerMm(machine, stock);
  if (through === null)
    throw new RangeError(`invalid pairing: ${familyOf(stock.family).name} is not cut through by this source`);
  const energies = energiesToTry(known, through);
  const passes = cutPasses(known, energies.most);
  const constants = cutConstants(known, 'cut');
  const frame = proposeFrame(pairing);
  const planOf = (size: Size): CutPlan => {
    const { speed, rows } = endsFor(energies, size, passes, pairing);
    const middle = axisValues(speed)[Math.floor(size.columns / 2)]!;
    return {
      version: CUT_VERSION,
      speed,
      rows,
      sizeMm: size.sizeMm,
      gapMm: GAP_MM,
      cut: { ...constants.settings, passes, speedMmPerS: middle },
      frame: frame.settings,
      setup: proposeSetup(pairing),
    };
  };
  const size = SIZES.find((one) => timeOf(planOf(one)) * SQUARES_SHARE < LONGEST_S) ?? SIZES.at(-1)!;
  const plan = planOf(size);
  return {
    plan,
    reasons: {
      ...constants.reasons,
      'cut.passes': passesReason(passes, known),
      'speed.from': `${energies.why}; at no less than ${formatSpeed(LEAST_CUT_SPEED, liked)}, below which a cut chars`,
      'speed.to': 'faster than this the weakest square is not through',
      'rows.to':
        plan.rows.to < machine.powerCap - 1e-3
          ? `less than the cap of ${formatPower(machine.powerCap)}: the head would have to be faster than half its top speed`
          : `the machine’s cap of ${formatPower(machine.powerCap)}, which spares the source`,
      'rows.from': 'rows divide one step of speed: every square has an energy of its own',
      size: `${size.columns} × ${size.rows} squares of ${formatLength(size.sizeMm, liked)}: as many as burn in under four minutes; places that hold a cut up are rare, and few squares meet none`,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}

/** Of a card's time, what its cuts alone take is about the whole; travel and lettering add this much. */
const SQUARES_SHARE = 1.2;

/** Seconds that the cuts of all squares take. */
const timeOf = (plan: CutPlan): number =>
  axisValues(plan.speed).reduce((sum, speed) => sum + (plan.rows.count * plan.cut.passes * outlineOf(plan)) / speed, 0);

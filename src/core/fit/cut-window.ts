import { normalSum } from '../stats/normal';

/** One part that was cut round, and whether it dropped. */
export interface CutTrial {
  /** Delivered line energy of all passes over the thickness, J/mm for each mm. */
  readonly energy: number;
  readonly passes: number;
  /** Length of its outline. */
  readonly outlineMm: number;
  readonly drops: boolean;
  /** Of one that got pass after pass and dropped: with what it had not yet. Left out where nobody looked before. */
  readonly heldAt?: { readonly energy: number; readonly passes: number };
}

/** What a chance is, and between what it lies with 95 %. */
export interface ChanceBand {
  readonly chance: number;
  readonly low: number;
  readonly high: number;
}

/** How parts drop, by energy. */
export interface CutWindow {
  /** Chance that a part of such an outline drops, all doubt included. Of passes that were tried. */
  readonly chanceAt: (energy: number, passes: number, outlineMm: number) => ChanceBand;
  /** That chance without its band, which is the dear part of it: for what looks for a chance. */
  readonly meanChanceAt: (energy: number, passes: number, outlineMm: number) => number;
  /** Least energy at which such a part drops with that chance, all doubt included; null where none up to three times the greatest that was tried does. */
  readonly energyFor: (chance: number, passes: number, outlineMm: number) => number | null;
  /** Where sound stock just comes through, with 95 %: J/mm for each mm, in as many passes. */
  readonly comesThrough: (passes: number) => { readonly energy: number; readonly low: number; readonly high: number };
  /** Places inside the stock that hold a part up, for each 100 mm of outline: knots, glue, pockets; with 95 %. */
  readonly heldUp: { readonly per100Mm: number; readonly low: number; readonly high: number };
}

interface Draw {
  /** Logarithm of the energy at which sound stock comes through in one pass. */
  readonly middle: number;
  /** Its scatter from place to place. */
  readonly scatter: number;
  /** Places that hold up, for each mm. */
  readonly perMm: number;
  /** How much more, as a logarithm, such places ask for. */
  readonly more: number;
  /** By so much, for each step of ln(passes), all passes together ask for more than one. */
  readonly dearer: number;
  readonly weight: number;
}

/** Logarithmic scatter of sound stock: half a per cent to a quarter, most likely about three (from memory, without a source). */
const SCATTERS = [0.007, 0.015, 0.03, 0.06, 0.12, 0.24] as const;
const USUAL_SCATTER = 0.03;
/** What a place that holds up asks for beyond sound stock, as a logarithm: a tenth more to almost twice as much (from memory, without a source). */
const MORE = [0.1, 0.2, 0.35, 0.6] as const;
/** Before a card was burned it is known only to a factor of e how many there are: by how much more or fewer, as a logarithm. */
const HELD = [-2, -1.2, -0.4, 0.4, 1.2, 2] as const;
/** Several passes ask for as much as one together, or for less or more: shops tell either, one standard deviation for each step of ln(passes). */
const DEARER = 0.25;
const DEARER_STEPS = [-0.5, -0.25, 0, 0.25, 0.5] as const;
const MIDDLES = 45;
/** The first look only finds where it is likely. */
const COARSE = { scatters: [0.03, 0.12], held: [-1.2, 0, 1.2], mores: [0.2, 0.6] } as const;
const FINE = { scatters: SCATTERS, held: HELD, mores: MORE } as const;
/** Standard deviations of the first look that the second one covers. */
const REACH = 4;
/** Beyond what was tried, energies are looked for up to so many times it. */
const MOST_TIMES = 3;
/** Less than this beside the likeliest is left out. */
const LEAST_LOG = Math.log(1e-3);

const SURELY = 1e-6;

function chanceOf(draw: Omit<Draw, 'weight'>, lnEnergy: number, lnPasses: number, outlineMm: number): number {
  const beyond = lnEnergy - draw.middle - draw.dearer * lnPasses;
  const sound = normalSum(beyond / draw.scatter);
  const held = Math.exp(-draw.perMm * outlineMm * Math.exp(-Math.max(0, beyond) / draw.more));
  return Math.min(1 - SURELY, Math.max(SURELY, sound * held));
}

/** Halvings of the range of values: a billionth of it is left. */
const HALVINGS = 30;

/** The values up to which 2.5, 50 and 97.5 % of the weights lie: by halving, since there are many and in no order. */
function bandOf(values: Float64Array, weights: Float64Array): [low: number, middle: number, high: number] {
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const upTo = (share: number): number => {
    let low = values.reduce((least, value) => Math.min(least, value));
    let high = values.reduce((most, value) => Math.max(most, value));
    for (let halving = 0; halving < HALVINGS; halving++) {
      const middle = (low + high) / 2;
      let sum = 0;
      for (let at = 0; at < values.length; at++) if (values[at]! <= middle) sum += weights[at]!;
      if (sum >= share * all) high = middle;
      else low = middle;
    }
    return high;
  };
  return [upTo(0.025), upTo(0.5), upTo(0.975)];
}

/**
 * How parts drop by energy, from parts that did and did not. Sound stock comes through at an energy that scatters a little, evenly in its logarithm;
 * places that hold up lie along the outline as by chance, and ask for more, the more the rarer: so a long outline drops less often than a short one,
 * which a logistic curve would not say. All of it is weighed on a grid: no answers, however contradictory, keep it from ending; few of them leave it
 * unsure. What is known before, weakly: how much sound stock scatters, how many places hold up (`usualPer100Mm`, good to a factor of e), and that several
 * passes ask together for about as much as one; nothing is said of other passes where all trials had as many. A part that got pass after pass tells between which two it dropped. Throws RangeError for no trials, and for energies, passes or outlines that are not above zero.
 */
export function cutWindowOf(trials: readonly CutTrial[], usualPer100Mm: number): CutWindow {
  if (trials.length === 0) throw new RangeError('invalid trials: there are none');
  if (trials.some(({ energy, passes, outlineMm }) => !(energy > 0 && passes >= 1 && outlineMm > 0)))
    throw new RangeError('invalid trials: energies and outlines are above zero, passes 1 or more');
  const told = trials.map(({ energy, passes, outlineMm, drops, heldAt }): Told => ({
    lnEnergy: Math.log(energy),
    lnPasses: Math.log(passes),
    outlineMm,
    drops,
    heldAt: heldAt ? { lnEnergy: Math.log(heldAt.energy), lnPasses: Math.log(heldAt.passes) } : null,
  }));
  const severalPasses =
    new Set(trials.flatMap(({ passes, heldAt }) => [passes, ...(heldAt ? [heldAt.passes] : [])])).size > 1;
  const dearers = severalPasses ? DEARER_STEPS : ([0] as const);
  const before = told.map((one) => one.lnEnergy);
  const [from, to] = [Math.min(...before) - 1, Math.max(...before) + 1];
  // Once over all that may be, then closer where it is likely.
  const wide = weighed(told, usualPer100Mm / 100, { from, to, dearers, ...COARSE });
  const all = wide.reduce((sum, { weight }) => sum + weight, 0);
  const mean = wide.reduce((sum, { middle, weight }) => sum + weight * middle, 0) / all;
  const square = wide.reduce((sum, { middle, weight }) => sum + weight * (middle - mean) ** 2, 0) / all;
  const reach = REACH * Math.max(Math.sqrt(square), (to - from) / MIDDLES);
  const draws = weighed(told, usualPer100Mm / 100, { from: mean - reach, to: mean + reach, dearers, ...FINE });
  const total = draws.reduce((sum, { weight }) => sum + weight, 0);
  const meanChance = (lnEnergy: number, passes: number, outlineMm: number): number =>
    draws.reduce((sum, draw) => sum + draw.weight * chanceOf(draw, lnEnergy, Math.log(passes), outlineMm), 0) / total;
  const most = Math.max(...before) + Math.log(MOST_TIMES);
  const weights = Float64Array.from(draws, ({ weight }) => weight);
  const bandOver = (valueOf: (draw: Draw) => number) => bandOf(Float64Array.from(draws, valueOf), weights);
  const [fewestHeld, manyHeld, mostHeld] = bandOver(({ perMm }) => 100 * perMm);
  return {
    chanceAt: (energy, passes, outlineMm) => {
      const lnEnergy = Math.log(energy);
      const [low, , high] = bandOver((draw) => chanceOf(draw, lnEnergy, Math.log(passes), outlineMm));
      return { chance: meanChance(lnEnergy, passes, outlineMm), low, high };
    },
    meanChanceAt: (energy, passes, outlineMm) => meanChance(Math.log(energy), passes, outlineMm),
    energyFor: (chance, passes, outlineMm) => {
      if (!(meanChance(most, passes, outlineMm) >= chance)) return null;
      let [low, high] = [Math.min(...before) - 1, most];
      while (high - low > 1e-3) {
        const middle = (low + high) / 2;
        if (meanChance(middle, passes, outlineMm) >= chance) high = middle;
        else low = middle;
      }
      return Math.exp(high);
    },
    comesThrough: (passes) => {
      const [low, energy, high] = bandOver(({ middle, dearer }) => Math.exp(middle + dearer * Math.log(passes)));
      return { energy, low, high };
    },
    heldUp: { per100Mm: manyHeld, low: fewestHeld, high: mostHeld },
  };
}

interface Told {
  readonly lnEnergy: number;
  readonly lnPasses: number;
  readonly outlineMm: number;
  readonly drops: boolean;
  readonly heldAt: { readonly lnEnergy: number; readonly lnPasses: number } | null;
}

interface Grid {
  readonly from: number;
  readonly to: number;
  readonly dearers: readonly number[];
  readonly scatters: readonly number[];
  readonly held: readonly number[];
  readonly mores: readonly number[];
}

/** Every combination on the grid that the trials leave likely, with its weight. */
function weighed(told: readonly Told[], usualPerMm: number, grid: Grid): Draw[] {
  const found: (Omit<Draw, 'weight'> & { log: number })[] = [];
  let best = -Infinity;
  const combinations = grid.scatters.flatMap((scatter) =>
    grid.held.flatMap((held) =>
      grid.mores.flatMap((more) => grid.dearers.map((dearer) => ({ scatter, held, more, dearer }))),
    ),
  );
  for (let row = 0; row < MIDDLES; row++)
    for (const { scatter, held, more, dearer } of combinations) {
      const middle = grid.from + ((grid.to - grid.from) * row) / (MIDDLES - 1);
      const perMm = usualPerMm * Math.exp(held);
      const one = { middle, scatter, perMm, more, dearer };
      let log = -0.5 * (Math.log(scatter / USUAL_SCATTER) ** 2 + held ** 2 + (dearer / DEARER) ** 2);
      for (const { lnEnergy, lnPasses, outlineMm, drops, heldAt } of told) {
        const chance = chanceOf(one, lnEnergy, lnPasses, outlineMm);
        // The same place that dropped had held before: it lies between the two.
        const before = heldAt ? chanceOf(one, heldAt.lnEnergy, heldAt.lnPasses, outlineMm) : 0;
        log += Math.log(drops ? Math.max(SURELY, chance - before) : 1 - chance);
        // No answer makes anything likelier: what has fallen behind stays there.
        if (log < best + LEAST_LOG) break;
      }
      if (log >= best + LEAST_LOG) found.push({ middle, scatter, perMm, more, dearer, log });
      if (log > best) best = log;
    }
  return found
    .filter(({ log }) => log - best > LEAST_LOG)
    .map(({ middle, scatter, perMm, more, dearer, log }) => {
      const weight = Math.exp(log - best);
      return { middle, scatter, perMm, more, dearer, weight };
    });
}

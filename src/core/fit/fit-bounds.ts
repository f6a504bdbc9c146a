import { normalSum } from '../stats/normal';

/** How a sheet goes into a slot, from too tight to too loose. */
export const FITS = ['no', 'press', 'snug', 'slip', 'loose'] as const;
export type Fit = (typeof FITS)[number];

/** Each fit as it is called. */
export const FIT_WORDS: Readonly<Record<Fit, string>> = {
  no: 'does not go in',
  press: 'pressed in',
  snug: 'snug',
  slip: 'slips in',
  loose: 'loose',
};

/** The fits that somebody may want: the sheet goes in, and does not rattle. */
export const WANTED_FITS = ['press', 'snug', 'slip'] as const satisfies readonly Fit[];
export type WantedFit = (typeof WANTED_FITS)[number];

const NEXT = { press: 'snug', snug: 'slip', slip: 'loose' } as const;

/** One slot that a sheet was tried in: how much wider than the sheet it was drawn, and how the sheet went in. */
export interface FeltSlot {
  readonly clearanceMm: number;
  readonly fit: Fit;
}

/** Where one fit ends and the next begins. */
export interface FitBound {
  readonly atMm: number;
  readonly sigmaMm: number;
}

export interface FitBounds {
  /** Where each fit begins that is not the tightest, as drawn clearance. */
  readonly from: Readonly<Record<Exclude<Fit, 'no'>, FitBound>>;
  /** Standard deviation of what one slot feels like against another of the same width: cut, sheet and hand together. */
  readonly scatterMm: number;
}

/** Before anything was tried: where fits usually begin once the kerf is made up for, and how unsure that is (common practice, from memory). */
const USUAL_MM = { press: -0.1, snug: -0.02, slip: 0.06, loose: 0.16 } as const;
const USUAL_SIGMA_MM = 0.15;
/** Scatter from slot to slot: a hundredth to a tenth, most likely about two hundredths (from memory, without a source). */
const SCATTERS_MM = [0.006, 0.01, 0.016, 0.025, 0.04, 0.065, 0.1] as const;
const USUAL_SCATTER_MM = 0.02;
const SCATTER_LOG_SIGMA = 0.6;
const STEP_MM = 0.004;
/** Beyond the slots that were tried a bound may lie this far. */
const BEYOND_MM = 0.5;

/**
 * Where each fit begins, from slots that a sheet was tried in: an ordered probit in which all bounds share one scatter, by its posterior on a grid,
 * with what is usual for as much as the slots leave open. A bound that no slot lies beyond stays as unsure as that. `kerfMm` is what drawn clearances
 * are less than true ones by, for what is usual. Throws RangeError where nothing was tried.
 *
 * Slots at 0, 0.05, 0.1 that feel press, snug, slip: snug begins between 0 and 0.05, slip between 0.05 and 0.1.
 * Source: the ordered probit of R. D. McKelvey and W. Zavoina, Journal of Mathematical Sociology 4 (1975) 103.
 */
export function fitBounds(slots: readonly FeltSlot[], kerfMm = 0): FitBounds {
  if (slots.length === 0) throw new RangeError('missing slots: nothing was tried');
  const tried = slots.map(({ clearanceMm }) => clearanceMm);
  const names = FITS.slice(1) as Exclude<Fit, 'no'>[];
  const usual = names.map((name) => USUAL_MM[name] - kerfMm);
  const low = Math.min(...tried, ...usual) - BEYOND_MM;
  const high = Math.max(...tried, ...usual) + BEYOND_MM;
  const grid = Array.from({ length: Math.ceil((high - low) / STEP_MM) + 1 }, (_, step) => low + step * STEP_MM);
  const byScatter = SCATTERS_MM.map((scatterMm) => {
    const prior = -0.5 * (Math.log(scatterMm / USUAL_SCATTER_MM) / SCATTER_LOG_SIGMA) ** 2;
    const bounds = names.map((_, place) => boundAt(slots, place, { grid, scatterMm, usualMm: usual[place]! }));
    return { scatterMm, bounds, weight: prior + bounds.reduce((sum, { evidence }) => sum + evidence, 0) };
  });
  const most = Math.max(...byScatter.map(({ weight }) => weight));
  const shares = byScatter.map(({ weight }) => Math.exp(weight - most));
  const total = shares.reduce((sum, share) => sum + share, 0);
  const mean = (of: (one: (typeof byScatter)[number]) => number): number =>
    byScatter.reduce((sum, one, k) => sum + (shares[k]! / total) * of(one), 0);
  const boundOf = (place: number): FitBound => {
    const atMm = mean(({ bounds }) => bounds[place]!.meanMm);
    const variance = mean(({ bounds }) => bounds[place]!.varianceMm2 + (bounds[place]!.meanMm - atMm) ** 2);
    return { atMm, sigmaMm: Math.sqrt(variance) };
  };
  const [press, snug, slip, loose] = names.map((_, place) => boundOf(place));
  return {
    from: { press: press!, snug: snug!, slip: slip!, loose: loose! },
    scatterMm: Math.exp(mean(({ scatterMm }) => Math.log(scatterMm))),
  };
}

/** One bound by which slots lie on either side of it, at a scatter. */
function boundAt(
  slots: readonly FeltSlot[],
  place: number,
  {
    grid,
    scatterMm,
    usualMm,
  }: { readonly grid: readonly number[]; readonly scatterMm: number; readonly usualMm: number },
): { readonly meanMm: number; readonly varianceMm2: number; readonly evidence: number } {
  const logs = grid.map((at) => {
    let log = -0.5 * ((at - usualMm) / USUAL_SIGMA_MM) ** 2;
    for (const { clearanceMm, fit } of slots) {
      const isPast = FITS.indexOf(fit) > place;
      const chance = normalSum(((isPast ? 1 : -1) * (clearanceMm - at)) / scatterMm);
      log += Math.log(Math.max(1e-12, chance));
    }
    return log;
  });
  const most = Math.max(...logs);
  let [sum, first, second] = [0, 0, 0];
  logs.forEach((log, k) => {
    const share = Math.exp(log - most);
    sum += share;
    first += share * grid[k]!;
    second += share * grid[k]! ** 2;
  });
  const meanMm = first / sum;
  return { meanMm, varianceMm2: second / sum - meanMm ** 2, evidence: most + Math.log(sum) };
}

/** Where fits begin on most stock, as true clearance, and how unsure that is of any one: what there is to go by before anything was tried. */
export const USUAL_FITS: FitBounds = {
  from: {
    press: { atMm: USUAL_MM.press, sigmaMm: USUAL_SIGMA_MM },
    snug: { atMm: USUAL_MM.snug, sigmaMm: USUAL_SIGMA_MM },
    slip: { atMm: USUAL_MM.slip, sigmaMm: USUAL_SIGMA_MM },
    loose: { atMm: USUAL_MM.loose, sigmaMm: USUAL_SIGMA_MM },
  },
  scatterMm: USUAL_SCATTER_MM,
};

/** The middle of a fit: where as little as can be makes it another one. */
export const middleOfFit = ({ from }: FitBounds, fit: WantedFit): number => (from[fit].atMm + from[NEXT[fit]].atMm) / 2;

/** Bounds told by another clearance: by the true one where they were told by the drawn one, a kerf less. */
export const movedBounds = ({ from, scatterMm }: FitBounds, byMm: number): FitBounds => {
  const of = ({ atMm, sigmaMm }: FitBound): FitBound => ({ atMm: atMm + byMm, sigmaMm });
  return {
    from: { press: of(from.press), snug: of(from.snug), slip: of(from.slip), loose: of(from.loose) },
    scatterMm,
  };
};

/** Bounds as the book keeps them. */
export interface KeptBounds {
  readonly fromMm: Readonly<Record<Exclude<Fit, 'no'>, number>>;
  readonly sigmaMm: Readonly<Record<Exclude<Fit, 'no'>, number>>;
  readonly scatterMm: number;
}

export function boundsToKeep({ from: { press, snug, slip, loose }, scatterMm }: FitBounds): KeptBounds {
  return {
    fromMm: { press: press.atMm, snug: snug.atMm, slip: slip.atMm, loose: loose.atMm },
    sigmaMm: { press: press.sigmaMm, snug: snug.sigmaMm, slip: slip.sigmaMm, loose: loose.sigmaMm },
    scatterMm,
  };
}

/** What `boundsToKeep` kept. */
export function keptBounds({ fromMm, sigmaMm, scatterMm }: KeptBounds): FitBounds {
  const of = (fit: Exclude<Fit, 'no'>): FitBound => ({ atMm: fromMm[fit], sigmaMm: sigmaMm[fit] });
  return { from: { press: of('press'), snug: of('snug'), slip: of('slip'), loose: of('loose') }, scatterMm };
}

/** The chance of each fit in a slot that is drawn so much wider than its sheet, all doubt included; `sigmaMm` is what else is unsure: the sheet's thickness. */
export function chancesAt({ from, scatterMm }: FitBounds, clearanceMm: number, sigmaMm = 0): Record<Fit, number> {
  const past = (name: Exclude<Fit, 'no'>): number =>
    normalSum((clearanceMm - from[name].atMm) / Math.hypot(from[name].sigmaMm, scatterMm, sigmaMm));
  const beyond = [1, past('press'), past('snug'), past('slip'), past('loose'), 0];
  // Bounds that are unsure by different amounts can cross far out, where neither counts.
  const chances = FITS.map((_, k) => Math.max(0, beyond[k]! - beyond[k + 1]!));
  const total = chances.reduce((sum, chance) => sum + chance, 0);
  return Object.fromEntries(FITS.map((fit, k) => [fit, chances[k]! / total])) as Record<Fit, number>;
}

const CHOICE_STEP_MM = 0.005;

/** How much wider than its sheet a slot is drawn for a fit to be as likely as it can be, and how likely it is then. */
export function clearanceFor(
  bounds: FitBounds,
  fit: WantedFit,
  sigmaMm = 0,
): { readonly clearanceMm: number; readonly chance: number } {
  const [low, high] = [bounds.from[fit].atMm, bounds.from[NEXT[fit]].atMm];
  const steps = Math.max(1, Math.ceil((high - low) / CHOICE_STEP_MM));
  let best = { clearanceMm: (low + high) / 2, chance: -1 };
  for (let step = 0; step <= steps; step++) {
    const clearanceMm = low + ((high - low) * step) / steps;
    const chance = chancesAt(bounds, clearanceMm, sigmaMm)[fit];
    if (chance > best.chance) best = { clearanceMm, chance };
  }
  return best;
}

/** How thick a sheet is that goes into a slot of the comb like this: the comb as a gauge, without calipers. Null for fits that have no middle. */
export function thicknessBy(
  { from, scatterMm }: FitBounds,
  drawnMm: number,
  fit: WantedFit,
): { readonly thicknessMm: number; readonly sigmaMm: number } {
  const next = { press: 'snug', snug: 'slip', slip: 'loose' } as const;
  const [low, high] = [from[fit], from[next[fit]]];
  // Anywhere within the class alike: a rectangle, and what its ends are unsure by.
  const sigmaMm = Math.hypot((high.atMm - low.atMm) / Math.sqrt(12), low.sigmaMm / 2, high.sigmaMm / 2, scatterMm);
  return { thicknessMm: drawnMm - (low.atMm + high.atMm) / 2, sigmaMm };
}

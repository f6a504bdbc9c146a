import { meanAndSpread } from '../stats/robust';
import { reaches, risingCurve, sigmaBeside } from '../stats/isotonic';

/** How strong a patch is: by how many L* it differs from bare stock, the way this burn turns. */
export interface StrengthAtPower {
  readonly power: number;
  readonly strength: number;
  readonly sigma: number;
}

export interface CeilingFit {
  /** The strongest that patches get, with its standard uncertainty. */
  readonly strongest: number;
  readonly strongestSigma: number;
  /** The least power within `within` of it, and the 95 % range of that. */
  readonly power: number;
  readonly low: number;
  readonly high: number;
  /** Whether stronger powers than that were tried far enough to see that nothing gets stronger. */
  readonly reached: boolean;
  /** From here on patches get weaker again; null where they do not. */
  readonly fallsFrom: number | null;
  /** The rising curve, by power. */
  readonly curve: readonly { readonly power: number; readonly strength: number; readonly sigma: number }[];
}

const LEAST_PATCHES = 6;
/** The strongest is the mean of so large a part of all patches, neighbours in power, and of three at the least. */
const WINDOW_SHARE = 1 / 10;
const LEAST_WINDOW = 3;
/** A plateau is seen where it spans this factor in power, and its end lies no more over the strongest than half of what is left open, and chance. */
const SEEN_PAST = 1.15;
/** Weaker again is what lies further below the strongest than this many sigmas of both, and than `within`. */
const CLEAR_SIGMAS = 3;

/**
 * The power past which more only goes deeper and gets no stronger: where a curve that never falls, through the strengths over power, comes within
 * `within` L* of the strongest. No shape but that is taken for granted. Its range is where the curve crosses that level less and more two sigmas
 * of it. Null for fewer than six patches, or no mark to speak of. Throws RangeError for a sigma or power of 0 or less.
 */
export function ceilingOf(patches: readonly StrengthAtPower[], within: number): CeilingFit | null {
  for (const { power, sigma } of patches)
    if (!(power > 0 && sigma > 0)) throw new RangeError(`invalid patch: power ${power}, sigma ${sigma}`);
  if (patches.length < LEAST_PATCHES) return null;
  const sorted = [...patches].sort((a, b) => a.power - b.power);
  const size = Math.max(LEAST_WINDOW, Math.round(sorted.length * WINDOW_SHARE));
  const windows = sorted.slice(size - 1).map((_, from) => meanOf(sorted.slice(from, from + size)));
  const top = windows.reduce((best, one, index) => (one.mean > windows[best]!.mean ? index : best), 0);
  const most = windows[top]!;
  if (most.mean < within + CLEAR_SIGMAS * most.sigma) return null;
  const weaker = windows.slice(top + size).find(({ mean, sigma }) => {
    const below = most.mean - mean;
    return below > within && below > CLEAR_SIGMAS * Math.hypot(sigma, most.sigma);
  });
  // What gets weaker again says nothing of the rise.
  const rising = weaker ? sorted.filter(({ power }) => power < weaker.from) : sorted;
  const curve = risingCurve(rising.map(({ power, strength, sigma }) => ({ x: power, y: strength, sigma })));
  // The strongest of several means is too strong by chance: all that come near it are taken together.
  const flatFrom = reaches(curve, most.mean - within / 2);
  const flat = rising.filter(({ power }) => power >= flatFrom);
  const { mean: strongest, sigma: strongestSigma } = flat.length >= size ? meanOf(flat) : most;
  const level = strongest - within;
  const power = reaches(curve, level);
  const reach = 2 * Math.hypot(strongestSigma, sigmaBeside(curve, power));
  return {
    strongest,
    strongestSigma,
    power,
    low: reaches(curve, level - reach),
    high: reaches(curve, level + reach),
    reached:
      sorted.at(-1)!.power >= SEEN_PAST * power && curve.at(-1)!.y - strongest <= within / 2 + 2 * curve.at(-1)!.sigma,
    fallsFrom: weaker?.from ?? null,
    curve: curve.map(({ x, y, sigma }) => ({ power: x, strength: y, sigma })),
  };
}

/** Mean of neighbours, no surer than they scatter. */
function meanOf(patches: readonly StrengthAtPower[]): { mean: number; sigma: number; from: number } {
  const { mean, spread } = meanAndSpread(patches.map(({ strength }) => strength));
  const own = Math.sqrt(patches.reduce((sum, { sigma }) => sum + sigma ** 2, 0)) / patches.length;
  return { mean, sigma: Math.max(own, spread / Math.sqrt(patches.length)), from: patches[0]!.power };
}

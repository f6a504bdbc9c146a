import { reaches, risingCurve, sigmaBeside } from '../stats/isotonic';
import { median, robustSigma } from '../stats/robust';

/** By how many L* stock just outside a patch is darker than bare stock. */
export interface RimAtPower {
  readonly power: number;
  readonly darker: number;
}

/** The least power around whose patches stock is darker than so much, with the 95 % range of that. */
export interface RimFit {
  readonly from: number;
  readonly low: number;
  readonly high: number;
}

const LEAST_RIMS = 6;
/** No rim is told better than this, however alike neighbours are. */
const LEAST_SIGMA_L = 0.3;

/**
 * From which power on rims are darker than bare stock by `by` L*: where a curve that never falls, through all rims over power, passes that; single
 * ones that lie apart do not count. Rims are as sure as neighbours in power are alike. Null for fewer than six rims, where the strongest are not surely past it, and where even the weakest are:
 * what darkens stock all over is none of the patches' doing.
 */
export function darkensFrom(rims: readonly RimAtPower[], by: number): RimFit | null {
  if (rims.length < LEAST_RIMS) return null;
  const sorted = [...rims].sort((a, b) => a.power - b.power);
  const steps = sorted.slice(1).map(({ darker }, index) => darker - sorted[index]!.darker);
  const sigma = Math.max(LEAST_SIGMA_L, robustSigma(steps) / Math.SQRT2);
  // By the middle one of three neighbours: a flame that licked over one rim, or a knot, says nothing of the others.
  const middle = (index: number): number =>
    median(sorted.slice(Math.max(0, index - 1), index + 2).map(({ darker }) => darker));
  const curve = risingCurve(sorted.map(({ power }, index) => ({ x: power, y: middle(index), sigma })));
  const [first, last] = [curve[0]!, curve.at(-1)!];
  if (last.y - 2 * last.sigma < by || first.y >= by) return null;
  const from = reaches(curve, by);
  const reach = 2 * sigmaBeside(curve, from);
  return { from, low: reaches(curve, by - reach), high: reaches(curve, by + reach) };
}

import { CholeskyDecomposition, Matrix, inverse } from 'ml-matrix';
import { srgbToLinear } from '../../color/srgb';
import { meanAndSpread, quantile, robustSigma } from '../../stats/robust';

/** One place of a card in two photos: what each stored of it in one channel, as a share of full scale. */
export interface SeenTwice {
  readonly first: number;
  readonly second: number;
  /** Standard deviation of the logarithm of their ratio that noise alone makes. */
  readonly noise: number;
  /** Where it lies, in any unit. */
  readonly x: number;
  readonly y: number;
}

/** What a camera makes of light before it stores it, undone. Tones are shares of full scale, light is told by its natural logarithm. */
export interface ToneCurve {
  /** Light at a stored tone, up to a constant. Beyond the tones that were seen it is what sRGB has there, less what the end was off. */
  lightAt(stored: number): number;
  /** Standard deviation of the difference in light between two stored tones. */
  sigmaBetween(a: number, b: number): number;
  /** The least and the most stored tone that the two photos have. */
  readonly range: readonly [least: number, most: number];
  /** Between which tones nearly all of the first photo's places lie. */
  readonly firstRange: readonly [least: number, most: number];
  /** Robust standard deviation of a clear pair about the curve. */
  readonly pairSigma: number;
}

/** Stretches of the curve between the least and the most tone, cubic each. */
const STRETCHES = 16;
const DEGREE = 3;
const FEWEST_PAIRS = 40;
/** No two photos show a place more alike than this: texture, and where it lies. */
const LEAST_NOISE = 0.01;
/** Terms of how light on the card differs between the two photos, by place: lenses darken their corners. */
const PLACE_TERMS = 5;
/** Tones of the two photos must overlap by this share of full scale at the least: one curve must pass through both. */
const LEAST_OVERLAP = 0.1;
/** Exposures closer together than this tell a curve only by their noise. */
const LEAST_RATIO = Math.log(1.4);
const TUKEY = 4.685;
/** How stiff the curve is held: each is tried, the one that leaves least by cross-validation is taken. */
const STIFFNESS = Array.from({ length: 10 }, (_, k) => 10 ** (k - 6));
const STIFF_START = 1;
const TURNS = 8;
/** Channels and neighbours err together, which lets a curve that follows them look better than it is: as good as the best is less than this. */
const AS_GOOD = 1.005;
/** Bends are undone to this share of themselves: light that differs by place, and colours that bleed, are no noise. */
const UNDONE_SHARE = 0.05;
/** Pairs that err as one: the three channels of a square. */
const ERR_AS_ONE = 3;

/** Cubic B-splines on even knots, four of which are not nought at any one place. */
class Splines {
  readonly count = STRETCHES + DEGREE;
  constructor(
    readonly least: number,
    readonly most: number,
  ) {}

  /** The first spline that is not nought at a place, and the four values from it on. */
  at(t: number): { first: number; values: readonly [number, number, number, number] } {
    const u = ((t - this.least) / (this.most - this.least)) * STRETCHES;
    const first = Math.max(0, Math.min(STRETCHES - 1, Math.floor(u)));
    const s = u - first;
    const r = 1 - s;
    return {
      first,
      values: [r ** 3 / 6, (3 * s ** 3 - 6 * s ** 2 + 4) / 6, (3 * r ** 3 - 6 * r ** 2 + 4) / 6, s ** 3 / 6],
    };
  }

  /** What one tone has of each spline less what another has. */
  between(a: number, b: number): Float64Array {
    const out = new Float64Array(this.count);
    const [to, from] = [this.at(a), this.at(b)];
    to.values.forEach((value, k) => (out[to.first + k]! += value));
    from.values.forEach((value, k) => (out[from.first + k]! -= value));
    return out;
  }
}

/** What a stored tone would be in light if it were stored as sRGB has it. */
const asStored = (tone: number): number => Math.log(srgbToLinear(tone));

/** Sum over second differences of neighbouring coefficients, squared. */
function stiffness(count: number): Matrix {
  const second = Matrix.zeros(count - 2, count);
  for (let k = 0; k < count - 2; k++) [1, -2, 1].forEach((value, at) => second.set(k, k + at, value));
  return second.transpose().mmul(second);
}

/** How light differs by place, up to the second order, each term nought on the average: what is alike all over is the exposure. */
function placeTerms(places: readonly { readonly x: number; readonly y: number }[]): number[][] {
  const [xs, ys] = [places.map(({ x }) => x), places.map(({ y }) => y)];
  const reach = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys), 1e-9) / 2;
  const [cx, cy] = [meanAndSpread(xs).mean, meanAndSpread(ys).mean];
  const terms = places.map(({ x, y }) => {
    const [u, v] = [(x - cx) / reach, (y - cy) / reach];
    return [u, v, u * u, u * v, v * v];
  });
  const means = Array.from({ length: PLACE_TERMS }, (_, k) => meanAndSpread(terms.map((row) => row[k]!)).mean);
  return terms.map((row) => row.map((value, k) => value - means[k]!));
}

/** The tones' penalty and, for all terms, what holds those that no place tells of. */
function penaltiesOf(count: number): { penalty: Matrix; hold: Matrix } {
  const penalty = Matrix.zeros(count + PLACE_TERMS, count + PLACE_TERMS);
  penalty.setSubMatrix(stiffness(count), 0, 0);
  // Differences tell nothing of a constant: the splines' sum is held to nought, which changes no difference.
  const hold = Matrix.eye(count + PLACE_TERMS).mul(1e-6);
  hold.setSubMatrix(Matrix.ones(count, count), 0, 0);
  return { penalty, hold };
}

interface Fitted {
  readonly coefficients: Matrix;
  readonly inverse: Matrix;
  readonly residuals: Float64Array;
  readonly crossValidation: number;
}

function fitted(
  rows: Matrix,
  wanted: Matrix,
  weights: Float64Array,
  { penalty, hold }: ReturnType<typeof penaltiesOf>,
  stiff: number,
): Fitted {
  // Rows times the root of their weight, so that the normal matrix is symmetric to the last bit.
  const weighted = rows.clone();
  const weightedWanted = wanted.clone();
  weights.forEach((weight, row) => {
    weighted.mulRow(row, Math.sqrt(weight));
    weightedWanted.mulRow(row, Math.sqrt(weight));
  });
  const data = weighted.transpose().mmul(weighted);
  const normal = Matrix.add(data, Matrix.mul(penalty, stiff)).add(hold);
  const solver = new CholeskyDecomposition(normal);
  const coefficients = solver.solve(weighted.transpose().mmul(weightedWanted));
  const residuals = Float64Array.from(Matrix.sub(wanted, rows.mmul(coefficients)).to1DArray());
  // Generalised cross-validation: squares over the square of the freedom that is left.
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const free = total - solver.solve(data).trace();
  const squares = residuals.reduce((sum, value, row) => sum + weights[row]! * value ** 2, 0);
  return { coefficients, inverse: inverse(normal), residuals, crossValidation: (squares * total) / free ** 2 };
}

/** Tukey's weights: nought for what lies further off than some sigmas. */
function tukeyWeights(residuals: Float64Array): Float64Array {
  const reach = TUKEY * Math.max(1e-4, robustSigma(residuals));
  return residuals.map((value) => Math.max(0, 1 - (value / reach) ** 2) ** 2);
}

function reweighted(fit: Fitted, again: (weights: Float64Array) => Fitted): Fitted {
  for (let turn = 0; turn < TURNS; turn++) fit = again(tukeyWeights(fit.residuals));
  return fit;
}

/**
 * The tone curve of a camera from places that it saw under two exposures, `logRatio` apart (natural logarithm of the first's light over the
 * second's, known to `logRatioSigma`): whatever the curve is, it made the same step of light everywhere, but for what lenses do to corners.
 * A penalised spline, robust against places that changed. Null where that cannot tell: too few places, tones of the two that do not overlap, exposures too close
 * together, or a curve that does not rise.
 *
 * Sources: P. E. Debevec, J. Malik, Recovering high dynamic range radiance maps from photographs, SIGGRAPH (1997) 369; P. H. C. Eilers,
 * B. D. Marx, Flexible smoothing with B-splines and penalties, Statistical Science 11 (1996) 89.
 */
export function toneCurve(pairs: readonly SeenTwice[], logRatio: number, logRatioSigma: number): ToneCurve | null {
  if (pairs.length < FEWEST_PAIRS || Math.abs(logRatio) < LEAST_RATIO) return null;
  let [least, most, firstLeast, firstMost, secondLeast, secondMost] = [Infinity, -Infinity, Infinity, -Infinity, Infinity, -Infinity]; // prettier-ignore
  for (const { first, second } of pairs) {
    firstLeast = Math.min(firstLeast, first);
    firstMost = Math.max(firstMost, first);
    secondLeast = Math.min(secondLeast, second);
    secondMost = Math.max(secondMost, second);
  }
  least = Math.min(firstLeast, secondLeast);
  most = Math.max(firstMost, secondMost);
  if (Math.min(firstMost, secondMost) - Math.max(firstLeast, secondLeast) < LEAST_OVERLAP) return null;
  const firsts = pairs.map(({ first }) => first);
  const splines = new Splines(least, most);
  const byPlace = placeTerms(pairs);
  // Noisy places count for less.
  const clear = pairs.map(({ noise }) => LEAST_NOISE / Math.hypot(LEAST_NOISE, noise));
  const rows = new Matrix(
    pairs.map(({ first, second }, k) =>
      [...splines.between(first, second), ...byPlace[k]!].map((value) => value * clear[k]!),
    ),
  );
  const wanted = Matrix.columnVector(
    pairs.map(({ first, second }, k) => (logRatio - (asStored(first) - asStored(second))) * clear[k]!),
  );
  const penalties = penaltiesOf(splines.count);
  const fitWith = (weights: Float64Array, stiff: number): Fitted => fitted(rows, wanted, weights, penalties, stiff);
  // Places that changed are found against a stiff curve, which cannot follow them; then the curve is let loose.
  let fit = fitWith(new Float64Array(pairs.length).fill(1), STIFF_START);
  fit = reweighted(fit, (weights) => fitWith(weights, STIFF_START));
  const weights = tukeyWeights(fit.residuals);
  const tried = STIFFNESS.map((stiff) => ({ stiff, score: fitWith(weights, stiff).crossValidation }));
  const bestScore = Math.min(...tried.map(({ score }) => score));
  const loosest = tried.findIndex(({ score }) => score === bestScore);
  const chosen = tried.reduce((at, { score }, k) => (k > loosest && score <= AS_GOOD * bestScore ? k : at), loosest);
  // Light that falls while tones rise is noise that a loose curve followed: a stiffer one is taken.
  for (const { stiff } of tried.slice(chosen)) {
    const last = reweighted(fitWith(weights, stiff), (again) => fitWith(again, stiff));
    const change = changeBy(last.coefficients, splines);
    if (!rises(change, least, most)) continue;
    return curveOf(last, change, splines, {
      logRatio,
      logRatioSigma,
      firstRange: [quantile(firsts, 0.03), quantile(firsts, 0.97)],
    });
  }
  return null;
}

/** What light at a tone is more, as a logarithm, than sRGB has it; beyond the tones that were seen what it is at their end. */
function changeBy(coefficients: Matrix, splines: Splines): (tone: number) => number {
  return (tone) => {
    const { first, values } = splines.at(Math.max(splines.least, Math.min(splines.most, tone)));
    return values.reduce((sum, value, k) => sum + value * coefficients.get(first + k, 0), 0);
  };
}

function rises(change: (tone: number) => number, least: number, most: number): boolean {
  const light = Array.from({ length: 201 }, (_, k) => least + ((most - least) * k) / 200).map(
    (tone) => asStored(tone) + change(tone),
  );
  return light.slice(1).every((value, k) => value > light[k]!);
}

function curveOf(
  fit: Fitted,
  change: (tone: number) => number,
  splines: Splines,
  {
    logRatio,
    logRatioSigma,
    firstRange,
  }: { logRatio: number; logRatioSigma: number; firstRange: readonly [number, number] },
): ToneCurve {
  const { least, most } = splines;
  const sigma = robustSigma(fit.residuals);
  const lightAt = (stored: number): number => asStored(stored) + change(stored);
  const sigmaBetween = (a: number, b: number): number => {
    const held = (t: number): number => Math.max(least, Math.min(most, t));
    const by = Matrix.columnVector([...splines.between(held(a), held(b)), ...new Float64Array(PLACE_TERMS)]);
    const own = ERR_AS_ONE * sigma ** 2 * by.transpose().mmul(fit.inverse).mmul(by).get(0, 0);
    // A ratio told too large by a share makes every step of light too large by that share.
    const told = ((lightAt(a) - lightAt(b)) * logRatioSigma) / logRatio;
    const undone = UNDONE_SHARE * (change(held(a)) - change(held(b)));
    return Math.hypot(Math.sqrt(Math.max(0, own)), told, undone);
  };
  return { lightAt, sigmaBetween, range: [least, most], firstRange, pairSigma: sigma };
}

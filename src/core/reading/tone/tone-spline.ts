import { CholeskyDecomposition, Matrix, inverse } from 'ml-matrix';
import { srgbToLinear } from '../../color/srgb';
import { robustSigma } from '../../stats/robust';

/** What a camera makes of light before it stores it, undone. Tones are shares of full scale, light is told by its natural logarithm. */
export interface ToneCurve {
  /** Light at a stored tone, up to a constant. Beyond the tones that were seen it is what sRGB has there, less what the end was off. */
  lightAt(stored: number): number;
  /** Standard deviation of the difference in light between two stored tones. */
  sigmaBetween(a: number, b: number): number;
  /** The least and the most stored tone that told it. */
  readonly range: readonly [least: number, most: number];
  /** Between which tones nearly all lie that the card is read by. */
  readonly firstRange: readonly [least: number, most: number];
  /** Robust standard deviation of a clear equation about the curve. */
  readonly sigma: number;
  /** The other unknowns of its equations. */
  readonly others: readonly number[];
  /** By how much more light each equation has than the curve, as a logarithm. */
  readonly residuals: Float64Array;
}

/** Stretches of the curve between the least and the most tone, cubic each. */
const STRETCHES = 16;
const DEGREE = 3;
const TUKEY = 4.685;
/** How stiff the curve is held: each is tried, the one that leaves least by cross-validation is taken. */
const STIFFNESS = Array.from({ length: 10 }, (_, k) => 10 ** (k - 6));
const STIFF_START = 1;
const TURNS = 8;
/** Drawings without noise would leave no weight to what does not agree with them to the last bit. */
const LEAST_SIGMA = 1e-4;
/**
 * Channels, neighbours and tones that are rounded alike err together, which lets a curve that follows them look better than it is. One that waves
 * with the step between two exposures is told from a straight one by nothing else: as good as the best is less than this. By trials on another
 * camera's 11 photos of slate (462 cells): with 1.005 57 cells were off by over 2 L*, 12 of them unmarked, with 1.05 29 and 5, with 1.1 17 and 1.
 */
const AS_GOOD = 1.1;
/** What errs as one: the three channels of a square. */
const ERR_AS_ONE = 3;

/** Cubic B-splines on even knots, four of which are not nought at any one place. */
export class Splines {
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

  /** What a tone has of each spline. */
  of(t: number): Float64Array {
    const out = new Float64Array(this.count);
    const { first, values } = this.at(t);
    values.forEach((value, k) => (out[first + k] = value));
    return out;
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
export const asStored = (tone: number): number => Math.log(srgbToLinear(tone));

/** Sum over second differences of neighbouring coefficients, squared. */
function stiffness(count: number): Matrix {
  const second = Matrix.zeros(count - 2, count);
  for (let k = 0; k < count - 2; k++) [1, -2, 1].forEach((value, at) => second.set(k, k + at, value));
  return second.transpose().mmul(second);
}

/** The tones' penalty and, for all terms, what holds those that nothing tells of. */
function penaltiesOf(tones: number, others: number): { penalty: Matrix; hold: Matrix } {
  const penalty = Matrix.zeros(tones + others, tones + others);
  penalty.setSubMatrix(stiffness(tones), 0, 0);
  // No equation tells the curve's own constant: the splines' sum is held to nought, which changes no difference.
  const hold = Matrix.eye(tones + others).mul(1e-6);
  hold.setSubMatrix(Matrix.ones(tones, tones), 0, 0);
  return { penalty, hold };
}

/** Equations, each times the root of its weight: what least squares takes of them. */
interface Weighed {
  readonly weights: Float64Array;
  /** Products of terms with each other, and with what is wanted, summed over all equations. */
  readonly normal: Matrix;
  readonly right: Matrix;
}

function weighed(rows: Matrix, wanted: Matrix, weights: Float64Array): Weighed {
  // Rows times the root of their weight, so that the normal matrix is symmetric to the last bit.
  const heavy = rows.clone();
  const heavyWanted = wanted.clone();
  weights.forEach((weight, row) => {
    heavy.mulRow(row, Math.sqrt(weight));
    heavyWanted.mulRow(row, Math.sqrt(weight));
  });
  const turned = heavy.transpose();
  return { weights, normal: turned.mmul(heavy), right: turned.mmul(heavyWanted) };
}

interface Fitted {
  readonly coefficients: Matrix;
  /** The normal matrix with all that holds its terms. */
  readonly normal: Matrix;
  readonly residuals: Float64Array;
  readonly crossValidation: number;
}

function fitted(
  rows: Matrix,
  wanted: Matrix,
  { weights, normal: told, right }: Weighed,
  { penalty, hold }: ReturnType<typeof penaltiesOf>,
  stiff: number,
): Fitted {
  const normal = Matrix.add(told, Matrix.mul(penalty, stiff)).add(hold);
  const solver = new CholeskyDecomposition(normal);
  const coefficients = solver.solve(right);
  const residuals = Float64Array.from(Matrix.sub(wanted, rows.mmul(coefficients)).to1DArray());
  // Generalised cross-validation: squares over the square of the freedom that is left.
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  const free = total - solver.solve(told).trace();
  const squares = residuals.reduce((sum, value, row) => sum + weights[row]! * value ** 2, 0);
  return { coefficients, normal, residuals, crossValidation: (squares * total) / free ** 2 };
}

/** Tukey's weights: nought for what lies further off than some sigmas. */
function tukeyWeights(residuals: Float64Array, leastSigma: number): Float64Array {
  const reach = TUKEY * Math.max(leastSigma, robustSigma(residuals));
  return residuals.map((value) => Math.max(0, 1 - (value / reach) ** 2) ** 2);
}

function reweighted(fit: Fitted, leastSigma: number, again: (weights: Float64Array) => Fitted): Fitted {
  for (let turn = 0; turn < TURNS; turn++) fit = again(tukeyWeights(fit.residuals, leastSigma));
  return fit;
}

/** One equation of a curve: what it has of each spline and of the other unknowns, and how much more light that is than sRGB has it. */
export interface ToneEquation {
  readonly tones: Float64Array;
  readonly others: readonly number[];
  readonly wanted: number;
  /** Weight of its square root: 1 for one as clear as any. */
  readonly clear: number;
}

/** How well a way of telling curves does. */
interface CurveOptions {
  readonly contrastSigma: number;
  readonly undoneShare: number;
  readonly firstRange: readonly [least: number, most: number];
  /** Equations are not taken to be surer than this: one that lies further off than some of it is wrong, and not before. */
  readonly leastSigma?: number;
}

/**
 * The tone curve that equations tell, by a penalised spline that is robust against some that are wrong; null where none rises.
 * `contrastSigma` is by which share all steps of light may be told too large; `undoneShare` to which share of themselves bends are undone.
 *
 * Source: P. H. C. Eilers, B. D. Marx, Flexible smoothing with B-splines and penalties, Statistical Science 11 (1996) 89.
 */
export function curveOfEquations(
  splines: Splines,
  equations: readonly ToneEquation[],
  options: CurveOptions,
): ToneCurve | null {
  const { leastSigma = LEAST_SIGMA } = options;
  const others = equations[0]!.others.length;
  const rows = new Matrix(
    equations.map(({ tones, others: more, clear }) => [...tones, ...more].map((value) => value * clear)),
  );
  const wanted = Matrix.columnVector(equations.map(({ wanted: value, clear }) => value * clear));
  const penalties = penaltiesOf(splines.count, others);
  const weigh = (weights: Float64Array): Weighed => weighed(rows, wanted, weights);
  const fitWith = (by: Weighed, stiff: number): Fitted => fitted(rows, wanted, by, penalties, stiff);
  // What is wrong is found against a stiff curve, which cannot follow it; then the curve is let loose.
  let fit = fitWith(weigh(new Float64Array(equations.length).fill(1)), STIFF_START);
  fit = reweighted(fit, leastSigma, (weights) => fitWith(weigh(weights), STIFF_START));
  const sound = weigh(tukeyWeights(fit.residuals, leastSigma));
  const tried = STIFFNESS.map((stiff) => ({ stiff, score: fitWith(sound, stiff).crossValidation }));
  const bestScore = Math.min(...tried.map(({ score }) => score));
  const loosest = tried.findIndex(({ score }) => score === bestScore);
  const chosen = tried.reduce((at, { score }, k) => (k > loosest && score <= AS_GOOD * bestScore ? k : at), loosest);
  // Light that falls while tones rise is noise that a loose curve followed: a stiffer one is taken.
  for (const { stiff } of tried.slice(chosen)) {
    const last = reweighted(fitWith(sound, stiff), leastSigma, (weights) => fitWith(weigh(weights), stiff));
    const change = changeBy(last.coefficients, splines);
    if (rises(change, splines.least, splines.most)) return curveOf(last, change, splines, others, options);
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
  others: number,
  { contrastSigma, undoneShare, firstRange }: CurveOptions,
): ToneCurve {
  const { least, most } = splines;
  const sigma = robustSigma(fit.residuals);
  const found = fit.coefficients.to1DArray().slice(splines.count);
  const spread = inverse(fit.normal);
  const lightAt = (stored: number): number => asStored(stored) + change(stored);
  const sigmaBetween = (a: number, b: number): number => {
    const held = (t: number): number => Math.max(least, Math.min(most, t));
    const by = Matrix.columnVector([...splines.between(held(a), held(b)), ...new Float64Array(others)]);
    const own = ERR_AS_ONE * sigma ** 2 * by.transpose().mmul(spread).mmul(by).get(0, 0);
    const told = (lightAt(a) - lightAt(b)) * contrastSigma;
    const undone = undoneShare * (change(held(a)) - change(held(b)));
    return Math.hypot(Math.sqrt(Math.max(0, own)), told, undone);
  };
  return { lightAt, sigmaBetween, range: [least, most], firstRange, sigma, others: found, residuals: fit.residuals };
}

import { Matrix, solve } from 'ml-matrix';

/** What a model leaves over at some parameters, each already over its own sigma, and how each changes with each parameter. */
export interface Left {
  readonly residuals: readonly number[];
  /** By residual, then by parameter. */
  readonly jacobian: readonly (readonly number[])[];
}

export interface LeastSquares {
  readonly parameters: readonly number[];
  readonly sumOfSquares: number;
  /** Steps became too small to matter; no step made it better; or there were too many of them: then the fit is not to be trusted. */
  readonly stopped: 'settled' | 'no-better' | 'too-many-steps';
}

const MOST_STEPS = 200;
const SETTLED = 1e-10;
const FIRST_DAMPING = 1e-3;
const MOST_DAMPING = 1e12;

const squares = (values: readonly number[]): number => values.reduce((sum, value) => sum + value * value, 0);

/** What the jacobian is turned times itself, and times the residuals. */
function normalEquations({ residuals, jacobian }: Left): { normal: number[][]; slope: number[] } {
  const count = jacobian[0]?.length ?? 0;
  const normal = Array.from({ length: count }, () => Array.from({ length: count }, () => 0));
  const slope = Array.from({ length: count }, () => 0);
  jacobian.forEach((row, at) => {
    for (let to = 0; to < count; to++) {
      slope[to]! += row[to]! * residuals[at]!;
      for (let by = 0; by <= to; by++) normal[to]![by]! += row[to]! * row[by]!;
    }
  });
  for (let to = 0; to < count; to++) for (let by = 0; by < to; by++) normal[by]![to] = normal[to]![by]!;
  return { normal, slope };
}

/**
 * Parameters at which squares are least, from a start, by damped Gauss-Newton steps: damping goes down where a step made it better and up where not.
 * Says why it stopped. Throws RangeError where the model gives no number at the start.
 * Source: D. W. Marquardt, J. SIAM 11 (1963) 431.
 */
export function leastSquares(model: (parameters: readonly number[]) => Left, start: readonly number[]): LeastSquares {
  let parameters = [...start];
  let left = model(parameters);
  let best = squares(left.residuals);
  if (!Number.isFinite(best)) throw new RangeError('invalid start: the model gives no number there');
  let damping = FIRST_DAMPING;
  for (let step = 0; step < MOST_STEPS; step++) {
    const { normal, slope } = normalEquations(left);
    // Scaled by its own diagonal: parameters of unlike sizes are damped alike, and none is lost beside a large one.
    const sizes = normal.map((row, at) => Math.sqrt(row[at]!) || 1);
    const scaled = new Matrix(normal.map((row, at) => row.map((value, to) => value / (sizes[at]! * sizes[to]!))));
    const scaledSlope = Matrix.columnVector(slope.map((value, at) => value / sizes[at]!));
    for (;;) {
      if (damping > MOST_DAMPING) return { parameters, sumOfSquares: best, stopped: 'no-better' };
      const damped = Matrix.add(scaled, Matrix.eye(sizes.length).mul(damping));
      const change = solve(damped, scaledSlope).to1DArray();
      const next = parameters.map((value, at) => value - change[at]! / sizes[at]!);
      const tried = model(next);
      const sum = squares(tried.residuals);
      // No number, as where an exponential overflows, is no better.
      if (!(sum <= best)) {
        damping *= 10;
        continue;
      }
      const settled =
        best - sum <= SETTLED * best &&
        change.every((by, at) => Math.abs(by / sizes[at]!) <= 1e-7 * (Math.abs(next[at]!) + 1e-7));
      [parameters, left, best] = [next, tried, sum];
      damping = Math.max(1e-12, damping / 10);
      if (settled) return { parameters, sumOfSquares: best, stopped: 'settled' };
      break;
    }
  }
  return { parameters, sumOfSquares: best, stopped: 'too-many-steps' };
}

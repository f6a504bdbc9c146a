/** Logarithm of the gamma function for x from 0.5 up. Source: C. Lanczos, SIAM J. Numer. Anal. B 1 (1964) 86, with g = 7 and nine terms. */
function logGamma(x: number): number {
  const terms = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  const z = x - 1;
  const t = z + 7.5;
  const sum = terms.slice(1).reduce((total, term, index) => total + term / (z + index + 1), terms[0]!);
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

/** Regularised incomplete beta function for x of 0 to 1 by its continued fraction. Source: W. H. Press and others, Numerical Recipes in C (1992), 6.4. */
function incompleteBeta(a: number, b: number, x: number): number {
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(b, a, 1 - x);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x)) / a;
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / Math.max(tiny, 1 - ((a + b) * x) / (a + 1));
  let fraction = d;
  for (let m = 1; m < 300; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / (1 + even * d || tiny);
    c = 1 + even / c || tiny;
    fraction *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / (1 + odd * d || tiny);
    c = 1 + odd / c || tiny;
    const change = d * c;
    fraction *= change;
    if (Math.abs(change - 1) < 1e-15) break;
  }
  return front * fraction;
}

/** How often a normal deviate lies within one standard deviation. */
export const ONE_SIGMA = 0.6827;

/**
 * The factor t for which a Student t variable of `degrees` degrees of freedom lies within ± t with chance `coverage`; degrees need not
 * be whole, as in Welch-Satterthwaite. Throws RangeError for degrees below 1 or a coverage outside 0..1.
 *
 * studentFactor(4, 0.95) ≈ 2.776; studentFactor(Infinity, 0.95) ≈ 1.960
 */
export function studentFactor(degrees: number, coverage: number): number {
  if (!(degrees >= 1)) throw new RangeError(`invalid degrees: ${degrees}`);
  if (!(coverage > 0 && coverage < 1)) throw new RangeError(`invalid coverage: ${coverage}`);
  // Past this many the normal law is reached to eight digits.
  const n = Math.min(degrees, 1e7);
  const within = (t: number): number => 1 - incompleteBeta(n / 2, 0.5, n / (n + t * t));
  let low = 0;
  let high = 1;
  while (within(high) < coverage) high *= 2;
  for (let turn = 0; turn < 100; turn++) {
    const middle = (low + high) / 2;
    if (within(middle) < coverage) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

import { describe, expect, it } from 'vitest';
import { gaussianProcess } from './gaussian-process';
import { tuples } from '../../../tests/support/tuples';

// Places, values and noise made up; what follows from them computed with scikit-learn 1.9.1's GaussianProcessRegressor (Matern, nu 2.5).
const PLACES = tuples([-1, -1], [0, -1], [1, -1], [-1, 0.5], [0.2, 0.4], [1, 1]);
const VALUES = [3, 7, 12, 1, 5.5, 8];
const NOISE = [0.5, 0.4, 0.6, 0.5, 0.3, 0.8];
const KERNEL = { amplitude: 3, reach: 0.7 };
const CONSTANT = PLACES.map(() => [1]);
const ASKED = tuples([0.5, 0], [0, -1], [-0.9, 0.9]);

describe('a Gaussian process about an unknown constant', () => {
  const process = gaussianProcess(PLACES, VALUES, NOISE, CONSTANT, KERNEL, [Infinity]);
  it('foretells what scikit-learn does with a constant kernel of 10^8', () => {
    const told = ASKED.map((place) => process.at(place, [1]));
    [7.0429490227, 6.9946693815, 2.3507277556].forEach((value, at) => expect(told[at]!.value).toBeCloseTo(value, 5));
    [2.0588635299, 0.3958456598, 1.9572032655].forEach((sigma, at) => expect(told[at]!.sigma).toBeCloseTo(sigma, 5));
  });
  it('foretells each value without itself as scikit-learn does from the five others', () => {
    const reference = [
      [5.8749854649, 3.0712770981],
      [6.7420323414, 2.7826223637],
      [5.773303256, 3.1240525837],
      [6.2757828951, 3.1991196828],
      [6.0324817343, 2.8563093802],
      [5.8128585928, 3.1951650384],
    ];
    process.withoutItself().forEach(({ value, sigma }, at) => {
      expect(value).toBeCloseTo(reference[at]![0]!, 5);
      expect(sigma).toBeCloseTo(reference[at]![1]!, 5);
    });
  });
});

describe('a constant that is known to lie near 0', () => {
  it('foretells what scikit-learn does with a constant kernel of 4', () => {
    const process = gaussianProcess(PLACES, VALUES, NOISE, CONSTANT, KERNEL, [2]);
    const told = ASKED.map((place) => process.at(place, [1]));
    [6.8114710109, 6.9777909895, 1.8057256207].forEach((value, at) => expect(told[at]!.value).toBeCloseTo(value, 5));
    [2.0566125549, 0.3957834374, 1.9440399667].forEach((sigma, at) => expect(told[at]!.sigma).toBeCloseTo(sigma, 5));
  });
});

describe('its likelihood', () => {
  it('tells kernels apart by as much as scikit-learn’s does', () => {
    const { logLikelihood } = gaussianProcess(PLACES, VALUES, NOISE, CONSTANT, KERNEL, [Infinity]);
    for (const [amplitude, reach, other] of tuples([1, 0.4, -44.6176656], [1, 1.6, -47.3766733], [3, 1.6, -23.684425]))
      expect(
        gaussianProcess(PLACES, VALUES, NOISE, CONSTANT, { amplitude, reach }, [Infinity]).logLikelihood -
          logLikelihood,
      ).toBeCloseTo(other + 24.7065321, 4);
  });
});

describe('far from all values', () => {
  it('comes back to the trend far from all values, with the whole amplitude as doubt', () => {
    const process = gaussianProcess(PLACES, VALUES, NOISE, CONSTANT, KERNEL, [Infinity]);
    const far = process.at([100, 100], [1]);
    expect(far.value).toBeCloseTo(process.weights[0]!, 9);
    expect(far.sigma).toBeCloseTo(Math.hypot(3, Math.sqrt(process.weightCovariance[0]![0]!)), 9);
  });
});

it('refuses what has no answer', () => {
  expect(() =>
    gaussianProcess(
      PLACES,
      VALUES,
      NOISE.map(() => 0),
      CONSTANT,
      KERNEL,
      [Infinity],
    ),
  ).toThrow(/invalid noise/);
  expect(() => gaussianProcess(PLACES, VALUES, NOISE, CONSTANT, { amplitude: 1, reach: 0 }, [Infinity])).toThrow(
    /invalid reach/,
  );
  expect(() => gaussianProcess([[0, 0]], [1], [1], [[1]], KERNEL, [Infinity])).toThrow(/missing values/);
});

import { expect, it } from 'vitest';
import { Marks } from './marks';

it.each([1, 1.1, 1.6, 2])('marks by a Weibull law of shape %f, from nothing to all', (shape) => {
  const marks = new Marks(shape);
  // Closed form: Weibull's distribution; half is marked at the shape's root of ln 2.
  expect(marks.at(Math.LN2 ** (1 / shape))).toBeCloseTo(0.5, 4);
  for (const over of [0, 0.0007, 0.03, 0.4, 1, 2.3, 5, 40])
    expect(Math.abs(marks.at(over) - (1 - Math.exp(-(over ** shape))))).toBeLessThan(1e-4);
});

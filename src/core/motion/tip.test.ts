import { expect, it } from 'vitest';
import { atTip } from './tip';

const head = { accelerationXMmPerS2: 3000, accelerationYMmPerS2: 5000, rampPower: 'constant' } as const;

it('goes the slower round a tip the sharper it is, and burns the more there unless power follows', () => {
  // By hand, of a right angle: the arc that passes the corner at 0.01 mm has a radius of 0.01 s / (1 - s), s = sin 45°.
  const s = Math.SQRT1_2;
  const right = atTip(90, 20, head);
  expect(right.speedMmPerS).toBeCloseTo(Math.sqrt((3000 * 0.01 * s) / (1 - s)), 9);
  expect(right.energyTimes).toBeCloseTo(20 / right.speedMmPerS, 9);
  const sharp = atTip(30, 20, head);
  expect(sharp.speedMmPerS).toBeLessThan(right.speedMmPerS / 2);
  expect(atTip(30, 20, { ...head, rampPower: 'follows-speed' })).toEqual({ ...sharp, energyTimes: 1 });
  // A line slower than that is not slowed down.
  expect(atTip(90, 5, head)).toEqual({ speedMmPerS: 5, energyTimes: 1 });
  for (const none of [180, 0, -30, NaN]) expect(() => atTip(none, 5, head)).toThrow('invalid tip');
});

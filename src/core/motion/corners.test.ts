import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { prop } from '../../../tests/support/prop';
import { chainedTimeS, cornerSpeedMmPerS, type Leg, type LegMotion } from './corners';
import { moveTimeS } from './move';

const turnedBy = (degrees: number): Leg => [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
const AHEAD: Leg = [3, 0];

describe('the speed round a corner', () => {
  it('is that on the arc which touches both legs and passes the corner by so much: a right angle by hand', () => {
    // An arc of radius r in a right angle passes the corner at (sqrt 2 - 1) r; 0.01 mm away it has 0.02414 mm, and v² = a r.
    expect(cornerSpeedMmPerS(AHEAD, [0, 5], 3000)).toBeCloseTo(Math.sqrt((3000 * 0.01) / (Math.SQRT2 - 1)), 9);
    expect(cornerSpeedMmPerS(AHEAD, [0, -5], 3000, 0.04)).toBeCloseTo(
      2 * cornerSpeedMmPerS(AHEAD, [0, 5], 3000, 0.01),
      9,
    );
  });
  prop([fc.double({ min: 3, max: 176, noNaN: true })], { numRuns: 60 })(
    'and at any other, by that arc drawn',
    (turn) => {
      const speed = cornerSpeedMmPerS(AHEAD, turnedBy(turn), 1000);
      const radius = speed ** 2 / 1000;
      // Its middle lies on the line that halves the angle between the legs, as far from both as it is large.
      const inner = ((180 - turn) * Math.PI) / 180;
      const middleFromCorner = radius / Math.sin(inner / 2);
      expect(middleFromCorner - radius).toBeCloseTo(0.01, 6);
    },
  );
  it('has no bound straight on, is none where the head turns back, and asks for legs that are some', () => {
    expect(cornerSpeedMmPerS(AHEAD, [7, 0], 1000)).toBe(Infinity);
    expect(cornerSpeedMmPerS(AHEAD, [-1, 0], 1000)).toBe(0);
    expect(() => cornerSpeedMmPerS(AHEAD, [0, 0], 1000)).toThrow('invalid leg');
  });
});

/** Time of a chain by small steps: the fastest speed at each place that can still be slowed down for all that comes. */
function stepped(legs: readonly LegMotion[], corners: readonly number[]): number {
  const perMm = 300;
  const places = legs.flatMap((leg, k) =>
    Array.from({ length: Math.round(leg.lengthMm * perMm) }, (_, step) => ({
      ...leg,
      most: step === 0 ? (k === 0 ? 0 : Math.min(corners[k - 1]!, legs[k - 1]!.speedMmPerS)) : leg.speedMmPerS,
    })),
  );
  const speeds = [...places.map(({ most, speedMmPerS }) => Math.min(most, speedMmPerS)), 0];
  const gain = (k: number): number => (2 * places[k]!.accelerationMmPerS2) / perMm;
  for (let k = places.length - 1; k >= 0; k--)
    speeds[k] = Math.min(speeds[k]!, Math.sqrt(speeds[k + 1]! ** 2 + gain(k)));
  for (let k = 0; k < places.length; k++)
    speeds[k + 1] = Math.min(speeds[k + 1]!, Math.sqrt(speeds[k]! ** 2 + gain(k)));
  // Between two places acceleration is constant: their mean is the mean speed.
  return places.reduce((sum, _, k) => sum + 2 / perMm / (speeds[k]! + speeds[k + 1]!), 0);
}

const legMotions = fc.array(
  fc.record({
    lengthMm: fc.integer({ min: 1, max: 12 }),
    speedMmPerS: fc.double({ min: 5, max: 120, noNaN: true }),
    accelerationMmPerS2: fc.double({ min: 300, max: 4000, noNaN: true }),
  }),
  { minLength: 2, maxLength: 6 },
);

describe('legs that are run through without a stop', () => {
  prop([legMotions, fc.array(fc.double({ min: 0, max: 80, noNaN: true }), { minLength: 5, maxLength: 5 })], {
    numRuns: 60,
  })('take as long as a profile of speed made by small steps', (legs, corners) => {
    expect(Math.abs(chainedTimeS(legs, corners) / stepped(legs, corners) - 1)).toBeLessThan(0.012);
  });
  it('are entered no faster than they can be slowed down on for what comes: by hand', () => {
    // On the last millimetre 500 mm/s² stop sqrt(2 x 500 x 1) = 31.62 mm/s, in 0.0632 s. Before it 100 mm/s are reached, in 0.2 s, and left
    // again in 0.1368 s; ramps take 10 and 9 of the 20 mm, the rest 0.01 s.
    const legs = [20, 1].map((lengthMm) => ({ lengthMm, speedMmPerS: 100, accelerationMmPerS2: 500 }));
    expect(chainedTimeS(legs, [80])).toBeCloseTo(0.0632 + 0.2 + 0.1368 + 0.01, 3);
    // And left no faster than they could be sped up on: the same way back.
    expect(chainedTimeS([...legs].reverse(), [80])).toBeCloseTo(0.0632 + 0.2 + 0.1368 + 0.01, 3);
  });
  it('take as long as each by itself where every corner is a stop, and as one where none is', () => {
    const leg = { lengthMm: 8, speedMmPerS: 90, accelerationMmPerS2: 1500 };
    expect(chainedTimeS([leg, leg, leg], [0, 0])).toBeCloseTo(3 * moveTimeS(8, 90, 1500), 12);
    expect(chainedTimeS([leg, leg, leg], [Infinity, Infinity])).toBeCloseTo(moveTimeS(24, 90, 1500), 12);
  });
});

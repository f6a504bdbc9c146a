import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { straightTimeS, wayTimeS, type HeadMotion } from './head-motion';
import { motionTimeS, paceFrom, type BurnMotion, type TimedBurn } from './pace-fit';
import { paceWords, sureOfPace, UNTIMED, type Pace } from './pace';
import { tuples } from '../../../tests/support/tuples';

const HEAD: HeadMotion = {
  head: 'gantry',
  galvo: null,
  topSpeedXMmPerS: 500,
  topSpeedYMmPerS: 300,
  accelerationXMmPerS2: 3000,
  accelerationYMmPerS2: 2000,
};

/** Moves of a line of a fill: to its start, run-up, mark and run-out. */
const MOVES = 4;

/** A plain fill: lines of a length at a speed, with the run-up that the record asks for, and the step to the next line. */
function fill(lines: number, lengthMm: number, speedMmPerS: number): BurnMotion {
  const runUp = speedMmPerS ** 2 / (2 * HEAD.accelerationXMmPerS2);
  return {
    lines: MOVES * lines,
    ways: [
      { count: lines, legs: [[lengthMm + 2 * runUp, 0]], speedMmPerS },
      { count: lines, legs: [[0, 0.1]], speedMmPerS: null },
      { count: 8, legs: [[20, 10]], speedMmPerS: null },
    ],
  };
}

/**
 * How long a machine of known acceleration and overhead takes for such a fill, worked out by hand: L/v + 2 v/a where it reaches its speed
 * (a fill's line with its ramps outside it, by constant acceleration), and 2 sqrt(d/a) for the steps, which never do.
 */
function stopwatch(lines: number, lengthMm: number, v: number, a: { x: number; y: number }, overheadS: number): number {
  const way = lengthMm + v ** 2 / HEAD.accelerationXMmPerS2;
  const line = way >= v ** 2 / a.x ? v / a.x + way / v : 2 * Math.sqrt(way / a.x);
  const diagonal = Math.hypot(20, 10);
  const slower = Math.min(a.x / (20 / diagonal), a.y / (10 / diagonal));
  return lines * (line + 2 * Math.sqrt(0.1 / a.y) + overheadS) + 8 * 2 * Math.sqrt(diagonal / slower);
}

const SHAPES = [
  [300, 10, 60],
  [400, 40, 120],
  [200, 80, 250],
  [500, 20, 400],
  [300, 120, 90],
  [250, 60, 300],
  [600, 8, 200],
] as const;

const timedOn = (
  a: { x: number; y: number },
  overheadS: number,
  shapes: readonly (readonly [number, number, number])[] = SHAPES,
): TimedBurn[] =>
  shapes.map(([lines, length, speed]) => ({
    ...fill(lines, length, speed),
    tookS: stopwatch(lines, length, speed, a, overheadS),
  }));

describe('a machine’s pace from timed burns', () => {
  it('says nothing from fewer than three, and how many there are', () => {
    const pace = paceFrom(timedOn({ x: 2000, y: 1500 }, 0.01).slice(0, 2), HEAD);
    expect(pace).toMatchObject({ by: 'record', scale: 1, logs: 2, within95: null });
    expect(sureOfPace(pace)).toContain('three are needed');
    expect(sureOfPace(paceFrom([], HEAD))).toContain('never timed');
  });

  it('is one factor from three: the geometric mean of stopwatch over estimate', () => {
    const three = SHAPES.slice(0, 3).map(([lines, length, speed]) => fill(lines, length, speed));
    const factors = [1.05, 1.1, 1.21];
    const pace = paceFrom(
      three.map((motion, index) => ({ ...motion, tookS: motionTimeS(motion, HEAD) * factors[index]! })),
      HEAD,
    );
    expect(pace.by).toBe('scale');
    expect(pace.scale).toBeCloseTo((1.05 * 1.1 * 1.21) ** (1 / 3), 12);
    // Student's t for two degrees of freedom is 4.303 (any table); the spread of the next burn is that of the logs times sqrt(1 + 1/3).
    const logs = factors.map(Math.log);
    const mean = logs.reduce((sum, log) => sum + log, 0) / 3;
    const spread = Math.sqrt(logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) / 2);
    expect(pace.within95).toBeCloseTo(4.303 * spread * Math.sqrt(4 / 3), 3);
    expect(paceWords(pace)).toContain('from 3 timed burns');
  });

  it('never takes three that agree for certainty', () => {
    const motion = fill(300, 40, 120);
    const pace = paceFrom(
      [1, 2, 3].map(() => ({ ...motion, tookS: motionTimeS(motion, HEAD) * 1.3 })),
      HEAD,
    );
    expect(pace.scale).toBeCloseTo(1.3, 9);
    expect(pace.within95!).toBeGreaterThan(0.05);
  });

  it('keeps to one factor while the burns are alike: five like ones know nothing of acceleration', () => {
    const alike = timedOn(
      { x: 1200, y: 1000 },
      0.02,
      Array.from({ length: 6 }, (_, index) => [300 + index, 40, 120] as const),
    );
    expect(paceFrom(alike, HEAD).by).toBe('scale');
  });

  it('finds acceleration and overhead of a machine from five or more that differ, and foretells burns it never saw', () => {
    const truth = { x: 2100, y: 1400 };
    const pace = paceFrom(timedOn(truth, 0.012), HEAD);
    expect(pace.by).toBe('motion');
    expect(paceFrom(timedOn(truth, 0.012).slice(0, 5), HEAD).by).toBe('motion');
    expect(paceFrom(timedOn(truth, 0.012).slice(0, 4), HEAD).by).toBe('scale');
    // Two per cent a burn, by Student's factor for six degrees (2.447, any table), widened by what the fit itself does not know.
    expect(pace.within95!).toBeGreaterThan(2.447 * 0.02);
    expect(pace.within95!).toBeLessThan(2.447 * 0.02 * 2);
    expect(pace.shares.acceleration).toBeGreaterThan(0.63);
    expect(pace.shares.acceleration).toBeLessThan(0.77);
    expect(MOVES * pace.shares.lineOverheadS).toBeGreaterThan(0.009);
    expect(MOVES * pace.shares.lineOverheadS).toBeLessThan(0.015);
    for (const [lines, length, speed] of tuples([350, 15, 350], [150, 100, 60])) {
      const foretold = motionTimeS(fill(lines, length, speed), HEAD, pace.shares);
      const took = stopwatch(lines, length, speed, truth, 0.012);
      expect(Math.abs(foretold / took - 1)).toBeLessThan(0.02);
      expect(Math.abs(foretold / took - 1)).toBeLessThan(pace.within95!);
    }
  });

  prop(
    [
      fc.double({ min: 900, max: 6000, noNaN: true }),
      fc.double({ min: 0, max: 0.03, noNaN: true }),
      fc.array(fc.double({ min: -0.03, max: 0.03, noNaN: true }), { minLength: 7, maxLength: 7 }),
    ],
    { numRuns: 60 },
  )(
    'never ends in a wild machine: accelerations stay above zero and near what burns can tell, overhead above or at zero',
    (x, overheadS, errors) => {
      const timed = timedOn({ x, y: x * 0.7 }, overheadS).map((burn, index) => ({
        ...burn,
        tookS: burn.tookS * (1 + errors[index]!),
      }));
      const pace = paceFrom(timed, HEAD);
      expect(pace.within95!).toBeGreaterThan(0);
      expect(pace.shares.acceleration).toBeGreaterThan(0.15);
      expect(pace.shares.acceleration).toBeLessThan(4);
      expect(pace.shares.lineOverheadS).toBeGreaterThanOrEqual(0);
      expect(pace.shares.travelSpeed).toBeGreaterThan(0.3);
      expect(pace.shares.travelSpeed).toBeLessThan(3);
    },
  );

  it('is as sure as its burns and its own fit: Student’s factor on a burn’s spread widened by its pull on the fit', () => {
    const timed = timedOn({ x: 2100, y: 1400 }, 0.012);
    const { within95, shares } = paceFrom(timed, HEAD);
    // How far a burn pulls the fit towards itself, by moving its stopwatch alone.
    const relative = timed.map((burn, index) => {
      const moved = timed.map((one, at) => (at === index ? { ...one, tookS: one.tookS * 1.005 } : one));
      const pull =
        (motionTimeS(burn, HEAD, paceFrom(moved, HEAD).shares) - motionTimeS(burn, HEAD, shares)) /
        (0.005 * burn.tookS);
      return (Math.hypot(0.02 * burn.tookS, 1) * Math.sqrt(1 + pull)) / burn.tookS;
    });
    const middle = [...relative].sort((a, b) => a - b)[3]!;
    // 2.447 is Student's factor for six degrees (any table); for eight it would be 2.306.
    expect(within95! / (2.447 * middle)).toBeGreaterThan(0.98);
    expect(within95! / (2.447 * middle)).toBeLessThan(1.02);
  });

  describe('tells nothing of acceleration', () => {
    const timed = (ways: BurnMotion['ways']): TimedBurn => ({
      lines: 10,
      ways,
      tookS: 1.2 * motionTimeS({ lines: 10, ways }, HEAD),
    });
    const marks = (count: number, dxMm: number, speedMmPerS: number) => ({
      count,
      legs: [[dxMm, 0]] as const,
      speedMmPerS,
    });
    const travel = { count: 5, legs: [[100, 0]] as const, speedMmPerS: null };
    it('from lines that are equally long on the average, however fast', () => {
      // 300 of 10 mm and 100 of 50 mm are 20 mm on the average.
      const mixed = [100, 200, 400].map((v) => timed([marks(300, 10, v), marks(100, 50, v), travel]));
      const plain = [90, 150, 300].map((v, index) => timed([marks(100 * (index + 1), 20, v), travel]));
      expect(paceFrom([...mixed, ...plain], HEAD).by).toBe('scale');
      // Half as long again is enough.
      expect(paceFrom([...mixed, ...plain, timed([marks(200, 30.1, 90)])], HEAD).by).toBe('motion');
    });
    it('from lines that are equally fast on the average, however long', () => {
      // 3000 mm at 60 mm/s and 5000 mm at 250 mm/s take 70 s: 114.3 mm/s on the average.
      const mixed = [1, 2, 4].map((times) =>
        timed([marks(300 / times, 10 * times, 60), marks(100 / times, 50 * times, 250), travel]),
      );
      const plain = [10, 40, 80].map((length, index) => timed([marks(100 * (index + 1), length, 8000 / 70), travel]));
      expect(paceFrom([...mixed, ...plain], HEAD).by).toBe('scale');
      expect(paceFrom([...mixed, ...plain, timed([marks(200, 20, 172)])], HEAD).by).toBe('motion');
    });
  });

  it('takes a machine that is three times slower than its record for what it is', () => {
    const slow = SHAPES.slice(0, 3).map(([lines, length, speed]) => {
      const motion = fill(lines, length, speed);
      return { ...motion, tookS: 3 * motionTimeS(motion, HEAD) };
    });
    expect(paceFrom(slow, HEAD)).toMatchObject({ by: 'scale', logs: 3, leftOut: 0 });
    expect(paceFrom(slow, HEAD).scale).toBeCloseTo(3, 9);
    // A clock that never ran, and a burn without a way, are no logs at all.
    const empty = { lines: 0, ways: [], tookS: 12 };
    expect(paceFrom([...slow, { ...slow[0]!, tookS: 0 }, empty], HEAD)).toMatchObject({ logs: 3, leftOut: 0 });
  });

  it('leaves out a clock that was forgotten, and says so', () => {
    const timed = timedOn({ x: 2100, y: 1400 }, 0.012);
    const forgotten = { ...timed[0]!, tookS: timed[0]!.tookS * 9 };
    const pace = paceFrom([...timed, forgotten], HEAD);
    expect(pace).toMatchObject({ logs: 7, leftOut: 1 });
    expect(pace.shares).toEqual(paceFrom(timed, HEAD).shares);
    expect(sureOfPace(pace)).toContain('1 more left out');
  });

  it('gives a galvo head a factor and nothing else', () => {
    const galvo: HeadMotion = {
      ...HEAD,
      head: 'galvo',
      galvo: { jumpSpeedMmPerS: 3000, jumpDelayS: 0.0003, markDelayS: 0.0004, frequencyKHz: null },
    };
    const timed = SHAPES.map(([lines, length, speed]) => {
      const motion = fill(lines, length, speed);
      return { ...motion, tookS: motionTimeS(motion, galvo) * 1.2 };
    });
    expect(paceFrom(timed, galvo)).toMatchObject({ by: 'scale' });
  });
});

describe('a pace in words', () => {
  const pace = (change: Partial<Pace>): Pace => ({ ...UNTIMED, ...change });
  it.each([
    [{}, 'no burn was timed yet', 'never timed: may take twice as long'],
    [{ logs: 1 }, '1 timed burn: three say more', '1 timed burn, three are needed to go by'],
    [
      { logs: 2, leftOut: 1 },
      '2 timed burns: three say more',
      '2 timed burns, three are needed to go by; 1 more left out, twice off the others',
    ],
    [
      { by: 'scale', scale: 1.234, logs: 3, within95: 0.099 },
      '1.23 × the model’s time, from 3 timed burns',
      '± 9.9 % (95 %), from 3 timed burns',
    ],
    [
      {
        by: 'motion',
        logs: 7,
        leftOut: 2,
        within95: 0.051,
        shares: { acceleration: 0.7, travelSpeed: 0.95, lineOverheadS: 0.012 },
      },
      'acceleration 0.7 and travel speed 0.95 of the record, 12 ms a line, from 7 timed burns',
      '± 5.1 % (95 %), from 7 timed burns; 2 more left out, twice off the others',
    ],
  ] as const)('%j', (change, words, sure) => {
    expect(paceWords(pace(change))).toBe(words);
    expect(sureOfPace(pace(change))).toBe(sure);
  });
});

describe('the time of one way', () => {
  it('is a gantry’s where the head is one, whatever else its record says', () => {
    const both: HeadMotion = {
      ...HEAD,
      galvo: { jumpSpeedMmPerS: 3000, jumpDelayS: 0.0003, markDelayS: 0.0004, frequencyKHz: null },
    };
    // Round a corner the slower axis decides, whichever comes first: a slow last leg takes as long first.
    const [along, across] = tuples([30, 0], [0, 20]);
    const slowY = { ...HEAD, accelerationYMmPerS2: 100 };
    expect(wayTimeS([along, across], 50, slowY)).toBeCloseTo(wayTimeS([across, along], 50, slowY), 12);
    for (const speed of [null, 100])
      expect(straightTimeS(30, 20, speed, both)).toBe(straightTimeS(30, 20, speed, HEAD));
    expect(() => straightTimeS(0, 0, -1, HEAD)).toThrow(/^invalid speedMmPerS: -1$/);
  });
  it('is by the slower axis on a gantry, and by delays on a galvo', () => {
    // Along y the acceleration is 2000: 300 mm/s are reached after 22.5 mm; 90 mm take 300/2000 + 90/300.
    expect(straightTimeS(0, 90, null, HEAD)).toBeCloseTo(0.15 + 0.3, 12);
    expect(straightTimeS(-90, 0, 100, HEAD)).toBeCloseTo(100 / 3000 + 0.9, 12);
    // At 45 degrees y's limits decide: 2000 and 300 times the root of two along the way.
    const root = Math.SQRT2;
    expect(straightTimeS(200, 200, null, HEAD)).toBeCloseTo(
      (300 * root) / (2000 * root) + (200 * root) / (300 * root),
      12,
    );
    const galvo: HeadMotion = {
      ...HEAD,
      head: 'galvo',
      galvo: { jumpSpeedMmPerS: 3000, jumpDelayS: 0.0003, markDelayS: 0.0004, frequencyKHz: null },
    };
    expect(straightTimeS(30, 0, null, galvo)).toBeCloseTo(0.0103, 12);
    expect(straightTimeS(30, 0, 1000, galvo)).toBeCloseTo(0.0304, 12);
    expect(straightTimeS(0, 0, 1000, galvo)).toBe(0);
    // Half the travel speed doubles the jump's way, not its rest, and leaves marks as they are.
    const slow = { acceleration: 1, travelSpeed: 0.5, lineOverheadS: 0 };
    expect(straightTimeS(30, 0, null, galvo, slow)).toBeCloseTo(0.0203, 12);
    expect(straightTimeS(30, 0, 1000, galvo, slow)).toBeCloseTo(0.0304, 12);
    // On a gantry by hand: 90 mm along X at half of 500 mm/s, from rest to rest with 3000 mm/s².
    expect(straightTimeS(90, 0, null, HEAD, slow)).toBeCloseTo(250 / 3000 + 90 / 250, 12);
    expect(straightTimeS(90, 0, 100, HEAD, { ...slow, acceleration: 0.5 })).toBeCloseTo(100 / 1500 + 0.9, 12);
    expect(() => straightTimeS(1, 0, 0, HEAD)).toThrow(/^invalid speedMmPerS: 0$/);
  });
});

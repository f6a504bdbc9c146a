import seedrandom from 'seedrandom';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { kerfAlong, oddReadings } from '../fit/kerf';
import { chancePoint, firthLogistic, halfPoint, type YesNo } from './firth';
import { measuredFrom } from './measured';
import { studentFactor } from './student';
import { tuples } from '../../../tests/support/tuples';

const answers = (...yes: number[]): YesNo[] => yes.map((one, index) => ({ x: index + 1, yes: one === 1 }));

/** Penalised log likelihood straight from its definition, with nothing of the program's own. */
function penalised(data: readonly YesNo[], intercept: number, slope: number): number {
  let [a, b, d, log] = [0, 0, 0, 0];
  for (const { x, yes } of data) {
    const p = 1 / (1 + Math.exp(-(intercept + slope * x)));
    a += p * (1 - p);
    b += p * (1 - p) * x;
    d += p * (1 - p) * x * x;
    log += Math.log(yes ? p : 1 - p);
  }
  return log + 0.5 * Math.log(a * d - b * b);
}

describe('the penalised logistic fit', () => {
  // Values of the reference implementation in R (package logistf) for the smallest separated example.
  it('gives the reference’s numbers where answers separate completely', () => {
    const fit = firthLogistic(answers(0, 0, 0, 1, 1, 1));
    expect(fit.intercept).toBeCloseTo(-3.95119, 5);
    expect(fit.slope).toBeCloseTo(1.12891, 5);
    expect(-fit.intercept / fit.slope).toBeCloseTo(3.5, 6);
    expect((Math.log(9) - fit.intercept) / fit.slope).toBeCloseTo(5.446, 3);
  });
  it.each([[[0, 0, 1, 0, 1, 1, 1]], [[0, 1, 0, 1, 1]], [[0, 0, 0, 0, 0, 1]], [[1, 1, 0, 1, 1, 1, 1, 1]]])(
    'stands where no step along either axis is better: %j',
    (yes) => {
      const data = answers(...yes);
      const { intercept, slope, logLikelihood, stopped } = firthLogistic(data);
      expect(stopped).toBe('converged');
      const best = penalised(data, intercept, slope);
      expect(logLikelihood).toBeCloseTo(best, 8);
      for (const [u, v] of tuples([1, 0], [-1, 0], [0, 1], [0, -1], [1, -0.3], [-1, 0.3]))
        expect(penalised(data, intercept + 0.01 * u, slope + 0.01 * v)).toBeLessThan(best);
    },
  );
  prop([fc.array(fc.boolean(), { minLength: 4, maxLength: 14 }), fc.double({ min: 0.01, max: 50, noNaN: true })])(
    'does not care about the unit of x',
    (yes, unit) => {
      const data = yes.map((one, x) => ({ x, yes: one }));
      const scaled = data.map((one) => ({ ...one, x: one.x * unit }));
      const a = halfPoint(data);
      const b = halfPoint(scaled);
      if (!a || !b || Math.abs(firthLogistic(data).slope) < 1e-6) return;
      expect(b.x / unit).toBeCloseTo(a.x, 5);
    },
  );
  it('bounds the half point about as far as the answers do, wider when they contradict each other', () => {
    const clear = halfPoint(answers(0, 0, 0, 0, 1, 1, 1, 1))!;
    expect(clear.x).toBeCloseTo(4.5, 6);
    expect(clear.low! + clear.high!).toBeCloseTo(9, 4);
    // At the ends of the interval the profile has fallen by half of 3.841, the 95 % point of chi-squared (published tables).
    const best = firthLogistic(answers(0, 0, 0, 0, 1, 1, 1, 1)).logLikelihood;
    const at = firthLogistic(answers(0, 0, 0, 0, 1, 1, 1, 1), clear.high).logLikelihood;
    expect(best - at).toBeCloseTo(3.841 / 2, 3);
    const mixed = halfPoint(answers(0, 0, 1, 0, 1, 0, 1, 1))!;
    const width = ({ low, high }: typeof mixed): number => (high ?? Infinity) - (low ?? -Infinity);
    expect(width(mixed)).toBeGreaterThan(width(clear));
  });
  it('tells the x of any chance, by hand from the published fit, as far from the half to either side', () => {
    const data = answers(0, 0, 0, 1, 1, 1);
    expect(chancePoint(data, 0.02)!.x).toBeCloseTo((3.95119 - Math.log(49)) / 1.12891, 4);
    expect(chancePoint(data, 0.02)!.x + chancePoint(data, 0.98)!.x).toBeCloseTo(7, 6);
    expect(chancePoint(data, 0.5)).toEqual(halfPoint(data));
    for (const chance of [0, 1]) expect(() => chancePoint(data, chance)).toThrow(RangeError);
    // Held there, the line has that chance there, and the likelihood has fallen by half of 3.841 at the interval's ends.
    const { high } = chancePoint(data, 0.02)!;
    const held = firthLogistic(data, high, Math.log(0.02 / 0.98));
    expect(held.intercept + held.slope * high!).toBeCloseTo(Math.log(1 / 49), 6);
    expect(firthLogistic(data).logLikelihood - held.logLikelihood).toBeCloseTo(3.841 / 2, 3);
  });
  it('tells where one in fifty says yes, by 48 answers: its interval holds the truth in at least 90 of 100', () => {
    let held = 0;
    for (let run = 0; run < 100; run++) {
      const random = seedrandom(`one in fifty ${run}`);
      // The half lies at 0, one in fifty at -ln 49 / 4.
      const data = Array.from({ length: 48 }, (_, index): YesNo => {
        const x = ((index % 12) - 6) / 3;
        return { x, yes: random() < 1 / (1 + Math.exp(-4 * x)) };
      });
      const point = chancePoint(data, 0.02);
      const truth = -Math.log(49) / 4;
      if (point && (point.low ?? -Infinity) <= truth && truth <= (point.high ?? Infinity)) held++;
    }
    expect(held).toBeGreaterThanOrEqual(90);
  });
  it.each([1.2, 3, 5.5, 40])('held to a half at %f stands where no other slope is better', (through) => {
    const data = answers(0, 0, 1, 0, 1, 1, 1);
    const { intercept, slope, logLikelihood, stopped } = firthLogistic(data, through);
    expect(stopped).toBe('converged');
    expect(intercept + slope * through).toBeCloseTo(0, 9);
    const at = (change: number): number => penalised(data, -(slope + change) * through, slope + change);
    expect(logLikelihood).toBeCloseTo(at(0), 8);
    for (const change of [0.001, -0.001]) expect(at(change)).toBeLessThan(at(0));
  });
  it.each([[[0, 0, 1, 1]], [[0, 1, 1, 1, 1]], [[0, 0, 0, 0, 1]], [[0, 0, 1, 0, 1, 0, 1, 1]], [[0, 0, 0, 1, 1, 1]]])(
    'ends its interval where the likelihood has fallen by 1.92, or not within reach: %j',
    (yes) => {
      // Off zero, so that an end's distance from the data is not its own value.
      const data = answers(...yes).map(({ x, yes: one }) => ({ x: x + 20, yes: one }));
      const [from, to] = [21, 20 + yes.length];
      const best = firthLogistic(data).logLikelihood;
      const fall = (x: number): number => best - firthLogistic(data, x).logLikelihood;
      for (const reach of [0.1, 0.5, 3]) {
        const { low, high } = halfPoint(data, reach)!;
        const furthest = [from - reach * (to - from), to + reach * (to - from)] as const;
        if (low === null) expect(fall(furthest[0])).toBeLessThan(1.9208);
        else expect(fall(low)).toBeCloseTo(1.9207, 3);
        if (high === null) expect(fall(furthest[1])).toBeLessThan(1.9208);
        else expect(fall(high)).toBeCloseTo(1.9207, 3);
        if (low !== null) expect(low).toBeGreaterThan(furthest[0]);
        if (high !== null) expect(high).toBeLessThan(furthest[1]);
      }
    },
  );
  it('leaves open what nothing stands against, and gives nothing where yes gets rarer', () => {
    expect(halfPoint(answers(0, 1))!.high).toBeNull();
    expect(halfPoint(answers(1, 1, 0, 0))).toBeNull();
    expect(() => firthLogistic([{ x: 2, yes: true }])).toThrow('invalid data: every x is the same');
  });
});

describe('Student’s factor', () => {
  // Published: JCGM 100:2008 (GUM), table G.2.
  it.each([
    [1, 0.95, 12.71],
    [2, 0.95, 4.3],
    [4, 0.95, 2.78],
    [10, 0.95, 2.23],
    [30, 0.95, 2.04],
    [100, 0.95, 1.984],
    [Infinity, 0.95, 1.96],
    [5, 0.99, 4.03],
    [8, 0.9, 1.86],
  ])('for %d degrees and %d is %d', (degrees, coverage, factor) =>
    expect(Math.abs(studentFactor(degrees, coverage) - factor)).toBeLessThan(0.0051),
  );
  it('takes degrees in between, and refuses what is none', () => {
    expect(studentFactor(6.4, 0.95)).toBeGreaterThan(studentFactor(7, 0.95));
    expect(studentFactor(6.4, 0.95)).toBeLessThan(studentFactor(6, 0.95));
    for (const bad of [0.99, -1, NaN]) expect(() => studentFactor(bad, 0.95)).toThrow(`invalid degrees: ${bad}`);
    for (const bad of [0, 1, NaN]) expect(() => studentFactor(3, bad)).toThrow(`invalid coverage: ${bad}`);
  });
  // One degree of freedom is the Cauchy law: its quantiles are a tangent.
  it.each([0.01, 0.5, 0.9, 0.999])('is in closed form for one degree at %f', (coverage) => {
    expect(studentFactor(1, coverage) / Math.tan((Math.PI * coverage) / 2)).toBeCloseTo(1, 9);
    // And for two: t = c / sqrt((1 - c²) / 2).
    expect(studentFactor(2, coverage) / (coverage / Math.sqrt((1 - coverage ** 2) / 2))).toBeCloseTo(1, 9);
  });
});

describe('kerf from repeated readings', () => {
  const READ = [24.86, 24.88, 24.85, 24.87, 24.86];
  // Worked by hand after JCGM 100:2008 (GUM): 4.2.3 for u_A, 4.3.7 for u_B, G.4 for the degrees.
  it('has the mean, uncertainties and interval of the worked example', () => {
    const { kerf } = kerfAlong(
      [{ side: 'part', drawnMm: 25, readingsMm: READ }],
      { resolution: 0.01, statedError: 0 },
      0,
    );
    expect(kerf.mean).toBeCloseTo(0.136, 9);
    expect(kerf.uA).toBeCloseTo(0.0051, 5);
    expect(kerf.uB).toBeCloseTo(0.00289, 5);
    expect(kerf.combined).toBeCloseTo(0.00586, 5);
    expect(kerf.expanded95).toBeCloseTo(0.0139, 4);
  });
  it('counts a caliper’s stated error as a rectangular law, and cannot be surer than the gauge', () => {
    const sure = measuredFrom([5, 5, 5], { resolution: 0.01, statedError: 0.02 });
    expect(sure.combined).toBeCloseTo(Math.hypot(0.01 / Math.sqrt(12), 0.02 / Math.sqrt(3)), 12);
    expect(sure.degrees).toBe(Infinity);
    expect(measuredFrom([5], { resolution: 0.01, statedError: 0 })).toMatchObject({ readings: 1, uA: 0 });
    expect(() => measuredFrom([], { resolution: 0.01, statedError: 0 })).toThrow('missing readings');
  });
  it('names readings that stand out, never among three', () => {
    expect(oddReadings([0.13, 0.14, 0.13, 0.135, 0.9], 0.01)).toEqual([4]);
    expect(oddReadings([0.13, 0.14, 0.13, 0.15], 0.01)).toEqual([]);
    expect(oddReadings([0.13, 0.14, 0.9], 0.01)).toEqual([]);
    // Median 0.12, of the deviations 0.01: three robust sigmas are 3 x 1.4826 x 0.01 = 0.0445, by hand. Of equal ones it is three steps.
    const beside = (last: number): number[] => oddReadings([0.1, 0.11, 0.12, 0.13, 0.14, 0.12, last], 0.01);
    expect([beside(0.12 + 0.044), beside(0.12 + 0.046)]).toEqual([[], [6]]);
    expect([oddReadings([1, 1, 1, 1, 1.025], 0.01), oddReadings([1, 1, 1, 1, 0.96], 0.01)]).toEqual([[], [4]]);
  });
});

import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { boxOfShape } from '../../core/card/shape';
import { deliveredPowerW } from '../../core/machine/machine';
import type { CellReading } from '../../core/reading/observations';
import type { LineSeen } from '../../core/reading/lines/single-line';
import type { FactNow } from '../../core/book/facts';
import { interval } from '../interval';
import type { LineWidthPlan } from './plan';
import { lineWidth } from '.';
import { tuples } from '../../../tests/support/tuples';
import { said } from '../../../tests/support/said';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
let plan: LineWidthPlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = lineWidth.propose(known));
  layout = layCard(lineWidth, plan, pairing, { cardNumber: 5 });
});
const wattsOf = (cellIndex: number, of: Layout = layout): number =>
  deliveredPowerW(pairing.machine, mainBurn(of.cells[cellIndex]!).settings.powerFraction);

/** The beam and the watts from which a line's middle gets half as dark as it can, of made-up lines. */
const [BEAM_MM, HALF_W] = [0.13, 8];
/** A line as a Gaussian beam would burn it into stock that darkens by its energy and no further than to a tenth. */
function lineAt(watts: number, change: Partial<LineSeen> = {}): LineSeen {
  const taken = Array.from({ length: 81 }, (_, k) => {
    const place = (k - 40) * 0.01;
    const energy = (watts / HALF_W) * Math.exp(-8 * (place / BEAM_MM) ** 2);
    return 0.9 * (1 - 0.5 ** energy);
  });
  const level = Math.max(...taken) / 2;
  const wide = (2 * taken.filter((value) => value >= level).length) / 2 / 100;
  return {
    besideMm: 0,
    besideSigmaMm: 0.001,
    widthMm: wide,
    widthSigmaMm: 0.003,
    raggedMm: 0.004,
    raggedSigmaMm: 0.001,
    profile: { stepMm: 0.01, taken },
    ...change,
  };
}
const seenOf = (of: Layout, line: (cellIndex: number) => LineSeen | null, answers: Seen['answers'] = []): Seen => ({
  readings: of.order.map((cellIndex) => ({ cellIndex, line: line(cellIndex), confidence: 1 }) as CellReading),
  answers,
});
const find = (seen: Seen) => lineWidth.find(layout, seen, known);

describe('a card of single lines', () => {
  it.each(['horizontal', 'vertical'] as const)(
    'that run %s is one sweep to a cell, in its middle, with bare stock beside it',
    (direction) => {
      const other = layCard(lineWidth, { ...plan, constants: { ...plan.constants, direction } }, pairing, {
        cardNumber: 5,
      });
      expect(other.cells).toHaveLength(plan.power.count * plan.repeats);
      const [long, across] =
        direction === 'horizontal' ? (['width', 'height'] as const) : (['height', 'width'] as const);
      for (const { box, burns } of other.cells) {
        const sweep = boxOfShape(burns[0]!.shape);
        expect(burns).toHaveLength(1);
        expect(sweep[long]).toBeCloseTo(plan.lineMm, 6);
        expect(sweep[across]).toBeCloseTo(plan.constants.intervalMm, 6);
        expect(sweep.x + sweep.width / 2).toBeCloseTo(box.x + box.width / 2, 3);
        expect(sweep.y + sweep.height / 2).toBeCloseTo(box.y + box.height / 2, 3);
        expect(box[across] - sweep[across]).toBeGreaterThan(1);
      }
      const powers = other.cells.map(({ levels }) => levels.power as number);
      expect(new Set(powers).size).toBe(plan.power.count);
      expect(powers).toEqual([...powers].sort((a, b) => a - b));
      // Solid fills for the photo's own blur, between the lowest and the highest power, lie clear of the lines.
      expect(other.before).toHaveLength(plan.repeats);
      for (const { shape, settings } of other.before) {
        expect(boxOfShape(shape)[across]).toBeGreaterThan(2);
        expect(settings.powerFraction).toBeGreaterThan(plan.power.from);
        expect(settings.powerFraction).toBeLessThan(plan.power.to);
        expect(settings.intervalMm).toBeLessThan(plan.constants.intervalMm);
      }
    },
  );
  it('goes from a faint line to one that is nearly spoiled, slower where the cap does not reach that, at the kept speed where one is kept', () => {
    expect(plan.power.to / plan.power.from).toBeGreaterThanOrEqual(3);
    expect(plan.power.to).toBeLessThanOrEqual(pairing.machine.powerCap);
    const weak = { ...pairing, machine: { ...pairing.machine, ratedPowerW: 5, powerTable: null } };
    expect(lineWidth.propose({ pairing: weak, facts: [] }).plan.constants.speedMmPerS).toBeLessThan(
      plan.constants.speedMmPerS / 5,
    );
    const settings = { ...plan.constants, powerFraction: 0.4, speedMmPerS: 77, lineAngleDeg: 0, crossHatch: false };
    const kept = factNow('engrave', { settings, lightness: null, lightnessSigma: null, confidence: null });
    const proposal = lineWidth.propose({ pairing, facts: [kept] });
    expect(proposal.plan.constants.speedMmPerS).toBe(77);
    // At that speed the cap is more than spoils; far faster it is all there is.
    expect(proposal.plan.power.to).toBeLessThan(pairing.machine.powerCap);
    expect(proposal.reasons['power.to']).toMatch(/^a line whose middle/);
    const fast = factNow('engrave', {
      settings: { ...settings, speedMmPerS: 590 },
      lightness: null,
      lightnessSigma: null,
      confidence: null,
    });
    const capped = lineWidth.propose({ pairing, facts: [fast] });
    expect(capped.plan.power.to).toBe(pairing.machine.powerCap);
    expect(capped.reasons['power.to']).toMatch(/^the cap of this machine/);
    expect(proposal.reasons['constants.speedMmPerS']).toContain('found to engrave well');
  });
  it('has the strongest at the top where lines lie, and at the right where they stand', () => {
    for (const [direction, axis, way] of tuples(['horizontal', 'y', -1], ['vertical', 'x', 1])) {
      const { cells } = lineWidth.draw({ ...plan, constants: { ...plan.constants, direction } }, pairing);
      const sorted = [...cells].sort((a, b) => Number(a.levels.power) - Number(b.levels.power));
      const places = sorted.map(({ box }) => way * box[axis]);
      expect(places).toEqual([...places].sort((a, b) => a - b));
      expect(new Set(places).size).toBe(plan.power.count);
    }
  });
  it('has bare stock of many widths between lines, however wide they are', () => {
    const pitchOf = (spotMm: number) =>
      lineWidth.propose({
        ...known,
        pairing: { ...pairing, lens: { ...pairing.lens, spotXMm: spotMm, spotYMm: spotMm } },
      }).plan.pitchMm;
    for (const spotMm of [0.05, 0.2, 0.5]) expect(pitchOf(spotMm)).toBeGreaterThan(8 * spotMm);
    expect(pitchOf(0.05)).toBe(2);
  });
  it('is told in whole mm/s, and below ten of them in tenths', () => {
    const speedOf = (ratedPowerW: number): number => {
      const machine = { ...pairing.machine, ratedPowerW, powerTable: null };
      return lineWidth.propose({ pairing: { ...pairing, machine }, facts: [] }).plan.constants.speedMmPerS;
    };
    // In proportion to the source: what 33 W do at 135 to 136 mm/s, a watt does at 4.09 to 4.12, and two at twice that.
    expect(speedOf(33)).toBe(135);
    expect(speedOf(1)).toBe(4.1);
    expect([8.2, 8.3]).toContain(speedOf(2));
    expect(speedOf(3)).toBe(12);
  });
  it('is refused with lines too near each other, too short, or none', () => {
    const fields = (change: object) => lineWidth.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ pitchMm: 1.9 })).toEqual(['pitchMm']);
    expect(fields({ lineMm: 2 })).toEqual(['lineMm']);
    for (const repeats of [0, 9, 1.5]) expect(fields({ repeats })).toEqual(['repeats']);
    expect(fields({ power: { ...plan.power, to: pairing.machine.powerCap + 0.05 } })).toEqual(['power.to']);
    expect(fields({ power: { ...plan.power, from: 0 } })).not.toEqual([]);
  });
});

describe('what single lines say', () => {
  it('is the width of the strongest, the beam and where it marks', () => {
    const { lines, law, strongest, says, missing } = find(seenOf(layout, (index) => lineAt(wattsOf(index))));
    expect(missing).toEqual([]);
    expect(lines).toHaveLength(layout.cells.length);
    expect(lines.map(({ powerFraction }) => powerFraction)).toEqual(
      [...lines.map(({ powerFraction }) => powerFraction)].sort((a, b) => a - b),
    );
    expect(strongest!.powerFraction).toBe(plan.power.to);
    expect(strongest!.widthMm).toBe(lines.at(-1)!.widthMm);
    // Two lines alike: surer than one by the root of two.
    expect(strongest!.sigmaMm).toBeCloseTo(0.003 / Math.SQRT2, 6);
    // Where they differ by 0.04 mm it is half of that that their mean is off by, as they scatter.
    const [one] = layout.cells.filter(({ levels }) => levels.power === plan.power.to);
    const odd = find(
      seenOf(layout, (index) => {
        const line = lineAt(wattsOf(index));
        return index === one!.index ? { ...line, widthMm: line.widthMm! + 0.04 } : line;
      }),
    );
    expect(odd.strongest!.sigmaMm).toBeCloseTo(0.02, 6);
    expect(Math.abs(law!.spotMm - BEAM_MM)).toBeLessThan(2 * law!.spotSigmaMm);
    expect(Math.abs(law!.spotMm / BEAM_MM - 1)).toBeLessThan(0.06);
    expect(law!.spotSigmaMm).toBeGreaterThan(0.08 * law!.spotMm);
    expect(law!.spotSigmaMm).toBeLessThan(0.2 * law!.spotMm);
    expect(Math.abs(deliveredPowerW(pairing.machine, law!.thresholdFraction) / HALF_W - 1)).toBeLessThan(0.15);
    expect(law!.thresholdLow).toBeLessThan(law!.thresholdFraction);
    expect(law!.thresholdHigh).toBeGreaterThan(law!.thresholdFraction);
    expect(says).toContain('across the lines');
  });
  it('leaves out lines that were called broken or nothing', () => {
    const top = layout.cells.filter(({ levels }) => levels.power === plan.power.to).map(({ index }) => index);
    const answers = top.map((cellIndex, place) => said('line', cellIndex, place === 0 ? 'broken' : 'nothing'));
    const { lines, strongest } = find(seenOf(layout, (index) => lineAt(wattsOf(index)), answers));
    expect(lines.some(({ cellIndex }) => top.includes(cellIndex))).toBe(false);
    expect(strongest!.powerFraction).toBeLessThan(plan.power.to);
    const all = layout.order.map((cellIndex) => ({ field: 'line', cellIndex, repeat: 0, value: 'nothing' }));
    expect(find(seenOf(layout, (index) => lineAt(wattsOf(index)), all)).missing[0]).toContain(
      'called broken or nothing',
    );
    // It is not that the photo was taken from too far away where it tells some of them.
    const some = find(seenOf(layout, (index) => (index % 2 === 0 ? lineAt(wattsOf(index)) : null), all));
    expect(some.missing[0]).toContain('called broken or nothing');
  });
  it('is widths alone where too few lines are dark for a law, and nothing where the photo tells none', () => {
    const faint = find(
      seenOf(layout, (index) => (wattsOf(index) > wattsOf(layout.order.at(-1)!) * 0.9 ? lineAt(wattsOf(index)) : null)),
    );
    expect(faint.law).toBeNull();
    expect(faint.strongest).not.toBeNull();
    expect(faint.says).toContain('Too few lines');
    const far = find(
      seenOf(layout, (index) =>
        lineAt(wattsOf(index), { widthMm: null, widthSigmaMm: null, raggedMm: null, profile: null }),
      ),
    );
    expect(far.missing[0]).toContain('40 pixels to a millimetre');
    expect(lineWidth.settle(far, layout)).toEqual([]);
    expect(find({ readings: [], answers: [] }).missing[0]).toContain('No photo');
  });
  it('is kept with the settings it holds at, and what intervals are tried starts from it', () => {
    const finding = find(seenOf(layout, (index) => lineAt(wattsOf(index))));
    const [draft] = lineWidth.settle(finding, layout);
    expect(draft).toMatchObject({
      name: 'line',
      at: { speed: plan.constants.speedMmPerS, passes: 1 },
      sigma: finding.strongest!.sigmaMm,
    });
    expect(draft!.value).toMatchObject({
      direction: 'horizontal',
      powerFraction: plan.power.to,
      spotMm: finding.law!.spotMm,
    });
    const keeps = (change: object): FactNow =>
      ({
        ...draft,
        value: { ...draft!.value, ...change },
        factId: 1,
        version: 1,
        origin: 'card',
        createdAt: '2026-11-01',
        stale: [],
      }) as FactNow;
    const widest = (facts: FactNow[]): number => interval.propose({ pairing, facts }).plan.interval.to;
    expect(interval.propose(known).reasons['interval.to']).toContain('is expected to mark');
    // No law: the width itself, one and a half of it between the lines.
    expect(widest([keeps({ spotMm: null, thresholdFraction: null, widthMm: 0.1 })])).toBeCloseTo(0.15, 3);
    // By the law: √(½ ln(P / P0)) of the beam at the power that is filled with.
    const { powerFraction } = interval.propose(known).plan.constants;
    const watts = deliveredPowerW(pairing.machine, powerFraction);
    const law = { spotMm: 0.1, thresholdFraction: 0.1, widthMm: 1 };
    const foretold = 0.1 * Math.sqrt(Math.log(watts / deliveredPowerW(pairing.machine, 0.1)) / 2);
    expect(widest([keeps(law)])).toBeCloseTo(
      Math.max(2 * interval.propose({ pairing, facts: [keeps(law)] }).plan.interval.from, 1.5 * foretold),
      2,
    );
    // Lines that run the other way say nothing of these.
    expect(widest([keeps({ direction: 'vertical', spotMm: null, thresholdFraction: null, widthMm: 0.1 })])).toBe(
      widest([]),
    );
    expect(interval.propose({ pairing, facts: [keeps(law)] }).reasons['interval.to']).toContain('was found to mark');
  });
});

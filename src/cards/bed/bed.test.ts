import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { readingOf } from '../../../stand-ins/made-up-reading';
import type { Answer } from '../../core/card/asks';
import type { Pairing } from '../../core/card/contract';
import { layCard, planProblems } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { sweepRunUpMm } from '../../core/card/path';
import { deliveredPowerW } from '../../core/machine/machine';
import { LOW_CONFIDENCE } from '../../core/reading/observations';
import { grid } from '../grid';
import { LINES_FIELD } from './find';
import { leastSpanMm, patchesSize, type BedPlan } from './plan';
import { bed } from '.';

const pairing = demoPairing('marl', 'alder');
const known = { pairing, facts: [] };
let plan: BedPlan;
let layout: Layout;
let stations: NonNullable<Layout['stations']>;
let offsetMm: number;
let BEND: number;
beforeEach(() => {
  ({ plan } = bed.propose(known));
  layout = layCard(bed, plan, pairing, { cardNumber: 9 });
  stations = layout.stations!;
  ({ offsetMm } = plan);
  BEND = -0.5 / offsetMm ** 2;
});

/** Where a station lies over what is tested: from 0 at the left and the rear to 1 at the right and the front. */
const shares = (station: number) => ({ x: (station % 3) / 2, y: Math.floor(station / 3) / 2 });

interface Bed {
  /** How much higher than the set focus the sheet stands, and by how many L* marks differ from bare stock. */
  readonly height?: (x: number, y: number) => number;
  readonly strength?: (x: number, y: number) => number;
  readonly sign?: 1 | -1;
  readonly only?: readonly number[];
}

/** What photos of a bed would show, all of them read. */
const seenOn = ({ height = () => 0, strength = () => 10, sign = -1, only }: Bed, answers: Answer[] = []) => ({
  answers,
  readings: stations.flatMap(({ cells }, station) => {
    if (only && !only.includes(station)) return [];
    const { x, y } = shares(station);
    return cells.map((cell, k) => {
      const offset = mainBurn(layout.cells[cell]!).settings.focusOffsetMm;
      // A little noise that no plane has, alike in every test.
      const noise = 0.02 * Math.sin(7 * station + 3 * k);
      return {
        ...readingOf(cell),
        deltaLightness: sign * (strength(x, y) + 5 * noise),
        lightnessSigma: 0.2,
        ripple: { amplitude: 0.5 * Math.exp(BEND * (offset - height(x, y)) ** 2 + noise), sigma: 0.02 },
      };
    });
  }),
});
const found = (of: Bed, answers: Answer[] = []) => bed.find(layout, seenOn(of, answers), known);
const corner = (finding: ReturnType<typeof found>, name: string) => finding.corners.find((one) => one.corner === name)!;

describe('a bed', () => {
  it('is level where no place is sharper raised or lowered, and says to what', () => {
    const finding = found({});
    expect(finding).toMatchObject({ verdict: 'level', missing: [], drifts: [] });
    expect(finding.says).toMatch(/^Level: from corner to corner it is no more than 0\.\d+ mm\.$/);
    expect(finding.places.every(({ by }) => by === 'photo')).toBe(true);
  });

  it('is told for all that was tested, and not called level where a tilt out of focus would not show there', () => {
    const said = (station: number): Answer[] =>
      stations[station]!.cells.map((cellIndex, patch) => ({
        field: LINES_FIELD,
        cellIndex,
        repeat: 0,
        value: patch === 1 ? 'sharpest' : 'softer',
      }));
    const by = (...told: number[]) => bed.find(layout, { readings: [], answers: told.flatMap(said) }, known);
    // All corners by eye, to within the step of focus; and only those at the rear left, of which the front right is far.
    expect(by(0, 2, 6, 8).verdict).toBe('level');
    const near = by(0, 1, 3, 4);
    expect(near.verdict).toBeNull();
    expect(near.missing[0]).toMatch(/^No tilt shows, but one that lifts a corner by [\d.]+ mm would not show either/);
    expect(bed.settle(near)).toEqual([]);
    // A photo of these four tells the tilt of the whole bed all the same.
    const tilted = found({ only: [0, 1, 3, 4], height: (x) => 0.6 * offsetMm * (x - 0.5) });
    expect(corner(tilted, 'front right').value).toBeCloseTo(0.3 * offsetMm, 1);
  });

  it('is tilted where heights make a plane: higher where the raised patch is the sharper one', () => {
    const finding = found({ height: (x, y) => 0.1 + 0.4 * (x - 0.5) - 0.2 * (y - 0.5) });
    expect(finding.verdict).toBe('tilted');
    // Rear is 0 along y: there the sheet is higher.
    expect(corner(finding, 'rear right').value).toBeCloseTo(0.3, 1);
    expect(corner(finding, 'front left').value).toBeCloseTo(-0.3, 1);
    expect(corner(finding, 'rear left').value).toBeCloseTo(-0.1, 1);
    expect(corner(finding, 'front right').value).toBeCloseTo(0.1, 1);
    expect(finding.middle!.value).toBeCloseTo(0.1, 1);
    // Marks are no copy of the light: heights are no surer than to 15 % of themselves.
    for (const { value, sigma } of finding.corners) expect(sigma).toBeGreaterThan(0.15 * Math.abs(value));
    expect(finding.middle!.sigma).toBeGreaterThan(0.015);
    expect(finding.says).toMatch(
      /at the rear right the sheet stands 0\.\d+ mm ± 0\.\d+ mm higher than at the front left/,
    );
  });

  it('has its middle no surer than the focus is set, and its corners as sure as ever', () => {
    const { focusScatterMm: _, ...said } = layout;
    const seen = seenOn({ height: (x) => 0.2 * (x - 0.5) });
    const [none, ruled] = [bed.find(said, seen, known), bed.find({ ...said, focusScatterMm: 0.4 }, seen, known)];
    expect(ruled.middle!.sigma).toBeCloseTo(Math.hypot(none.middle!.sigma, 0.4), 9);
    expect(ruled.corners).toEqual(none.corners);
  });

  it('tells a place’s tone by cells that are not in doubt', () => {
    const seen = seenOn({});
    const strengthsBy = (confidence: number) =>
      bed
        .find(
          layout,
          { ...seen, readings: seen.readings.map((one, k) => (k === 1 ? { ...one, confidence } : one)) },
          known,
        )
        .places.map(({ strength }) => strength !== null);
    expect(strengthsBy(LOW_CONFIDENCE)).toEqual(Array(9).fill(true));
    expect(strengthsBy(LOW_CONFIDENCE - 0.01)).toEqual([false, ...Array(8).fill(true)]);
  });

  it('is said to matter or not by the depth of focus', () => {
    const depth = found({}).focusDepthMm!;
    expect(depth).toBeCloseTo(offsetMm * Math.sqrt(Math.log(1.25) / 0.5), 1);
    expect(found({ height: (x) => 0.4 * depth * (x - 0.5) }).says).toMatch(/engraving need not care/);
    expect(found({ height: (x) => 2.4 * depth * (x - 0.5) }).says).toMatch(
      /lower the (rear|front) right and raise the (rear|front) left/,
    );
  });

  it('is not blamed for a sheet that bows, and a small bow is told beside the tilt', () => {
    const bow = (x: number, y: number): number => (1 - (2 * x - 1) ** 2) * (1 - (2 * y - 1) ** 2);
    const depth = found({}).focusDepthMm!;
    const warped = found({ height: (x, y) => depth * bow(x, y) });
    expect(warped).toMatchObject({ verdict: 'bent', drifts: [] });
    expect(warped.says).toMatch(/warped or not held flat/);
    const hardly = found({ height: (x, y) => 0.15 * depth * bow(x, y) + depth * (x - 0.5) });
    expect(hardly.verdict).toBe('tilted');
    expect(hardly.says).toMatch(/not quite flat/);
  });

  it('is lit unevenly where marks go one way and heights do not', () => {
    const finding = found({ strength: (x) => 10 - 2 * x });
    expect(finding.verdict).toBe('level');
    expect(finding.drifts).toMatchObject([{ toward: 'left' }]);
    expect(finding.drifts[0]!.strongerL).toBeCloseTo(2, 0);
    expect(finding.says).toMatch(/stronger towards the left by \d(\.\d+)? L\* .* the beam is weaker on the other side/);
    // On stock that marks get lighter it is the lighter side that is the stronger.
    expect(found({ strength: (_x, y) => 10 + 2 * y, sign: 1 }).drifts).toMatchObject([{ toward: 'front' }]);
    // Along a tilt darkness has another reason.
    expect(found({ strength: (x) => 10 - 2 * x, height: (x) => offsetMm * 0.6 * (x - 0.5) }).drifts).toEqual([]);
  });

  it('asks for what is left, and tells what it can without it', () => {
    expect(found({ only: [] }).missing[0]).toMatch(/at 0 of 9 places.*Photograph A1, A2, A3, B1, B2, B3, C1, C2, C3/);
    // Three are no plane, and neither are three in a row and none beside.
    expect(found({ only: [0, 2, 6] }).missing[0]).toMatch(/at 3 of 9 places.*A2, B1, B2, B3, C2, C3/);
    expect(found({ only: [0, 1, 2] }).verdict).toBeNull();
    const corners = found({ only: [0, 2, 6, 8], height: (x) => 0.6 * offsetMm * (x - 0.5) });
    expect(corners.missing).toEqual([]);
    expect(corners.says).toMatch(/Not told: A2, B1, B2, B3, C2\.$/);
    expect(bed.settle(found({ only: [0] }))).toEqual([]);
  });

  it('goes by the eye where there is no photo, and where the eye has it elsewhere', () => {
    const say = (station: number, patch: number, value: string): Answer => ({
      field: LINES_FIELD,
      cellIndex: stations[station]!.cells[patch]!,
      repeat: 0,
      value,
    });
    // Lowered is sharpest at the left, raised at the right: the sheet is lower at the left.
    const words = stations.flatMap((_, station) => {
      const sharpest = station % 3;
      return [0, 1, 2].map((patch) => say(station, patch, patch === sharpest ? 'sharpest' : 'softer'));
    });
    const byEye = bed.find(layout, { readings: [], answers: words }, known);
    expect(byEye.verdict).toBe('tilted');
    expect(byEye.places.map(({ by }) => by)).toEqual(Array(9).fill('eye'));
    expect(corner(byEye, 'rear left').value).toBeCloseTo(-offsetMm, 6);
    expect(byEye.focusDepthMm).toBeNull();
    // Two alike: between them. The outer two alone, or all three, tell nothing.
    const one = (...patches: number[]) =>
      bed.find(layout, { readings: [], answers: patches.map((patch) => say(0, patch, 'sharpest')) }, known).places[0]!
        .height;
    expect(one(1, 2)!.value).toBeCloseTo(offsetMm / 2, 6);
    expect(one(0, 2)).toBeNull();
    expect(one(0, 1, 2)).toBeNull();
    // More than a step from the photo the eye has it, and not before.
    const raised = found({ height: () => -0.2 * offsetMm }, [say(4, 2, 'sharpest')]).places[4]!;
    expect(raised).toMatchObject({ by: 'eye', height: { value: offsetMm } });
    expect(found({ height: () => 0.4 * offsetMm }, [say(4, 2, 'sharpest')]).places[4]!.by).toBe('photo');
  });

  it('is kept with each corner, and which way the beam gets stronger', () => {
    const seen = seenOn({ height: (x) => 0.4 * (x - 0.5), strength: (_x, y) => 10 + 2 * y });
    const [fact, ...others] = bed.settle(bed.find(layout, seen, known));
    expect(others).toEqual([]);
    expect(fact).toMatchObject({
      name: 'bed',
      at: {},
      cellIndex: null,
      value: { verdict: 'tilted', strongerToRight: null },
    });
    const value = fact!.value as { corners: Record<string, number>; strongerToFront: number; widthMm: number };
    expect(value.corners['front right']).toBeCloseTo(0.2, 1);
    expect(value.corners['rear left']).toBeCloseTo(-0.2, 1);
    expect(value.strongerToFront).toBeCloseTo(2, 0);
    // Of a corner over the opposite one: all corners are as high here, and as sure.
    expect(fact!.sigma).toBeCloseTo(2 * corner(bed.find(layout, seen, known), 'rear right').sigma, 3);
    const slanted = seenOn({ height: (x, y) => 0.4 * (x - 0.5) + 0.4 * (y - 0.5) });
    const [other] = bed.settle(bed.find(layout, slanted, known));
    expect(other!.sigma).toBeCloseTo(2 * corner(bed.find(layout, slanted, known), 'front right').sigma, 9);
    expect(other!.sigma).toBeGreaterThan(2.2 * corner(bed.find(layout, slanted, known), 'front left').sigma);
    const [first, last] = [layout.cells[stations[0]!.cells[1]!]!.box, layout.cells[stations[2]!.cells[1]!]!.box];
    expect(value.widthMm).toBeCloseTo(last.x - first.x, 3);
    const weaker = seenOn({ strength: (x) => 10 - 2 * x });
    const [drift] = bed.settle(bed.find(layout, weaker, known));
    expect((drift!.value as { strongerToRight: number }).strongerToRight).toBeCloseTo(-2, 0);
  });
});

describe('a card for the bed', () => {
  const reach = (on: Pairing) => {
    const own = bed.propose({ pairing: on, facts: [] }).plan;
    const laid = layCard(bed, own, on, { cardNumber: 1 });
    return { plan: own, width: laid.widthMm, height: laid.heightMm };
  };

  it('reaches over the sheet, or as far as the head does', () => {
    const { stock } = pairing;
    const whole = reach(pairing);
    expect(whole.width).toBeGreaterThan(stock.sheetWidthMm - 8);
    expect(whole.width).toBeLessThanOrEqual(stock.sheetWidthMm - 4);
    expect(whole.height).toBeLessThanOrEqual(stock.sheetDepthMm - 4);
    const long = reach({ ...pairing, stock: { ...stock, sheetWidthMm: 2000 } });
    expect(long.width).toBeLessThan(pairing.machine.bedWidthMm - 40);
    // The head runs up before the first patch, and out after the last.
    const { plan: asked } = long;
    expect(
      long.width + 2 * sweepRunUpMm({ ...asked.constants, focusOffsetMm: 0 }, pairing.machine),
    ).toBeLessThanOrEqual(pairing.machine.bedWidthMm - 44);
    const field = demoPairing('tern', 'coated');
    expect(reach(field).width).toBeLessThanOrEqual(field.lens.fieldMm! - 4);
  });

  it('has fewer places where there is no room, and none on a scrap', () => {
    const on = (sheetWidthMm: number, sheetDepthMm: number): Pairing => ({
      ...pairing,
      stock: { ...pairing.stock, sheetWidthMm, sheetDepthMm },
    });
    expect(reach(on(60, 45)).plan).toMatchObject({ columns: 2, rows: 3 });
    expect(reach(on(60, 30)).plan).toMatchObject({ columns: 2, rows: 2 });
    expect(() => bed.propose({ pairing: on(40, 30), facts: [] })).toThrow(/too small to show whether the bed is level/);
    // What it says is needed is enough beside the two millimetres that cards keep off an edge, and not a millimetre less.
    const said = (): string => {
      try {
        bed.propose({ pairing: on(40, 30), facts: [] });
      } catch (error) {
        return (error as Error).message;
      }
      throw new Error('a bed card on a scrap');
    };
    const [, wide, deep] = /level: ([\d.]+) mm by ([\d.]+) mm are needed/.exec(said())!.map(Number);
    expect(reach(on(wide! + 5, deep! + 5)).plan).toMatchObject({ columns: 2, rows: 2 });
    for (const [w, d] of [
      [wide! + 5, deep! - 1],
      [wide! - 1, deep! + 5],
    ] as const)
      expect(() => bed.propose({ pairing: on(w, d), facts: [] })).toThrow(/too small/);
  });

  it('lays lines one and a half spots apart: of the spot across them, whichever way they run, and no further than 0.4 mm', () => {
    const intervalOf = (spots: object, run: 'slow along X' | 'slow along Y') => {
      const machine = {
        ...pairing.machine,
        accelerationXMmPerS2: run === 'slow along X' ? 500 : 3000,
        accelerationYMmPerS2: run === 'slow along Y' ? 500 : 3000,
      };
      const stock = { ...pairing.stock, grain: 'along-width' as const };
      const on = { machine, stock, lens: { ...pairing.lens, ...spots } };
      const { intervalMm, direction } = bed.propose({ pairing: on, facts: [] }).plan.constants;
      return [direction, intervalMm];
    };
    const oblong = { spotXMm: 0.1, spotYMm: 0.2 };
    expect(intervalOf(oblong, 'slow along X')).toEqual(['vertical', 0.15]);
    expect(intervalOf(oblong, 'slow along Y')).toEqual(['horizontal', 0.3]);
    expect(intervalOf({ spotXMm: 0.5, spotYMm: 0.5 }, 'slow along X')[1]).toBe(0.4);
  });

  it('goes as far out of focus as lines still show: by the spot, by hand in half millimetres, or by what was measured', () => {
    // 0.13 mm at 10.6 µm and M² 1.2: pi 0.13² / (4 · 1.2 · 0.0106) = 1.04 mm.
    expect(plan.offsetMm).toBe(1);
    expect(bed.propose({ pairing: demoPairing('heron', 'birch'), facts: [] }).plan.offsetMm * 2).toSatisfy(
      Number.isInteger,
    );
    const waist = (stale: string[]) => factNow('waist', { offsetMm: 0, depthMm: 0.9 }, { stale });
    expect(bed.propose({ pairing, facts: [waist([])] }).plan.offsetMm).toBeCloseTo(1.4, 6);
    expect(bed.propose({ pairing, facts: [waist(['another lens'])] }).plan.offsetMm).toBe(1);
  });

  it('marks plainly and not strongly: a kept setting that is dark is weakened, by speed first', () => {
    const heron = demoPairing('heron', 'birch');
    const kept = { ...grid.propose({ pairing: heron, facts: [] }).plan.constants, powerFraction: 0.8, speedMmPerS: 27 };
    const engraved = (lightness: number | null, settings = kept) =>
      bed.propose({
        pairing: heron,
        facts: [factNow('engrave', { settings: settings, lightness, lightnessSigma: null, confidence: null })],
      }).plan.constants;
    const energy = ({ powerFraction, speedMmPerS }: { powerFraction: number; speedMmPerS: number }) =>
      deliveredPowerW(heron.machine, powerFraction) / speedMmPerS;
    // 30 L* from bare 78: half the energy.
    expect(energy(engraved(48)) / energy(kept)).toBeCloseTo(0.5, 1);
    expect(engraved(48).speedMmPerS).toBe(54);
    // No further than three tenths, and not at all for what is plain already or was not read.
    expect(energy(engraved(10)) / energy(kept)).toBeCloseTo(0.3, 1);
    for (const lightness of [70, null])
      expect(engraved(lightness)).toMatchObject({ powerFraction: 0.8, speedMmPerS: 27 });
    // Where speed is at its end power goes down.
    const fast = { ...kept, speedMmPerS: 400 };
    expect(engraved(48, fast).powerFraction).toBeLessThan(0.5);
    expect(energy(engraved(48, fast)) / energy(fast)).toBeCloseTo(0.5, 1);
  });

  it('refuses places that would touch, parts of places, and photos that nothing could tell apart', () => {
    const problems = (change: Partial<typeof plan>) =>
      planProblems(bed, { ...plan, ...change }, pairing).map(({ field }) => field);
    expect(problems({})).toEqual([]);
    // Three patches with two gaps between them.
    expect(patchesSize({ patchMm: 4, gapMm: 1 })).toEqual({ width: 14, height: 4 });
    const least = leastSpanMm(3, plan, 'across');
    expect(problems({ acrossMm: least })).toEqual([]);
    expect(problems({ acrossMm: least - 0.1 })).toEqual(['acrossMm']);
    expect(problems({ acrossMm: 5000 })).toEqual(['acrossMm']);
    expect(problems({ downMm: 20 })).toEqual(['downMm']);
    expect(problems({ columns: 2.5 })).toEqual(['columns']);
    expect(problems({ rows: 6 })).toEqual(['rows']);
    expect(problems({ offsetMm: 0 })).toEqual(['offsetMm']);
    expect(problems({ frame: { ...plan.frame, markers: 'on-sheet' } })).toEqual(['frame.markers']);
    expect(bed.fields(plan, pairing).some(({ path }) => path === 'frame.markers')).toBe(false);
  });

  it('burns each patch at its own offset, from the lowered to the raised', () => {
    for (const { name, cells } of stations)
      expect(cells.map((cell) => layout.cells[cell]!.levels)).toEqual([
        { place: name, focus: -offsetMm },
        { place: name, focus: 0 },
        { place: name, focus: offsetMm },
      ]);
    expect(layout.cells.map((cell) => mainBurn(cell).settings.focusOffsetMm)).toEqual(
      Array(9).fill([-offsetMm, 0, offsetMm]).flat(),
    );
  });
});

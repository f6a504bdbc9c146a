import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { readingOf } from '../../../stand-ins/made-up-reading';
import type { Seen } from '../../core/card/asks';
import { boundOfPlan, layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { PLAIN_EXTRAS, type BurnSettings } from '../../core/card/settings';
import { programOfCard } from '../../formats/gcode';
import { unpackGreys } from '../../core/picture/greys';
import { COMES_OUT_FIELD, wordOfPart } from './find';
import { partsOf, type ShowpiecePlan } from './plan';
import { showpiece } from '.';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
const cellsOf = (part: string): number[] =>
  layout.cells.filter(({ levels }) => levels.part === part).map(({ index }) => index);
let plan: ShowpiecePlan;
let layout: Layout;
let large: number;
let middle: number;
let small: number;
let heights: ShowpiecePlan['heights'];
const propose = (): void => {
  ({ plan } = showpiece.propose(known));
  layout = layCard(showpiece, plan, pairing, { cardNumber: 4 });
  [large, middle, small] = cellsOf('lettering') as [number, number, number];
  ({ heights } = plan);
};
// Once for the tables below, and anew for each test.
propose();
beforeEach(propose);

const said = (words: Readonly<Record<number, string>>, readings: Seen['readings'] = []): Seen => ({
  readings,
  answers: Object.entries(words).map(([cell, value]) => ({
    field: COMES_OUT_FIELD,
    cellIndex: Number(cell),
    repeat: 0,
    value,
  })),
});
/** A photo in which parts stand out so far, as shares of the drawing. */
const shown = (shares: Readonly<Record<number, number>>, broad = 0.6, sigma = 0): Seen['readings'] =>
  layout.cells.map(({ index }) => ({
    ...readingOf(index),
    lightness: 60,
    deltaLightness: -20,
    drawing: { taken: index === 0 ? broad : broad * (shares[index] ?? 1), takenSigma: sigma, between: 0 },
  }));
const find = (seen: Seen) => showpiece.find(layout, seen, known);

describe('what a showpiece draws', () => {
  it('is one drawing, three heights of lettering, three hairlines and three points, all with one setting', () => {
    expect(layout.cells.map(({ levels }) => levels.part)).toEqual([
      'broad',
      ...Array(3).fill('lettering'),
      ...Array(3).fill('hairline'),
      ...Array(3).fill('point'),
    ]);
    expect(cellsOf('lettering').map((index) => layout.cells[index]!.levels.size)).toEqual([
      heights.largeMm,
      heights.middleMm,
      heights.smallMm,
    ]);
    const settings = layout.cells.map((cell) => mainBurn(cell).settings);
    for (const one of settings) expect(one).toEqual(settings[0]);
    // Every burned place has the setting's own power.
    for (const cell of layout.cells)
      expect(mainBurn(cell).shape).toMatchObject({
        do: 'picture',
        mode: 'power',
        floorFraction: plan.constants.powerFraction,
      });
  });
  it('has hairlines of one, two and three lines of the fill along X and along Y, and points as wide', () => {
    const fine: ShowpiecePlan = {
      ...plan,
      hairlineMm: 0.1,
      pointMm: 0.1,
      constants: { ...plan.constants, intervalMm: 0.1 },
    };
    const parts = partsOf(fine);
    const hairlines = parts.filter(({ part }) => part === 'hairline');
    expect(hairlines.map(({ sizeMm }) => sizeMm)).toEqual([0.1, 0.2, 0.3]);
    hairlines.forEach(({ drawn }, index) => {
      const bytes = unpackGreys(drawn);
      const burnedIn = (places: number[]): number => places.filter((at) => bytes[at]! > 0).length;
      const column = Array.from({ length: drawn.rows }, (_, row) => row * drawn.columns + 5);
      const row = Array.from({ length: drawn.columns }, (_, at) => at);
      expect(burnedIn(column)).toBe(index + 1);
      // Above the one along X, only the one along Y.
      expect(burnedIn(row)).toBe(index + 1);
    });
    const points = parts.filter(({ part }) => part === 'point');
    // Four discs: one place each, then about π/4 of 2 × 2 and of 3 × 3 places about the middle of one.
    const counts = points.map(({ drawn }) => unpackGreys(drawn).filter((byte) => byte > 0).length);
    expect(counts).toEqual([4, 4 * 5, 4 * 9]);
  });
  it('has strokes of a seventh of the height, and never less than a line of the fill', () => {
    const tall = {
      ...plan,
      words: 'I',
      heights: { smallMm: 0.7, middleMm: 2, largeMm: 7 },
      constants: { ...plan.constants, intervalMm: 0.1 },
    };
    const widths = partsOf(tall)
      .filter(({ part }) => part === 'lettering')
      .map(({ drawn, sizeMm }) => {
        // No stroke is cut off at the top or at the foot.
        expect(drawn.rows * 0.1).toBeGreaterThanOrEqual(sizeMm! + Math.max(0.1, sizeMm! / 7) - 0.05);
        const middleRow = Math.floor(drawn.rows / 2) * drawn.columns;
        return unpackGreys(drawn)
          .subarray(middleRow, middleRow + drawn.columns)
          .filter((byte) => byte > 0).length;
      });
    expect(widths).toEqual([10, 3, 1]);
  });
  it('burns what is darker than half of a drawing, and nothing between', () => {
    const [left, right] = [100, 200];
    const drawing = {
      name: 'two greys',
      columns: 4,
      rows: 4,
      data: Buffer.from(Array(4).fill([left, left, right, right]).flat()).toString('base64'),
    };
    const [broad] = partsOf({ ...plan, drawing });
    const row = [...unpackGreys(broad!.drawn).subarray(0, broad!.drawn.columns)];
    expect([row[3], row.at(-4)]).toEqual([0, 255]);
    expect(new Set(row)).toEqual(new Set([0, 255]));
  });
});

describe('a showpiece by eye', () => {
  it('is legible from the least height that is clear, and says where it is not', () => {
    const finding = find(said({ [large]: 'clear', [middle]: 'clear', [small]: 'filled' }));
    expect(finding.missing).toEqual([]);
    expect(finding.lettering).toEqual({ fromMm: heights.middleMm, notMm: heights.smallMm });
    expect(finding.says).toBe(
      `Lettering is legible from ${heights.middleMm} mm, not at ${heights.smallMm} mm. 6 parts are too close to tell by the photo: say how they come out.`,
    );
    expect(finding.hairlines).toBeNull();
  });
  it('goes no further down than the first height that does not hold', () => {
    const finding = find(said({ [large]: 'clear', [middle]: 'faint', [small]: 'clear' }));
    expect(finding.lettering).toEqual({ fromMm: heights.largeMm, notMm: heights.middleMm });
    expect(find(said({ [large]: 'charred' })).says).toMatch(
      `Lettering is not legible at ${heights.largeMm} mm. Parts are charred`,
    );
  });
  it('goes before what a photo says', () => {
    const finding = find(said({ [small]: 'clear' }, shown({ [small]: 0.1 })));
    expect(finding.lettering).toEqual({ fromMm: heights.smallMm, notMm: null });
    expect(wordOfPart(finding.parts[small]!)).toBe('clear, by eye (10 ± 8 %)');
  });
});

describe('a showpiece by a photo', () => {
  it('holds where at least half of the drawing’s contrast is left, and broad areas are told from bare stock', () => {
    const [thin] = cellsOf('hairline');
    const [tiny] = cellsOf('point');
    const finding = find({
      readings: shown({ [large]: 0.95, [middle]: 0.7, [small]: 0.3, [thin!]: 0.2, [tiny!]: 0.1 }),
      answers: [],
    });
    expect(finding.lettering).toEqual({ fromMm: heights.middleMm, notMm: heights.smallMm });
    const sizes = (part: string) => cellsOf(part).map((index) => layout.cells[index]!.levels.size);
    expect(finding.hairlines).toEqual({ fromMm: sizes('hairline')[1], notMm: sizes('hairline')[0] });
    expect(finding.points).toEqual({ fromMm: sizes('point')[1], notMm: sizes('point')[0] });
    // Bare stock of L* 80: 96 × (1 - ∛0.4) = 25.27 darker.
    expect(finding.broadL).toBeCloseTo(-25.27, 2);
    expect(finding.says).toMatch(/Broad areas come out 25 L\* darker than bare stock\.$/);
  });
  it('leaves open what lies too close to half, or is not sure', () => {
    const close = find({ readings: shown({ [small]: 0.55 }), answers: [] });
    expect(close.parts[small]!.holds).toBeNull();
    expect(wordOfPart(close.parts[small]!)).toMatch(/^too close to tell, 55 ± \d\.?\d* %$/);
    expect(wordOfPart(close.parts[large]!)).toMatch(/^holds, 100 ± /);
    const gone = find({ readings: shown({ [small]: 0.1 }), answers: [] }).parts[small]!;
    expect(wordOfPart(gone)).toMatch(/^does not hold, 10 ± /);
    expect(close.lettering).toEqual({ fromMm: heights.middleMm, notMm: null });
    expect(close.says).toMatch('One part is too close to tell by the photo');
    expect(find({ readings: shown({}, 0.6, 0.16), answers: [] }).parts[small]!.holds).toBeNull();
    expect(find({ readings: shown({ [small]: 0.59 }), answers: [] }).parts[small]!.holds).toBe(true);
    const doubted = shown({}).map((one) => (one.cellIndex === small ? { ...one, confidence: 0.9 } : one));
    expect(find({ readings: doubted, answers: [] }).parts[small]).toMatchObject({ share: null, holds: null });
    expect(wordOfPart(find({ readings: doubted, answers: [] }).parts[small]!)).toBe('not told');
  });
  it('tells of broad areas what their soot between takes as well', () => {
    const sooty = shown({}).map((one) => ({ ...one, drawing: { ...one.drawing!, between: 0.1 } }));
    // Bare stock of L* 80: 96 × (1 - ∛0.3) = 31.73 darker.
    expect(find({ readings: sooty, answers: [] }).broadL).toBeCloseTo(-31.73, 2);
  });
  it('is as good where a burn brightens', () => {
    const finding = find({ readings: shown({ [small]: 0.2 }, -0.6), answers: [] });
    expect(finding.lettering).toEqual({ fromMm: heights.middleMm, notMm: heights.smallMm });
    expect(finding.says).toMatch('lighter than bare stock');
  });
  it('says what is missing: a photo, a mark to measure by, pixels', () => {
    expect(find({ readings: [], answers: [] })).toMatchObject({
      missing: [expect.stringMatching('No photo of this card was read yet')],
      says: '',
    });
    expect(find({ readings: shown({}, 0.05), answers: [] }).missing[0]).toMatch('hardly stand out of bare stock');
    const coarse = shown({}).map((one) => ({ ...one, drawing: null }));
    expect(find({ readings: coarse, answers: [] }).missing[0]).toMatch('Come nearer');
    expect(showpiece.settle(find({ readings: coarse, answers: [] }))).toEqual([]);
  });
  it('measures nothing by a broad part that is in doubt', () => {
    const doubted = shown({}).map((one) => (one.cellIndex === 0 ? { ...one, confidence: 0.9 } : one));
    const finding = find({ readings: doubted, answers: [] });
    expect(finding.parts.map(({ share }) => share)).toEqual(layout.cells.map(() => null));
    expect([finding.broadL, finding.missing[0]]).toEqual([null, expect.stringMatching('in doubt')]);
  });
  it('is kept with its setting', () => {
    const [kept] = showpiece.settle(find({ readings: shown({ [small]: 0.2 }), answers: [] }));
    expect(kept).toMatchObject({
      name: 'showpiece',
      at: {},
      value: {
        settings: mainBurn(layout.cells[0]!).settings,
        letteringMm: { fromMm: heights.middleMm, notMm: heights.smallMm },
      },
    });
  });
});

it('bounds the work of a drawing of many fine stripes, which is drawn without being asked for more', () => {
  const stripes = Uint8Array.from({ length: 240 * 60 }, (_, at) => (at % 4 < 2 ? 255 : 0));
  const fine: ShowpiecePlan = {
    ...plan,
    drawing: { name: 'stripes', columns: 240, rows: 60, data: Buffer.from(stripes).toString('base64') },
    widthMm: 60,
    constants: { ...plan.constants, direction: 'horizontal' },
  };
  const drawn = layCard(showpiece, fine, pairing, { cardNumber: 4 });
  const { lines } = programOfCard(drawn, pairing.machine, { leftMm: 20, rearMm: 20 });
  expect(lines).toBeGreaterThan(10_000);
  expect(boundOfPlan(showpiece, fine, pairing).lines).toBeGreaterThanOrEqual(lines);
});

describe('a showpiece’s plan', () => {
  const settings: BurnSettings = { ...plan.constants, ...PLAIN_EXTRAS, powerFraction: 0.6, speedMmPerS: 90, passes: 2 };
  it('burns the kept setting, or one that is to be shown, hatches as twice as many passes', () => {
    const engrave = factNow('engrave', { settings, lightness: 40, lightnessSigma: 1, confidence: 0.9 });
    expect(showpiece.propose({ pairing, facts: [engrave] }).plan.constants).toMatchObject({
      powerFraction: 0.6,
      speedMmPerS: 90,
      passes: 2,
    });
    const hatched = showpiece.prove(known, { ...settings, powerFraction: 1, crossHatch: true });
    expect(hatched.plan.constants).toMatchObject({ powerFraction: pairing.machine.powerCap, passes: 4 });
    expect(hatched.plan.constants).not.toHaveProperty('crossHatch');
    expect(hatched.reasons['constants.passes']).toMatch('twice as many');
  });
  it.each([
    ['words', { words: '!' }, '2 to 24 signs'],
    ['words', { words: 'A'.repeat(25) }, '2 to 24 signs'],
    [
      'heights.smallMm',
      { heights: { smallMm: 6.9 * plan.constants.intervalMm, middleMm: 2, largeMm: 3 } },
      'at least 7 lines high',
    ],
    ['heights.middleMm', { heights: { smallMm: 2, middleMm: 2, largeMm: 3 } }, 'lies between'],
    ['heights.middleMm', { heights: { smallMm: 1, middleMm: 3, largeMm: 3 } }, 'lies between'],
    ['widthMm', { widthMm: 2.9 }, '3 to 200 mm wide'],
    ['drawing', { drawing: { ...plan.drawing, columns: 241 } }, 'a grey for each'],
    ['crop.left', { crop: { left: 0.5, top: 0, width: 0.6, height: 1 } }, 'lies within'],
    [
      'widthMm',
      { widthMm: 23 * plan.constants.intervalMm + 0.3, crop: { left: 0, top: 0, width: 1, height: 0.5 } },
      'at least 24 lines',
    ],
    ['hairlineMm', { hairlineMm: 3.1 }, '0.01 to 3 mm'],
    ['pointMm', { pointMm: 0.001 }, '0.01 to 3 mm'],
    ['gapMm', { gapMm: 0.4 }, '0.5 to 20 mm'],
  ] as [string, Partial<ShowpiecePlan>, string][])('says what is wrong with %s', (field, change, words) => {
    const problems = showpiece.check({ ...plan, ...change }, pairing);
    expect(problems.find((one) => one.field === field)?.message).toMatch(words);
  });
  it('has nothing wrong as it is proposed', () => expect(showpiece.check(plan, pairing)).toEqual([]));
});

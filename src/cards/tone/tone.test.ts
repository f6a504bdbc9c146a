import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { cardPath } from '../../core/card/path';
import type { CellReading } from '../../core/reading/observations';
import { columnsFor, shuffledPlaces } from './draw';
import type { TonePlan } from './plan';
import { tone } from '.';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
const layoutOf = (change: Partial<TonePlan> = {}): Layout =>
  layCard(tone, { ...plan, ...change }, pairing, { cardNumber: 5 });
let plan!: TonePlan;
let reasons: Readonly<Record<string, string>>;
let layout: Layout;
const propose = (): void => {
  ({ plan, reasons } = tone.propose(known));
  layout = layoutOf();
};
// Once for the table below, and anew for each test.
propose();
beforeEach(propose);
const squareTable = Array.from({ length: 256 }, (_, entry) => Math.sqrt(entry / 255));
const { speedMmPerS, intervalMm, passes } = plan.constants;
const table = {
  mode: plan.mode,
  floorFraction: plan.floorFraction,
  topFraction: plan.topFraction,
  speedMmPerS,
  intervalMm,
  passes,
  entries: squareTable,
};
const greyOf = (index: number, on = layout): number => Number(on.cells[index]!.levels.grey);
/** Patches as strong as a law of what was burned has it. */
const seen = (
  law: (grey: number) => number,
  {
    on = layout,
    way = -1,
    sigma = 0.4,
    told = () => true,
    answers = [],
  }: { on?: Layout; way?: 1 | -1; sigma?: number; told?: (index: number) => boolean; answers?: Seen['answers'] } = {},
): Seen => ({
  readings: on.order.filter(told).map((cellIndex) => {
    const { levels } = on.cells[cellIndex]!;
    const deltaLightness = way * law(Number(levels.burnedAs ?? levels.grey));
    return { cellIndex, deltaLightness, lightness: 70 + deltaLightness, lightnessSigma: sigma } as CellReading;
  }),
  answers,
});

describe('a tone wedge', () => {
  it('has each grey as often as asked, by power from floor to top, and nothing else that differs', () => {
    expect(plan.mode).toBe('power');
    expect(layout.cells).toHaveLength(plan.steps * plan.repeats);
    for (const cell of layout.cells) {
      const { powerFraction, ...rest } = mainBurn(cell).settings;
      const grey = Number(cell.levels.grey);
      expect(powerFraction).toBeCloseTo(plan.floorFraction + grey * (plan.topFraction - plan.floorFraction), 3);
      expect(rest).toMatchObject(plan.constants);
    }
    const greys = [...new Set(layout.cells.map(({ index }) => greyOf(index)))];
    // The floor itself is burned as the palest grey that a picture has: nothing else tells what it leaves.
    expect(greys).toEqual(
      Array.from({ length: 16 }, (_, step) => (step === 0 ? 0.004 : Math.round((step / 15) * 1e4) / 1e4)),
    );
    const dots = [...new Set(layoutOf({ mode: 'bayer' }).cells.map(({ levels }) => levels.grey))];
    expect(dots).toEqual(Array.from({ length: 16 }, (_, step) => (step + 1) / 16));
  });
  it('shuffles: neighbours in grey lie apart, and the middle of each grey is the card’s own', () => {
    const middleOf = ({ box }: Layout['cells'][number]) => [box.x + box.width / 2, box.y + box.height / 2] as const;
    const all = layout.cells.map(middleOf);
    const mean = (points: readonly (readonly [number, number])[], axis: 0 | 1): number =>
      points.reduce((sum, point) => sum + point[axis], 0) / points.length;
    for (let step = 0; step < plan.steps; step++) {
      const own = layout.cells.slice(2 * step, 2 * step + 2).map(middleOf);
      for (const axis of [0, 1] as const) expect(mean(own, axis)).toBeCloseTo(mean(all, axis), 3);
      const next = layout.cells[2 * step + 2];
      if (next) expect(Math.hypot(own[0]![0] - middleOf(next)[0], own[0]![1] - middleOf(next)[1])).toBeGreaterThan(6);
    }
    expect(shuffledPlaces(4, 2)).toEqual(tuples([0, 7], [3, 4], [2, 5], [1, 6]));
    for (const [steps, repeats] of tuples([8, 1], [16, 3], [32, 4], [9, 2])) {
      const places = shuffledPlaces(steps, repeats).flat();
      expect(
        [...places].sort((a, b) => a - b),
        `${steps} ${repeats}`,
      ).toEqual(places.map((_, place) => place));
    }
    expect([32, 16, 48, 13].map(columnsFor)).toEqual([8, 8, 12, 5]);
  });
  it('of dots burns one power, in runs as wide as the lines are apart, as many as asked', () => {
    const dots = layoutOf({ mode: 'floyd-steinberg' });
    const { intervalMm } = plan.constants;
    let index: number | null = null;
    const lit = dots.cells.map(() => 0);
    for (const step of cardPath(dots, pairing.machine)) {
      if (step.step === 'part') index = step.cells[0] ?? null;
      if (step.step !== 'sweep' || index === null) continue;
      for (const { fromMm, toMm, powerFraction } of step.lit) {
        expect(powerFraction).toBe(plan.topFraction);
        const run = (toMm - fromMm) / intervalMm;
        expect(run).toBeCloseTo(Math.round(run), 6);
        lit[index]! += run;
      }
    }
    for (const cell of dots.cells) {
      const all = Math.floor(cell.box.width / intervalMm + 1e-9) * Math.floor(cell.box.height / intervalMm + 1e-9);
      expect(lit[cell.index]! / all, `${greyOf(cell.index, dots)}`).toBeCloseTo(greyOf(cell.index, dots), 1.6);
    }
  });
  it('starts from what was found: ceiling and floor at their speed, by equal energy at another', () => {
    const at = { speed: plan.constants.speedMmPerS, interval: 0.1, passes: 1 };
    const facts = [
      factNow('ceiling', { powerFraction: 0.3 }, { at }),
      factNow('floor', { powerFraction: 0.05 }, { at }),
    ];
    const found = tone.propose({ pairing, facts });
    expect(found.plan).toMatchObject({ topFraction: 0.3, floorFraction: 0.05 });
    expect(found.reasons['topFraction']).toMatch(/^the measured ceiling:/);
    const half = { ...at, speed: plan.constants.speedMmPerS / 2 };
    const slower = tone.propose({ pairing, facts: facts.map((fact) => ({ ...fact, at: half })) });
    // Twice the speed: twice the watts, which go by the command here.
    expect(slower.plan.topFraction).toBeCloseTo(0.6, 2);
    expect(slower.plan.floorFraction).toBeCloseTo(0.1, 2);
    expect(slower.reasons['floorFraction']).toMatch(/equal energy/);
    const stale = tone.propose({ pairing, facts: facts.map((fact) => ({ ...fact, stale: ['new batch'] })) });
    expect(stale.plan.topFraction).toBe(plan.topFraction);
    expect(reasons['topFraction']).toMatch(/no ceiling is measured yet/);
    expect(tone.propose({ pairing: demoPairing('marl', 'slate'), facts: [] }).plan.mode).toBe('floyd-steinberg');
  });
  it('is proposed corrected where a table is kept for its settings, and proves no other', () => {
    const at = { speed: speedMmPerS, interval: intervalMm, passes, picture: 'bayer' };
    const kept = factNow(
      'tone',
      { floorFraction: 0.04, topFraction: 0.5, table: squareTable, strongest: 40, proven: false },
      { at },
    );
    const proof = tone.propose({ pairing, facts: [kept] }).plan;
    expect(proof).toMatchObject({ corrected: true, mode: 'bayer', topFraction: 0.5, table: { entries: squareTable } });
    expect(tone.check(proof, pairing)).toEqual([]);
    for (const other of [
      { ...kept, stale: ['lens'] },
      { ...kept, at: { ...at, speed: 7 } },
    ])
      expect(tone.propose({ pairing, facts: [other as typeof kept] }).plan).toMatchObject({
        corrected: false,
        table: null,
      });
    const fields = (change: Partial<TonePlan>) =>
      tone.check({ ...proof, ...change }, pairing).map(({ field }) => field);
    expect(fields({ topFraction: 0.6 })).toEqual(['corrected']);
    expect(fields({ mode: 'power' })).toEqual(['corrected']);
    expect(tone.check({ ...proof, topFraction: 0.6 }, pairing)[0]!.message).toMatch('was measured with another mode');
    for (const other of [{ speedMmPerS: speedMmPerS * 1.1 }, { intervalMm: intervalMm * 1.1 }, { passes: passes + 1 }])
      expect(fields({ constants: { ...proof.constants, ...other } })).toContain('corrected');
    expect(fields({ table: null })).toEqual(['corrected']);
    expect(fields({ table: null, corrected: false })).toEqual([]);
  });
  it('burns what the kept table makes of a grey, and says both', () => {
    const corrected = layoutOf({ corrected: true, table });
    for (const { levels, burns } of corrected.cells) {
      expect(levels.burnedAs).toBeCloseTo(Math.sqrt(Number(levels.grey)), 2);
      const power = plan.floorFraction + Number(levels.burnedAs) * (plan.topFraction - plan.floorFraction);
      expect(burns[0]!.settings.powerFraction).toBeCloseTo(power, 3);
    }
  });
  it('is refused with too few greys, patches of too few dots, or a floor at black', () => {
    const fields = (change: object) => tone.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    for (const steps of [7, 33, 16.5]) expect(fields({ steps })).toEqual(['steps']);
    for (const repeats of [0, 5, 1.5]) expect(fields({ repeats })).toEqual(['repeats']);
    expect(fields({ floorFraction: plan.topFraction * 0.9 })).toEqual(['floorFraction']);
    expect(fields({ floorFraction: -0.01 })).toEqual(['floorFraction']);
    expect(fields({ floorFraction: plan.topFraction * 0.9, mode: 'bayer' })).toEqual([]);
    const coarse = { constants: { ...plan.constants, intervalMm: 0.3 } };
    expect(fields(coarse)).toEqual([]);
    expect(fields({ ...coarse, mode: 'bayer' })).toEqual(['patchMm']);
    expect(fields({ topFraction: 0.99 })).toEqual(pairing.machine.powerCap < 0.99 ? ['topFraction'] : []);
  });
});

describe('what a tone wedge says', () => {
  const bent = (grey: number): number => 40 * (1 - Math.exp(-3 * grey));
  const find = (what: Seen, on = layout) => tone.find(on, what, known);

  it('is a table that makes its curve straight, by marks darker or lighter than stock', () => {
    for (const way of [-1, 1] as const) {
      const finding = find(seen(bent, { way }));
      expect(finding.missing).toEqual([]);
      expect(finding.fit!.strongest).toBeCloseTo(bent(1), 6);
      for (const entry of [60, 128, 200])
        expect(Math.abs(bent(finding.table![entry]!) - (entry / 255) * bent(1))).toBeLessThan(0.5);
      expect(finding.says).toMatch(/Uncorrected, greys lie \d/);
    }
  });
  it('says where next to nothing is burned too strongly: what is paler is left bare or burned like it, whichever is nearer', () => {
    // From 20 L* at the floor to 40: the palest quarter of greys is bare, the next one comes out as the floor.
    const { table: entries, leftL, says } = find(seen((grey) => 20 + 20 * grey));
    expect(entries![60]).toBe(0);
    expect([entries![70], entries![120]]).toEqual([0.004, 0.004]);
    expect(entries![191]!).toBeCloseTo(0.5, 1);
    // By hand: off by 0 to 10 L* evenly over half of the greys, by none over the rest.
    expect(leftL!).toBeCloseTo(10 / Math.sqrt(6), 0);
    expect(says).toMatch(
      /the table brings them to 4.* L\* of it\. Next to nothing is burned too strongly: it comes out 20 L\*/,
    );
    expect(find(seen(bent)).leftL!).toBeLessThan(0.3);
    // Burned through it: what is left bare counts as it comes out, and the table does not hold.
    const on = layoutOf({ corrected: true, table: { ...table, entries: entries! } });
    const law = (grey: number): number => (grey === 0 ? 0 : 20 + 20 * grey);
    const proof = find(seen(law, { on }), on);
    expect(on.cells.some(({ levels }) => levels.burnedAs === 0)).toBe(true);
    expect(proof.offL!).toBeCloseTo(10 / Math.sqrt(6), 0);
    expect(proof.says).toMatch(/^Corrected greys still lie/);
  });
  it('is how far off a straight line the wedge came out, and whether the table holds', () => {
    expect(find(seen((grey) => 40 * grey)).offL).toBeCloseTo(0, 9);
    const on = layoutOf({ corrected: true, table });
    // The kept table turns a square root about: what was burned is the root of what was asked.
    const good = find(
      seen((grey) => 40 * grey ** 2, { on }),
      on,
    );
    expect(good.offL!).toBeLessThan(0.2);
    expect(good.says).toMatch(/^The table holds/);
    const bad = find(
      seen((grey) => 40 * grey, { on }),
      on,
    );
    expect(bad.offL!).toBeGreaterThan(2.5);
    expect(bad.says).toMatch(/still lie \d.* off a straight line/);
  });
  it('goes into the book with the powers it holds for, whatever the mode', () => {
    const settle = (on: Layout) => tone.settle(find(seen(bent, { on }), on), on)[0]!;
    const draft = settle(layout);
    expect(draft).toMatchObject({
      name: 'tone',
      at: {
        speed: plan.constants.speedMmPerS,
        interval: plan.constants.intervalMm,
        passes: plan.constants.passes,
        picture: 'power',
      },
      value: { proven: false },
    });
    expect(draft.value.floorFraction).toBeCloseTo(plan.floorFraction, 3);
    expect(draft.value.topFraction).toBeCloseTo(plan.topFraction, 3);
    const proof = settle(layoutOf({ corrected: true, table }));
    expect(proof.value).toMatchObject({ proven: true });
    expect(proof.value.topFraction).toBeCloseTo(plan.topFraction, 3);
    const dots = settle(layoutOf({ mode: 'bayer' }));
    expect(dots).toMatchObject({
      at: { picture: 'bayer' },
      value: { floorFraction: 0, topFraction: plan.topFraction },
    });
  });
  it('tells gain: half of the light is half covered', () => {
    // L* 70 is a luminance of 0.4072 and black at 30 one of 0.0623: half way, at 0.2348, L* is 55.56.
    const law = (grey: number): number => (grey < 0.5 ? 28.88 * grey : 14.44 + (grey - 0.5) * 51.12);
    const on = layoutOf({ mode: 'bayer' });
    const half = find(seen(law, { on }), on).gain.find(({ asked }) => asked === 0.5)!;
    expect(half.covered).toBeCloseTo(0.5, 2);
  });
  it('says what is missing: no photo, too few greys, hardly a mark, or an unsure photo', () => {
    expect(find({ readings: [], answers: [] }).missing[0]).toMatch(/No photo/);
    expect(find(seen(bent, { told: (index) => greyOf(index) <= 0.25 })).missing[0]).toMatch(/too few greys/);
    expect(find(seen((grey) => 4 * grey)).missing[0]).toMatch(/^The strongest patch differs by 4 L\*/);
    expect(find(seen(bent, { sigma: 3.5 })).missing[0]).toMatch(/not sure enough/);
    expect(tone.settle(find(seen((grey) => 4 * grey)), layout)).toEqual([]);
  });
  it('leaves out what was called spoiled, and says where black could do with less', () => {
    const spoiled = layout.order.filter((index) => greyOf(index) > 0.9);
    const answers = spoiled.map((cellIndex) => ({ field: 'outcome', cellIndex, repeat: 0, value: 'charred' }));
    const law = (grey: number): number => (grey > 0.9 ? 5 : 40 * grey);
    expect(find(seen(law, { answers })).fit!.strongest).toBeCloseTo((40 * 13) / 15, 2);
    expect(find(seen((grey) => 40 * Math.min(1, grey / 0.6))).says).toMatch(/From 6\d % grey on nothing gets stronger/);
    expect(find(seen(bent)).says).not.toMatch(/nothing gets stronger/);
  });
});

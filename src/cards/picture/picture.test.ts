import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import type { Seen } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { BETTER } from '../../core/card/usual-asks';
import { packGreys, unpackGreys } from '../../core/picture/greys';
import type { CellReading } from '../../core/reading/observations';
import { wantedOf, type PicturePlan } from './plan';
import { picture } from '.';

const pairing = demoPairing('heron', 'birch');
const { plan: plain } = picture.propose({ pairing, facts: [] });
const { speedMmPerS, intervalMm, passes } = plain.constants;
const entries = Array.from({ length: 256 }, (_, entry) => Math.sqrt(entry / 255));
const tone = factNow(
  'tone',
  { floorFraction: 0.04, topFraction: 0.5, table: entries, strongest: 40, proven: true },
  { at: { speed: speedMmPerS, interval: intervalMm, passes, picture: 'power' } },
);
const known = { pairing, facts: [tone] };
const layoutOf = (change: Partial<PicturePlan> = {}): Layout =>
  layCard(picture, { ...plan, ...change }, pairing, { cardNumber: 5 });
let plan: PicturePlan;
let layout: Layout;
beforeEach(() => {
  ({ plan } = picture.propose(known));
  layout = layoutOf();
});
const shapeOf = (of: Layout, index = 0) => {
  const { shape } = mainBurn(of.cells[index]!);
  if (shape.do !== 'picture') throw new Error('no picture');
  return shape;
};

/** Pictures that came out by a law of what was wanted, at every second place. */
function seen(
  laws: readonly ((share: number) => number)[],
  { on = layout, sigma = 0.5, confidence = 1, words = [] as string[] } = {},
): Seen {
  return {
    readings: laws.map((law, cellIndex) => {
      const { columns, rows } = shapeOf(on, cellIndex).wanted;
      const bytes = unpackGreys(shapeOf(on, cellIndex).wanted);
      const [wide, high] = [Math.floor(columns / 2), Math.floor(rows / 2)];
      const deltas = Array.from({ length: wide * high }, (_, at) => {
        const [column, row] = [2 * (at % wide), 2 * Math.floor(at / wide)];
        const four = [0, 1, columns, columns + 1].map((more) => bytes[row * columns + column + more]! / 255);
        return -four.reduce((sum, share) => sum + law(share), 0) / 4;
      });
      return {
        cellIndex,
        lightness: 60,
        deltaLightness: -18,
        lightnessSigma: sigma,
        confidence,
        picture: { columns: wide, rows: high, deltas },
      } as unknown as CellReading;
    }),
    answers: words.map((value, cellIndex) => ({ field: 'looks', cellIndex, repeat: 0, value })),
  };
}
const straight = (share: number): number => 40 * share;
const bent = (share: number): number => 40 * share ** 0.5;

describe('a picture card', () => {
  it('burns what is dark, through the kept table and once more without; what is light on stock that brightens', () => {
    expect(plan).toMatchObject({
      corrected: true,
      beside: true,
      negative: false,
      topFraction: 0.5,
      floorFraction: 0.04,
    });
    expect([shapeOf(layout, 0).table, shapeOf(layout, 1).table]).toEqual([entries, null]);
    expect(shapeOf(layout, 0).wanted).toEqual(shapeOf(layout, 1).wanted);
    expect(plain).toMatchObject({ corrected: false, beside: false });
    expect(layoutOf({ ...plain }).cells).toHaveLength(1);
    // A table that is at hand but not wanted is left out.
    const bare = layoutOf({ corrected: false, beside: false });
    expect(bare.cells.map((_, index) => shapeOf(bare, index).table)).toEqual([null]);
    const slate = picture.propose({ pairing: demoPairing('marl', 'slate'), facts: [] });
    expect(slate.plan).toMatchObject({ negative: true, mode: 'floyd-steinberg' });
    const sum = (greys: ReturnType<typeof wantedOf>): number =>
      unpackGreys(greys).reduce((total, byte) => total + byte, 0);
    const places = shapeOf(layout).wanted.columns * shapeOf(layout).wanted.rows;
    expect(sum(wantedOf({ ...plan, negative: true }))).toBe(255 * places - sum(wantedOf(plan)));
  });
  it('is as large as asked, to a line, and its height follows the crop', () => {
    const { width, height } = layout.cells[0]!.box;
    expect(Math.abs(width - 15)).toBeLessThan(intervalMm);
    expect(Math.abs(height - 11.25)).toBeLessThan(intervalMm);
    expect(shapeOf(layout).wanted.columns * intervalMm).toBeCloseTo(width, 3);
    const strip = layoutOf({ crop: { left: 0.1, top: 0.25, width: 0.8, height: 0.5 } }).cells[0]!.box;
    expect(strip.height / strip.width).toBeCloseTo((0.5 * 120) / (0.8 * 160), 1);
  });
  it('uses the whole range of a picture that has not, but for a few places at either end', () => {
    const grey = {
      name: 'grey',
      ...packGreys(
        50,
        40,
        Uint8Array.from({ length: 2000 }, (_, at) => (at === 0 ? 250 : 100 + (at % 50))),
      ),
    };
    const bytes = unpackGreys(wantedOf({ ...plan, picture: grey }));
    expect([Math.min(...bytes), Math.max(...bytes)]).toEqual([0, 255]);
    const kept = unpackGreys(wantedOf({ ...plan, picture: grey, wholeRange: false }));
    expect(Math.min(...kept)).toBeGreaterThan(95);
    const even = { name: 'even', ...packGreys(50, 40, new Uint8Array(2000).fill(90)) };
    expect(new Set(unpackGreys(wantedOf({ ...plan, picture: even })))).toEqual(new Set([90]));
  });
  it('is refused without a grey for each place, beyond its own edges, too small, or by another table', () => {
    const fields = (change: Partial<PicturePlan>) =>
      picture.check({ ...plan, ...change }, pairing).map(({ field }) => field);
    expect(fields({})).toEqual([]);
    expect(fields({ picture: { ...plan.picture, rows: 121 } })).toEqual(['picture']);
    expect(fields({ picture: { ...plan.picture, columns: 500, rows: 400 } })).toEqual(['picture']);
    for (const crop of [
      { left: 0.6, top: 0, width: 0.5, height: 1 },
      { left: 0, top: 0, width: 1, height: 0.001 },
      { left: -0.1, top: 0, width: 0.5, height: 1 },
      { left: 0, top: -0.1, width: 1, height: 0.5 },
      { left: 0, top: 0.6, width: 1, height: 0.5 },
    ])
      expect(fields({ crop })).toEqual(['crop.left']);
    expect(fields({ widthMm: 2 })).toContain('widthMm');
    expect(fields({ widthMm: 0 })).toEqual(['widthMm']);
    expect(fields({ widthMm: 3, crop: { left: 0, top: 0, width: 1, height: 0.2 } })).toEqual(['widthMm']);
    expect(fields({ topFraction: 0.3 })).toEqual(['corrected']);
    expect(fields({ table: null })).toEqual(['corrected']);
    expect(picture.check({ ...plan, table: null }, pairing)[0]!.message).toMatch(
      /^No table is kept for these settings yet: .*\.$/,
    );
    expect(fields({ floorFraction: -0.01 })).toContain('floorFraction');
    expect(fields({ floorFraction: 0, corrected: false })).toEqual([]);
    expect(fields({ floorFraction: 0.49 })).toContain('floorFraction');
  });
});

describe('what a picture card says', () => {
  const find = (what: Seen, on = layout) => picture.find(on, what, known);

  it('is how far either burn is off, which tones, and whether the table helps', () => {
    const finding = find(seen([straight, bent]));
    expect(finding.missing).toEqual([]);
    expect(finding.parts.map(({ corrected }) => corrected)).toEqual([true, false]);
    expect(finding.parts[0]!.fit.rmsL).toBeLessThan(1);
    expect(finding.parts[0]!.fit.strongest).toBeCloseTo(40, 0);
    expect(finding.parts[1]!.fit.rmsL).toBeGreaterThan(2);
    expect(finding.says).toMatch(
      /^The table helps: 0\.\d+ L\* off through it, \d.* without, as seen from [\d.]+ mm\.$/,
    );
    expect(find(seen([bent, straight])).says).toMatch(
      /Light parts [\d.]+ L\* too strong, dark parts [\d.]+ L\* too weak\.$/,
    );
    expect(find(seen([(share) => 40 * share ** 2, straight])).says).toMatch(/[Dd]ark parts [\d.]+ L\* too strong/);
    expect(find(seen([bent, straight])).says).toMatch(
      /^The table makes it worse: burn a new tone wedge.*too (strong|weak)/,
    );
    expect(find(seen([straight, straight])).says).toMatch(/^The table changes little/);
    expect(find(seen([straight, bent])).says).not.toMatch(/in doubt/);
    expect(find(seen([straight, bent], { confidence: 0.75 })).says).toMatch(/The photo is in doubt, for the reasons/);
    const alone = layoutOf({ beside: false });
    expect(find(seen([straight], { on: alone }), alone).says).toMatch(/^It comes out as wanted: 0/);
    expect(find(seen([bent], { on: alone }), alone).says).toMatch(/^It comes out otherwise than wanted/);
  });
  it('goes by what was wanted where marks are brighter than bare stock, too', () => {
    const bright = find(seen([(share) => -straight(share), (share) => -bent(share)]));
    expect(bright.parts[0]!.fit.rmsL).toBeLessThan(1);
    expect(bright.parts[0]!.fit.strongest).toBeCloseTo(40, 0);
    expect(bright.says).toMatch(/^The table helps/);
  });
  it('says which burn is liked better, how surely, beside what is off', () => {
    const answers = [0, 1, 2, 3].map((repeat) => ({ field: BETTER.field, cellIndex: 1, repeat, value: '0' }));
    const { says } = find({ ...seen([straight, bent]), answers });
    expect(says).toMatch(/^The table helps.* Liked better is the one without the table, .*: 9\d(\.\d)? % sure\.$/);
    expect(find(seen([straight, bent])).says).not.toMatch(/Liked/);
  });
  it('keeps what is off by least, or what the operator calls right, and nothing that all were called wrong', () => {
    const kept = (what: Seen) => picture.settle(find(what), layout);
    const [best] = kept(seen([straight, bent]));
    expect(best).toMatchObject({
      name: 'photo',
      cellIndex: 0,
      at: { speed: speedMmPerS, interval: intervalMm, passes, picture: 'power' },
      value: { table: entries, floorFraction: 0.04 },
    });
    expect(best!.value.settings.powerFraction).toBe(0.5);
    expect(kept(seen([straight, bent], { words: ['pale', 'right'] }))[0]).toMatchObject({
      cellIndex: 1,
      value: { table: null },
    });
    expect(kept(seen([straight, bent], { words: ['spoiled'] }))[0]).toMatchObject({ cellIndex: 1 });
    expect(kept(seen([straight, bent], { words: ['spoiled', 'dark'] }))).toEqual([]);
  });
  it('is what is missing: no photo, one that is not sure, one that shows too little, or hardly a mark', () => {
    expect(find({ readings: [], answers: [] }).missing[0]).toMatch(/^No photo/);
    expect(find(seen([straight, bent], { sigma: 3.5 })).missing[0]).toMatch(/not sure enough/);
    expect(find(seen([() => 0, () => 0])).missing[0]).toMatch(/shows too little/);
    // Readings of a photo that showed no picture, and of a cell that holds none.
    const bare = seen([straight, bent]).readings.map(({ picture: _, ...reading }) => reading as CellReading);
    expect(find({ readings: bare, answers: [] }).missing[0]).toMatch(/shows too little/);
    const faint = find(seen([(share) => 3 * share, straight]));
    expect(faint.missing[0]).toMatch(/^Black of the picture would be 3 L\* from bare stock/);
    expect(picture.settle(faint, layout)).toEqual([]);
  });
});

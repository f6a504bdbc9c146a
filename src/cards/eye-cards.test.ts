import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import type { Answer, Seen } from '../core/card/asks';
import { squareFillTimeS } from '../core/card/fill-time';
import { layCard } from '../core/card/lay';
import { mainBurn, type Layout } from '../core/card/layout';
import { formatDuration, formatInterval } from '../core/quantities/format';
import { focus } from './focus';
import { interval } from './interval';
import { listed } from '../../tests/support/listed';
import { tuples } from '../../tests/support/tuples';

const pairing = demoPairing('heron', 'birch');
const known = { pairing, facts: [] };
const liked = pairing.machine.likedUnits;

/** Answers by the cells' place along their channel, lowest level first; '' for none. */
function said(layout: Layout, field: string, level: (index: number) => number, words: readonly string[]): Seen {
  const sorted = layout.cells.map((cell) => cell.index).sort((a, b) => level(a) - level(b));
  return {
    readings: [],
    answers: words.flatMap((value, place): Answer[] =>
      value === '' ? [] : [{ field, cellIndex: sorted[place]!, repeat: 0, value }],
    ),
  };
}

/** What a photo shows of each cell's lines: their ripple and its sigma by the cell's place along its channel; null where it cannot tell. */
function shown(
  layout: Layout,
  level: (index: number) => number,
  ripples: readonly (readonly [number, number] | null)[],
): Seen {
  const sorted = layout.cells.map((cell) => cell.index).sort((a, b) => level(a) - level(b));
  const readings = ripples.map((ripple, place) => ({
    cellIndex: sorted[place]!,
    lines: ripple && {
      pitchMm: null,
      pitchSigmaMm: null,
      visibility: ripple[0],
      visibilitySigma: ripple[1],
      gapMm: null,
      gapSigmaMm: null,
    },
  }));
  return { readings: readings as unknown as Seen['readings'], answers: [] };
}

describe('the line interval', () => {
  let plan: ReturnType<typeof interval.propose>['plan'];
  let layout: Layout;
  let levels: number[];
  beforeEach(() => {
    ({ plan } = interval.propose(known));
    layout = layCard(interval, plan, pairing, { cardNumber: 3 });
    levels = layout.cells.map((cell) => level(cell.index)).sort((a, b) => a - b);
  });
  const level = (index: number): number => mainBurn(layout.cells[index]!).settings.intervalMm;
  const find = (...words: string[]) => interval.find(layout, said(layout, 'lines', level, words), known);
  it('is that of the strip which is liked best, where comparisons make it sure, and its lines’ own stands beside it', () => {
    const by = (place: number): number => layout.cells.find((cell) => level(cell.index) === levels[place])!.index;
    const lines = said(layout, 'lines', level, ['mud', 'even', 'even', 'apart', 'apart', 'apart']);
    const compare = (better: number, worse: number, repeat: number): Answer => ({
      field: 'better',
      cellIndex: by(better),
      repeat,
      value: String(by(worse)),
    });
    const found = (pairs: readonly Answer[]) =>
      interval.find(layout, { ...lines, answers: [...lines.answers, ...pairs] }, known);
    const [measured, unsure] = [found([]), found([compare(3, 2, 0)])];
    expect(measured).toMatchObject({ intervalMm: levels[2], liked: null, missing: [] });
    expect(unsure).toMatchObject({ intervalMm: levels[2], says: measured.says });
    expect(unsure.liked!.ranking[0]!.cellIndex).toBe(by(3));
    const sure = found([0, 1, 2, 3, 4, 5].map((repeat) => compare(3, [2, 4][repeat % 2]!, repeat)));
    expect(sure).toMatchObject({ intervalMm: levels[3], cellIndex: by(3), upToMm: levels[4], missing: [] });
    expect(sure.sigmaMm!).toBeCloseTo(Math.hypot((levels[4]! - levels[3]!) / Math.sqrt(12), 0.04 * levels[3]!), 9);
    expect(sure.says).toMatch(/ is liked best of 3 strips, in 6 comparisons: \d\d % sure\. By its lines it would be /);
    expect(interval.settle(sure)).toMatchObject([
      { name: 'interval', value: { intervalMm: levels[3], upToMm: levels[4] } },
    ]);
    // The coarsest of all has none beyond it: how far it may go is open.
    const last = levels.length - 1;
    const coarsest = found([0, 1, 2, 3, 4, 5].map((repeat) => compare(last, [2, 3][repeat % 2]!, repeat)));
    expect(coarsest).toMatchObject({ intervalMm: levels[last], upToMm: null, sigmaMm: null });
  });

  it('is the coarsest that looks even, sure to about a step', () => {
    const finding = find('mud', 'even', 'even', 'even', 'apart', 'apart');
    expect(finding.intervalMm).toBe(levels[3]);
    expect(finding.upToMm).toBe(levels[4]);
    expect(finding.sigmaMm).toBeCloseTo(Math.hypot((levels[4]! - levels[3]!) / Math.sqrt(12), 0.04 * levels[3]!), 9);
    expect(interval.settle(finding)).toMatchObject([{ name: 'interval', value: { intervalMm: levels[3] } }]);
    // Coarser costs less: areas filled by fewer lines.
    expect(finding.strips[3]!.timeS).toBeLessThan(finding.strips[0]!.timeS);
    expect(finding.strips[3]).toEqual({
      cellIndex: finding.cellIndex,
      intervalMm: levels[3],
      word: 'even',
      by: 'eye',
      timeS: squareFillTimeS(mainBurn(layout.cells[finding.cellIndex!]!).settings, pairing.machine, 100),
    });
    expect(finding.says).toBe(
      `${formatInterval(levels[3]!, liked)} is the coarsest that looks even; 10 × 10 cm take ${formatDuration(finding.strips[3]!.timeS)}.`,
    );
  });
  // Common practice: half a pitch of one minute of arc at 300 mm is a pitch of 0.175 mm.
  it('says where an eye that comes nearer than usual may see lines', () => {
    const wide = {
      ...layout,
      cells: layout.cells.map((cell) => ({
        ...cell,
        burns: cell.burns.map((burn) => ({
          ...burn,
          settings: { ...burn.settings, intervalMm: burn.settings.intervalMm * 2 },
        })),
      })),
    };
    for (const place of [0, 1, 2, 3, 4, 5]) {
      const words = levels.map((_, index) => (index <= place ? 'even' : 'apart'));
      const { intervalMm, says } = interval.find(wide, said(wide, 'lines', level, words), known);
      expect(says.includes('Nearer than 300 mm an eye may see such lines.')).toBe(intervalMm! > 0.175);
    }
    expect(2 * levels[0]!).toBeLessThan(0.175);
    expect(2 * levels[5]!).toBeGreaterThan(0.175);
  });
  it('says which two strips contradict each other', () => {
    const [missing] = find('mud', 'apart', 'even', 'even', 'apart', 'apart').missing;
    expect(missing).toBe(
      `Lines show at ${formatInterval(levels[1]!, liked)} but not at the coarser ${formatInterval(levels[3]!, liked)}: look again at both.`,
    );
  });
  it.each([
    [['apart', 'apart', 'apart', 'apart', 'apart', 'apart'], /every strip: burn finer/],
    [['mud', 'mud', 'mud', 'mud', 'mud', 'mud'], /^Every strip is muddy: burn coarser ones, or less power\.$/],
    [['mud', 'mud', 'mud', 'apart', 'apart', 'apart'], /No strip is even/],
    [['mud', 'apart', 'even', 'even', 'apart', 'apart'], /look again/],
    [[], /Say of each strip/],
  ])('says what is missing after %j', (words, missing) => {
    const finding = find(...words);
    expect(finding.missing[0]).toMatch(missing);
    expect(interval.settle(finding)).toEqual([]);
  });
  it('says that coarser ones were not tried', () => {
    const finding = find('mud', 'even', 'even', 'even', 'even', 'even');
    expect(finding.sigmaMm).toBeNull();
    expect(finding.says).toMatch(/none was tried/);
  });
  describe('by a photo', () => {
    /** The same strips, 0.1 to 0.35 mm apart: the eye’s own limit at 300 mm is 0.095. */
    const wider = (): Layout => ({
      ...layout,
      cells: layout.cells.map((cell) => ({
        ...cell,
        burns: cell.burns.map((burn) => ({
          ...burn,
          settings: { ...burn.settings, intervalMm: 0.1 + 0.05 * levels.indexOf(burn.settings.intervalMm) },
        })),
      })),
    });
    const sure = 0.002;
    const look = (ripples: readonly (readonly [number, number] | null)[], words: readonly string[] = []) => {
      const wide = wider();
      const photo = shown(wide, level, ripples);
      return interval.find(wide, { ...photo, answers: said(wide, 'lines', level, words).answers }, known);
    };

    it('is the coarsest whose lines are weaker than an eye sees from 300 mm', () => {
      const finding = look(tuples([0.3, sure], [0.08, sure], [0.04, sure], [0.3, sure], [0.3, sure], [0.3, sure]));
      // At 0.1 mm an eye needs over 0.6, at 0.2 mm 0.07: 30 periods to a degree are 0.1, and e times less for each 10.9 fewer.
      expect(finding.strips.map(({ word, by }) => `${word} ${by}`)).toEqual(
        listed('even photo; even photo; even photo; apart photo; apart photo; apart photo'),
      );
      expect(finding.intervalMm).toBeCloseTo(0.2, 9);
      expect(finding.sigmaMm).toBeCloseTo(Math.hypot(0.05 / Math.sqrt(12), 0.04 * 0.2), 9);
      expect(finding.undecided).toEqual([]);
    });

    it('leaves open what is too close to call or not resolved, and asks for the eye there, whose word counts', () => {
      const ripples = [[0.3, sure], [0.08, sure], [0.066, 0.02], [0.3, sure], null, null] as const;
      const finding = look(ripples);
      expect(finding.undecided).toHaveLength(3);
      expect(finding.intervalMm).toBeCloseTo(0.15, 9);
      // The limit lies up to the next strip that was told.
      expect(finding.sigmaMm).toBeCloseTo(Math.hypot(0.1 / Math.sqrt(12), 0.04 * 0.15), 9);
      expect(finding.says).toMatch(/3 strips could not be told: look there by eye\.$/);
      const looked = look(ripples, ['', '', 'even', 'even']);
      expect(looked.intervalMm).toBeCloseTo(0.25, 9);
      expect(looked.strips.map(({ by }) => by)).toEqual(['photo', 'photo', 'eye', 'eye']);
    });

    it('says nothing where it tells no strip at all', () => {
      const [missing] = look([null, null, null, null, null, null]).missing;
      // 0.1 mm is so near the eye’s limit that no photo is needed only below 0.095.
      expect(missing).toMatch(/too coarse for these lines.*say of each strip/);
    });
  });
  it('has three steps of power in each strip, weak to full, at the strip’s own interval', () => {
    for (const cell of layout.cells) {
      const powers = cell.burns.map((burn) => burn.settings.powerFraction);
      expect(powers).toHaveLength(3);
      expect(Math.max(...powers)).toBe(plan.constants.powerFraction);
      expect(Math.min(...powers)).toBeLessThan(0.7 * plan.constants.powerFraction);
      expect(new Set(cell.burns.map((burn) => burn.settings.intervalMm)).size).toBe(1);
    }
  });
});

describe('the focus', () => {
  let layout: Layout;
  let levels: number[];
  beforeEach(() => {
    layout = layCard(focus, focus.propose(known).plan, pairing, { cardNumber: 4 });
    levels = layout.cells.map((cell) => level(cell.index)).sort((a, b) => a - b);
  });
  const level = (index: number): number => mainBurn(layout.cells[index]!).settings.focusOffsetMm;
  const find = (...words: string[]) => focus.find(layout, said(layout, 'gaps', level, words), known);

  it('is tested on both sides of what was set, itself included', () => {
    expect(levels).toHaveLength(5);
    expect(levels[0]).toBeLessThan(0);
    expect(levels[2]).toBe(0);
    expect(levels[4]).toBe(-levels[0]!);
  });
  it('is found the same whatever order its patches were burned in', () => {
    const seen = said(layout, 'gaps', level, ['blurred', 'closed', 'sharp', 'closed', 'blurred']);
    const turned = { ...layout, order: [...layout.order].reverse() };
    const finding = focus.find(turned, seen, known);
    expect(finding).toEqual(focus.find(layout, seen, known));
    expect(finding.patches.map(({ offsetMm }) => offsetMm)).toEqual(levels);
  });
  it('tells the waist from the offset for fills, and takes the raised one of two equals', () => {
    const finding = find('blurred', 'closed', 'sharp', 'closed', 'blurred');
    expect(finding.waistMm).toBe(0);
    expect(finding.fillMm).toBe(levels[3]);
    const [draft, waist] = focus.settle(finding);
    expect(draft).toMatchObject({ name: 'focus', value: { focusOffsetMm: levels[3], flat: false } });
    expect(waist).toMatchObject({ name: 'waist', value: { offsetMm: 0, depthMm: null }, cellIndex: null });
    expect(waist!.sigma).toBe(finding.waistSigmaMm);
    expect(focus.settle(find('closed', 'closed', 'closed', 'closed', 'closed')).map(({ name }) => name)).toEqual([
      'focus',
    ]);
    // Between two patches, and as far as a spacer sets the head otherwise.
    expect(draft!.sigma).toBeCloseTo(Math.hypot((levels[1]! - levels[0]!) / Math.sqrt(12), 0.1), 9);
  });
  describe('by a photo', () => {
    /** Ripples of a beam whose waist is at an offset: their logarithm falls with its square. */
    const beam = (waistMm: number, more: (place: number) => number = () => 1) =>
      levels.map((offset, place) => [0.4 * more(place) * Math.exp(-0.2 * (offset - waistMm) ** 2), 0.002] as const);
    const look = (ripples: readonly (readonly [number, number] | null)[], words: readonly string[] = []) =>
      focus.find(
        layout,
        { ...shown(layout, level, ripples), answers: said(layout, 'gaps', level, words).answers },
        known,
      );

    it('is where lines show most, finer than the patches are apart', () => {
      const waist = 0.3 * (levels[1]! - levels[0]!);
      const finding = look(beam(waist));
      expect(finding.waistMm).toBeCloseTo(waist, 6);
      // No ripple is told to better than 4 %: what a head’s height leaves open. And no spacer sets it to better than a tenth.
      expect(finding.waistSigmaMm!).toBeLessThan(0.2);
      expect(finding.waistSigmaMm!).toBeGreaterThan(0.1);
      expect(finding.depthMm!).toBeCloseTo(Math.sqrt(Math.log(1.25) / 0.2), 3);
      expect(finding.patches.every(({ by }) => by === 'photo')).toBe(true);
      const scattered = look(beam(waist, (place) => [1.06, 0.94, 1.06, 0.94, 1.03][place]!));
      const beyondSpacer = ({ waistSigmaMm }: typeof finding): number => Math.sqrt(waistSigmaMm! ** 2 - 0.1 ** 2);
      expect(beyondSpacer(scattered)).toBeGreaterThan(1.5 * beyondSpacer(finding));
      expect(Math.abs(scattered.waistMm! - waist)).toBeLessThan(3 * scattered.waistSigmaMm!);
      // Where they scatter as much as they fall, none lies out: all look alike.
      const wild = look(beam(waist, (place) => [1.2, 0.8, 1.2, 0.8, 1.1][place]!));
      expect(wild).toMatchObject({ flat: true, waistMm: null, fillMm: 0 });
    });

    it('shows what the photo tells of each patch by its offset, in whatever order it was read, and nothing where it tells none', () => {
      const seen = shown(layout, level, [[0.01, 0.002], null, [0.3, 0.01], [0.1, 0.02], [0.02, 0.002]]);
      const { ripples } = focus.find(layout, { ...seen, readings: seen.readings.toReversed() }, known);
      expect(ripples.map(({ offsetMm }) => offsetMm)).toEqual([0, 2, 3, 4].map((place) => levels[place]));
      expect(ripples.map(({ visibility, sigma }) => [visibility, sigma])).toEqual([
        [0.01, 0.002],
        [0.3, 0.01],
        [0.1, 0.02],
        [0.02, 0.002],
      ]);
    });

    it('has a waist also where no patch is sharp', () => {
      const finding = look(beam(0.5, () => 0.33));
      expect(finding.patches.some(({ word }) => word === 'sharp')).toBe(false);
      expect(finding.waistMm).toBeCloseTo(0.5, 6);
    });

    it('takes strong lines for sharp, weak ones for closed, hardly any for blurred, and what lies near the bounds for neither', () => {
      const words = look(tuples([0.01, 0.002], [0.1, 0.01], [0.3, 0.01], [0.1, 0.01], [0.01, 0.002]));
      expect(words.patches.map(({ word }) => word)).toEqual(['blurred', 'closed', 'sharp', 'closed', 'blurred']);
      // Ripples fall from 30 to 10 per cent in a step: gaps close, at 12 or so, just before the next patch.
      expect(words.fillMm!).toBeGreaterThan(0.8 * levels[3]!);
      expect(words.fillMm!).toBeLessThan(1.1 * levels[3]!);
      expect(words.cellIndex).toBe(words.patches[3]!.cellIndex);
      const near = look(tuples([0.01, 0.002], [0.1, 0.01], [0.3, 0.01], [0.165, 0.01], [0.01, 0.002]));
      expect(near.patches).toHaveLength(4);
    });

    it('is overruled by the eye, and asks for it where it tells too little', () => {
      const ripples = tuples([0.01, 0.002], [0.1, 0.01], [0.3, 0.01], [0.1, 0.01], [0.01, 0.002]);
      const seen = look(ripples, ['', '', '', 'sharp']);
      expect(seen.patches.map(({ word, by }) => `${word} ${by}`)[3]).toBe('sharp eye');
      expect(look([null, null, null, [0.3, 0.01], [0.1, 0.01]]).missing[0]).toMatch(
        /too few patches: say of at least three/,
      );
    });

    it('is not flat where all lines are plain, but plainest at one offset', () => {
      const plain = levels.map((offset) => [0.9 * Math.exp(-0.08 * (offset - 0.6) ** 2), 0.002] as const);
      const { flat, waistMm, missing, fillMm, says } = look(plain);
      expect(flat).toBe(false);
      expect(waistMm).toBeCloseTo(0.6, 6);
      // The waist is an answer by itself: it is kept, and no offset for fills is.
      expect(missing).toEqual([]);
      expect(fillMm).toBeNull();
      expect(says).toMatch(/^It is sharpest at \+0\.6 mm ± .* In no patch do the gaps just close/);
      expect(focus.settle(look(plain)).map(({ name }) => name)).toEqual(['waist']);
      // Five that are as plain as each other are.
      expect(look(tuples([0.3, 0.002], [0.31, 0.002], [0.29, 0.002], [0.31, 0.002], [0.3, 0.002])).flat).toBe(true);
    });

    it('lies where the eye says that it is sharp, where the photo has it elsewhere', () => {
      const finding = look(beam(levels[4]! * 0.9), ['sharp', 'closed', 'closed', 'blurred', 'blurred']);
      expect(finding.waistMm === null || finding.waistMm < levels[1]! + 1e-9).toBe(true);
    });

    it('has no waist where lines show ever more towards one end', () => {
      expect(look(beam(levels[4]! + 3)).waistMm).toBeNull();
      // A fault of focus by chance: no top stands out of the scatter.
      expect(
        look(tuples([0.3, 0.002], [0.25, 0.002], [0.31, 0.002], [0.26, 0.002], [0.3, 0.002])).waistMm,
      ).not.toBeCloseTo(1.2, 1);
    });
  });
  it('follows a waist that lies off what was set', () => {
    const finding = find('blurred', 'blurred', 'closed', 'sharp', 'closed');
    expect(finding.waistMm).toBe(levels[3]);
    expect(finding.fillMm).toBe(levels[4]);
    expect(finding.cellIndex).toBe(finding.patches[4]!.cellIndex);
    expect(finding.says).toBe(
      `For fills +${levels[4]} mm: the least offset at which gaps close. It is sharpest at about +${levels[3]} mm.`,
    );
    const low = find('closed', 'sharp', 'closed', 'blurred', 'blurred');
    expect(low.waistMm).toBe(levels[1]);
    expect(low.fillMm).toBe(0);
    expect(low.says).toBe(
      `For fills 0 mm: the least offset at which gaps close. It is sharpest at about ${levels[1]} mm.`,
    );
  });
  it('takes sharp patches to their middle, and no contradiction where what is blurred lies outside them', () => {
    const finding = find('blurred', 'sharp', 'sharp', 'closed', 'blurred');
    expect(finding.missing).toEqual([]);
    expect(finding.waistMm).toBeCloseTo((levels[1]! + levels[2]!) / 2, 9);
    expect(finding.fillMm).toBe(levels[3]);
    // A gap that closes between two sharp ones is odd, but no blur.
    expect(find('blurred', 'sharp', 'closed', 'sharp', 'blurred')).toMatchObject({ waistMm: 0, fillMm: 0 });
  });
  it('says flat when all look alike, and what is missing otherwise', () => {
    expect(find('closed', 'closed', 'closed', 'closed', 'closed')).toMatchObject({
      flat: true,
      fillMm: 0,
      missing: [],
    });
    expect(find('blurred', 'blurred', 'blurred', 'blurred', 'blurred').missing[0]).toMatch(/far off/);
    expect(find('blurred', 'sharp', 'sharp', 'sharp', 'blurred').missing[0]).toMatch(/just close/);
    expect(find('sharp', 'blurred', 'sharp', 'closed', 'blurred').missing[0]).toMatch(/look again/);
    expect(find('sharp', 'closed').missing[0]).toMatch(/three/);
    // The blurred one lies between the second and the third sharp one.
    expect(find('sharp', 'sharp', 'blurred', 'sharp', 'closed').missing[0]).toMatch(/look again/);
    // Where nobody said of one patch how it looks, it is the closest two that tell how fine the answer is.
    const [draft] = focus.settle(find('closed', 'sharp', '', 'closed', 'blurred'));
    expect(draft!.sigma).toBeCloseTo(Math.hypot((levels[1]! - levels[0]!) / Math.sqrt(12), 0.1), 9);
  });
  it('does not name a waist that its range does not bound', () => {
    const finding = find('sharp', 'sharp', 'sharp', 'closed', 'blurred');
    expect(finding.waistMm).toBeNull();
    expect(finding.says).toMatch(/stays open/);
  });
});

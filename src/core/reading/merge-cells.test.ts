import { describe, expect, it } from 'vitest';
import { mergeCell, mergeCells } from './merge-cells';
import { lightnessUnderVeil } from './light/under-veil';
import { LOW_CONFIDENCE, type CellReading } from './observations';
import { readingOf } from '../../../stand-ins/made-up-reading';
import { tuples } from '../../../tests/support/tuples';

/** A reading of one photo: so light, so sure by itself, with so much that every photo shares. */
function seen(lightness: number, own: number, shared = 0, more: Partial<CellReading> = {}): CellReading {
  return {
    ...readingOf(3),
    lightness,
    deltaLightness: lightness - 80,
    lightnessSigma: Math.hypot(own, shared),
    sharedSigma: shared,
    ...more,
  };
}

describe('one cell in several photos', () => {
  it('is the mean weighted by what is each photo’s own, and surer than each', () => {
    // Weights 1/0.25 and 1/1: (4 × 50 + 51) / 5, 1 / sqrt(5).
    const both = mergeCell([seen(50, 0.5), seen(51, 1)]);
    expect(both.lightness).toBeCloseTo(50.2, 9);
    expect(both.lightnessSigma).toBeCloseTo(1 / Math.sqrt(5), 9);
    expect(both.deltaLightness).toBeCloseTo(-29.8, 9);
    expect(both.doubts).toEqual([]);
  });
  it('keeps all of what lies in the piece: no number of photos tells what stock was under it', () => {
    const many = mergeCell(Array.from({ length: 16 }, () => seen(50, 0.8, 0.6)));
    expect(many.sharedSigma).toBe(0.6);
    expect(many.lightnessSigma).toBeCloseTo(Math.hypot(0.2, 0.6), 9);
  });
  it('is no surer than its photos’ scatter has it', () => {
    // Own sigmas 0.3, values 1.2 apart: chi-square 8 for one degree of freedom. The sigma of their mean is half their distance.
    const wide = mergeCell([seen(50, 0.3), seen(51.2, 0.3)]);
    expect(wide.lightnessSigma).toBeCloseTo(0.6, 9);
    expect(wide.doubts).toEqual([]);
  });
  it('shows its lines by the photo that is surest of them, be it not the surest of its tone', () => {
    const lines = (visibilitySigma: number) => ({
      pitchMm: 0.1,
      pitchSigmaMm: 0,
      visibility: 0.2,
      visibilitySigma,
      gapMm: null,
      gapSigmaMm: null,
    });
    const three = [seen(50, 0.3), seen(50, 0.6, 0, { lines: lines(0.02) }), seen(50, 0.5, 0, { lines: lines(0.05) })];
    expect(mergeCell(three).lines).toEqual(lines(0.02));
    expect(mergeCell([seen(50, 0.3), seen(50, 0.6)]).lines).toBeNull();
  });
  it('shows its ripple by the first photo, whichever is surer: those of two photos are not blunted alike', () => {
    const ripple = (amplitude: number, sigma: number) => ({ ripple: { amplitude, sigma } });
    expect(mergeCell([seen(50, 0.6, 0, ripple(0.2, 0.05)), seen(50, 0.3, 0, ripple(0.3, 0.01))])).toMatchObject(
      ripple(0.2, 0.05),
    );
    expect(mergeCell([seen(50, 0.6), seen(50, 0.3, 0, ripple(0.3, 0.01))]).ripple).toBeNull();
  });
  it('is in doubt where photos contradict each other by more than the promise', () => {
    const apart = mergeCell([seen(50, 0.3), seen(52.5, 0.3)]);
    expect(apart.doubts).toEqual(['photos-disagree']);
    expect(apart.confidence).toBeLessThanOrEqual(0.75);
    // What they do not claim to know they do not contradict.
    expect(mergeCell([seen(50, 0.8), seen(52.5, 0.8)]).doubts).toEqual([]);
    // One photo among three is enough.
    expect(mergeCell([seen(50, 0.3), seen(50.1, 0.3), seen(53, 0.3)]).doubts).toEqual(['photos-disagree']);
  });
  it('leaves photos aside that doubt it, where another does not: glare in one is healed by another', () => {
    const glare = seen(62, 0.4, 0, { confidence: 0.7, doubts: ['reflection'] });
    const healed = mergeCell([glare, seen(50, 0.5)]);
    expect(healed).toMatchObject({ lightness: 50, doubts: [] });
    expect(healed.lightnessSigma).toBeCloseTo(0.5, 9);
    expect(healed.confidence).toBeGreaterThan(0.99);
  });
  it('stays in doubt where every photo doubts it, by the reasons of the surest', () => {
    const one = seen(50, 2, 0, { confidence: 0.6, doubts: ['reflection'] });
    const other = seen(51, 1, 0, { confidence: 0.7, doubts: ['clipped', 'uneven'], colour: '#112233' });
    const both = mergeCell([one, other]);
    expect(both).toMatchObject({ doubts: ['clipped', 'uneven'], colour: '#112233', confidence: 0.75 ** 2 });
    expect(both.lightness).toBeCloseTo((50 / 4 + 51) / 1.25, 9);
  });
  it('of one photo is as it was read; of none, or of two cells, it is refused', () => {
    const only = seen(50, 0.02);
    expect(mergeCell([only])).toBe(only);
    expect(() => mergeCell([])).toThrow(RangeError);
    expect(() => mergeCell([only, { ...only, cellIndex: 4 }])).toThrow(RangeError);
  });
});

describe('a single line in several photos', () => {
  it('is that of the photo which is surest of its width, or else of its place', () => {
    const line = (widthSigmaMm: number | null, besideSigmaMm: number) => ({
      besideMm: 0,
      besideSigmaMm,
      widthMm: widthSigmaMm,
      widthSigmaMm,
      raggedMm: null,
      raggedSigmaMm: null,
      profile: null,
    });
    const merged = (...lines: CellReading['line'][]) =>
      mergeCell(lines.map((one) => seen(50, 0.5, 0, { line: one }))).line;
    expect(merged(line(0.01, 0.001), line(0.004, 0.002), null)).toMatchObject({ widthSigmaMm: 0.004 });
    expect(merged(line(null, 0.001), line(0.5, 0.002))).toMatchObject({ widthSigmaMm: 0.5 });
    expect(merged(line(null, 0.002), line(null, 0.001))).toMatchObject({ besideSigmaMm: 0.001 });
    expect(merged(null, null)).toBeNull();
  });
  it('is the ends of a fill by the photo that is surest of them', () => {
    const ends = (sigma: number) => ({ first: -sigma, last: 2, sigma });
    const merged = (...all: CellReading['ends'][]) => mergeCell(all.map((one) => seen(50, 0.5, 0, { ends: one }))).ends;
    expect(merged(ends(0.4), null, ends(0.3))).toEqual(ends(0.3));
    expect(merged(null, null)).toBeNull();
  });
  it('is a drawing by the photo that is surest of how far it stands out', () => {
    const drawing = (takenSigma: number) => ({ taken: 0.5, takenSigma, between: 0 });
    const merged = (...all: CellReading['drawing'][]) =>
      mergeCell(all.map((one) => seen(50, 0.5, 0, { drawing: one }))).drawing;
    expect(merged(drawing(0.04), null, drawing(0.02))).toEqual(drawing(0.02));
    expect(merged(null, null)).toBeNull();
  });
  it('is two bars by the photo that is surest of how far they lie from each other', () => {
    const bar = (besideMm: number, besideSigmaMm: number) => ({
      besideMm,
      besideSigmaMm,
      widthMm: null,
      widthSigmaMm: null,
      raggedMm: null,
      raggedSigmaMm: null,
      profile: null,
    });
    const pair = (thereSigma: number, backSigma: number) => ({
      there: bar(0.01, thereSigma),
      back: bar(-0.02, backSigma),
    });
    const merged = (...all: CellReading['bars'][]) => mergeCell(all.map((bars) => seen(50, 0.5, 0, { bars }))).bars;
    expect(merged(pair(0.001, 0.009), pair(0.004, 0.004), null)).toEqual(pair(0.004, 0.004));
    expect(merged(null, null)).toBeNull();
  });
});

/** Photos of the front, merged. */
const merge = (...photos: CellReading[][]) => mergeCells(photos.map((cells) => ({ cells, isMirrored: false })));

describe('cells of several photos', () => {
  it('are merged each with itself, in order, those of one photo among them', () => {
    const at = (cellIndex: number, lightness: number) => seen(lightness, 0.5, 0, { cellIndex });
    const cells = merge([at(2, 40), at(7, 60)], [at(1, 30), at(7, 61)]);
    expect(cells.map(({ cellIndex, lightness }) => [cellIndex, lightness])).toEqual(
      tuples([1, 30], [2, 40], [7, 60.5]),
    );
  });

  const STOCK = 19;
  const MARKS = [28, 40, 46, 52, 58, 64, 70];
  /** What a photo shows of marks on dark stock under a share of white that nothing in it tells; as sure as a clear one. */
  const photoUnder = (share: number, more: (cellIndex: number) => Partial<CellReading> = () => ({})): CellReading[] =>
    MARKS.map((mark, cellIndex) => {
      const lightness = lightnessUnderVeil(mark, STOCK, share);
      return seen(lightness, 0.3, 0, { cellIndex, deltaLightness: lightness - STOCK, ...more(cellIndex) });
    });
  it('go by the photo with least light on it where another has surely more, and are less sure by what differs', () => {
    const veiled = photoUnder(0.006);
    for (const photos of tuples([photoUnder(0), veiled], [veiled, photoUnder(0)])) {
      const merged = merge(...photos);
      expect(merged.map(({ lightness }) => lightness)).toEqual(MARKS.map((mark) => expect.closeTo(mark, 9)));
      // A mark of 70 was read as 65 under it: so far off may both be. One of 28 is hardly moved.
      expect(veiled[6]!.lightness).toBeLessThan(66);
      expect(merged[6]!.lightnessSigma).toBeGreaterThan(70 - veiled[6]!.lightness);
      expect(merged[6]).toMatchObject({ doubts: ['photos-disagree'] });
      expect(merged[6]!.confidence).toBeLessThan(LOW_CONFIDENCE);
      expect(merged[0]!.lightnessSigma).toBeLessThan(28 - veiled[0]!.lightness + 0.5);
    }
    expect(merge(photoUnder(0), veiled, photoUnder(0))[6]!.lightnessSigma).toBeGreaterThan(4);
    // As much light on both is nothing that differs.
    expect(merge(veiled, veiled)[6]).toMatchObject({ lightness: veiled[6]!.lightness, doubts: [] });
  });
  it('take from the other photo what the clearer one doubts or does not show', () => {
    const doubted = photoUnder(0, (index) => (index === 2 ? { doubts: ['reflection'], confidence: 0.7 } : {}));
    const cut = doubted.filter(({ cellIndex }) => cellIndex !== 4);
    const veiled = photoUnder(0.006);
    const merged = merge(cut, veiled);
    for (const index of [2, 4]) expect(merged[index]!.lightness).toBe(veiled[index]!.lightness);
    expect(merged[6]!.lightness).toBeCloseTo(70, 9);
    // Of two that both doubt it the clearer one.
    const both = merge(
      doubted,
      photoUnder(0.006, () => ({ doubts: ['reflection'], confidence: 0.7 })),
    );
    expect(both[2]).toMatchObject({ lightness: expect.closeTo(46, 9), doubts: ['reflection'] });
  });
  it('say nothing of light by few cells, by less than photos differ anyway, by cells in doubt for another reason, or by scatter', () => {
    const mean = (all: readonly CellReading[][]) =>
      MARKS.map((_, index) => all.reduce((sum, cells) => sum + (cells[index]?.lightness ?? 0), 0) / all.length);
    const apart = (...all: CellReading[][]): void => {
      merge(...all).forEach(({ lightness, doubts }, index) => {
        expect(lightness).toBeCloseTo(mean(all)[index]!, 9);
        expect(doubts.filter((doubt) => doubt === 'photos-disagree')).toEqual([]);
      });
    };
    apart(photoUnder(0), photoUnder(0.0009));
    const bent = () => ({ doubts: ['tones-unknown' as const], confidence: 0.7 });
    apart(photoUnder(0, bent), photoUnder(0.002, bent));
    apart(photoUnder(0).slice(0, 5), photoUnder(0.002).slice(0, 5));
    const scattered = photoUnder(0).map((cell, index) => ({
      ...cell,
      lightness: cell.lightness + (index % 2 ? -3 : 2),
    }));
    const unsure = (cells: CellReading[]) => cells.map((cell) => ({ ...cell, lightnessSigma: 0.9 }));
    apart(unsure(photoUnder(0)), unsure(scattered));
  });
  it('say nothing of light by what is seen through the sheet, which has less contrast', () => {
    const [front, through] = [photoUnder(0), photoUnder(0.006)];
    for (const [one, other] of tuples([front, through], [through, front]))
      expect(
        mergeCells([
          { cells: one, isMirrored: one === through },
          { cells: other, isMirrored: other === through },
        ])[0]!.lightness,
      ).toBeCloseTo((front[0]!.lightness + through[0]!.lightness) / 2, 9);
  });
  it('keep the ripples of one photo, be it left aside for its light, and the drawing of the one that is surest of it', () => {
    const rippled = (amplitude: number, takenSigma: number) => () => ({
      ripple: { amplitude, sigma: 0.01 },
      drawing: { taken: 0.5, takenSigma, between: 0 },
    });
    const merged = merge(photoUnder(0.006, rippled(0.3, 0.01)), photoUnder(0, rippled(0.5, 0.02)));
    expect(merged.map(({ ripple }) => ripple!.amplitude)).toEqual(MARKS.map(() => 0.3));
    expect(merged.map(({ drawing }) => drawing!.takenSigma)).toEqual(MARKS.map(() => 0.01));
    expect(merged[6]!.lightness).toBeCloseTo(70, 9);
  });
});

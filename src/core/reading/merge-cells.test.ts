import { describe, expect, it } from 'vitest';
import { mergeCell, mergeCells } from './merge-cells';
import type { CellReading } from './observations';

/** A reading of one photo: so light, so sure by itself, with so much that every photo shares. */
function seen(lightness: number, own: number, shared = 0, more: Partial<CellReading> = {}): CellReading {
  return {
    cellIndex: 3,
    lightness,
    deltaLightness: lightness - 80,
    spread: 1,
    ripple: null,
    drawing: null,
    lines: null,
    line: null,
    bars: null,
    ends: null,
    picture: null,
    edgeHalo: 0,
    clippedShare: 0,
    edgeWidthMm: null,
    lightnessSigma: Math.hypot(own, shared),
    sharedSigma: shared,
    confidence: 0.99,
    doubts: [],
    hue: null,
    colour: '#806040',
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
  it('is the ends of a fill by the photo that is surest of them', () => {
    const ends = (sigma: number) => ({ first: -sigma, last: 2, sigma });
    const merged = (...all: CellReading['ends'][]) => mergeCell(all.map((one) => seen(50, 0.5, 0, { ends: one }))).ends;
    expect(merged(ends(0.4), null, ends(0.3))).toEqual(ends(0.3));
    expect(merged(null, null)).toBeNull();
  });
});

describe('cells of several photos', () => {
  it('are merged each with itself, in order, those of one photo among them', () => {
    const at = (cellIndex: number, lightness: number) => seen(lightness, 0.5, 0, { cellIndex });
    const cells = mergeCells([
      [at(2, 40), at(7, 60)],
      [at(1, 30), at(7, 61)],
    ]);
    expect(cells.map(({ cellIndex, lightness }) => [cellIndex, lightness])).toEqual([
      [1, 30],
      [2, 40],
      [7, 60.5],
    ]);
  });
});

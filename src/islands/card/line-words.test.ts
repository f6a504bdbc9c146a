import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../../core/quantities/format';
import { cellOf } from '../../../tests/support/bare-layout';
import { rectRing } from '../../core/card/shape';
import type { BurnSettings } from '../../core/card/settings';
import { barRows, endsRow, lineRows, singleLineRows, tonelessNumber, tonelessRows } from './line-words';

const seen = {
  pitchMm: 0.127,
  pitchSigmaMm: 0.0002,
  visibility: 0.12,
  visibilitySigma: 0.02,
  gapMm: 0.018,
  gapSigmaMm: 0.004,
};
const words = (lines: Parameters<typeof lineRows>[0]): string => JSON.stringify(lineRows(lines, DEFAULT_LIKED_UNITS));

describe('what is said of lines', () => {
  it('is how much they show, how far apart they lie and what is left between them, to two sigmas', () => {
    expect(lineRows(seen, DEFAULT_LIKED_UNITS)).toEqual([
      ['Lines show', 'by 12 % ± 4 %'],
      ['Line pitch', '0.127 mm'],
      ['Gap', '0.018 mm ± 0.008 mm'],
    ]);
  });

  it('is that they show in full where they ripple by more than their mean', () => {
    expect(lineRows({ ...seen, visibility: 1.4 }, DEFAULT_LIKED_UNITS)[0]).toEqual(['Lines show', 'in full']);
  });

  it('is a bound where they do not show, and no pitch', () => {
    const closed = { ...seen, pitchMm: null, visibility: 0.01, visibilitySigma: 0.015, gapMm: null, gapSigmaMm: null };
    expect(lineRows(closed, DEFAULT_LIKED_UNITS)).toEqual([['Lines show', 'not: under 4 %']]);
  });

  it('is that the photo cannot tell, and what would', () => {
    expect(words(null)).toMatch(/not told by this photo: look closely/);
  });
});

describe('what is said of a single line', () => {
  const line = {
    besideMm: -0.0121,
    besideSigmaMm: 0.001,
    widthMm: 0.1234,
    widthSigmaMm: 0.002,
    raggedMm: 0.004,
    raggedSigmaMm: 0.001,
    profile: null,
  };
  const rows = (seenLine: Parameters<typeof singleLineRows>[0]) => singleLineRows(seenLine, DEFAULT_LIKED_UNITS);
  it('is how wide it is, how ragged, and how far beside its place, to two sigmas', () => {
    expect(rows(line)).toEqual([
      ['Line width', '0.123 mm ± 0.004 mm'],
      ['Ragged by', '0.004 mm ± 0.002 mm'],
      ['Beside its place', '-0.0121 mm ± 0.002 mm'],
    ]);
  });
  it('is its place alone where the photo is too coarse for more, or that it is not told at all', () => {
    const far = { ...line, widthMm: null, widthSigmaMm: null, raggedMm: null, raggedSigmaMm: null };
    expect(rows(far).map(([label]) => label)).toEqual(['Line width', 'Beside its place']);
    expect(rows(far)[0]![1]).toContain('under 40 photo pixels');
    expect(rows(null)).toEqual([['Line', 'not told by this photo: look closely, or take it nearer']]);
  });
});

describe('what is said of the ends of a long fill', () => {
  it('is how light each is against the middle, the left or upper one first', () => {
    expect(endsRow({ first: -4.234, last: 0.51, sigma: 0.26 })).toEqual([
      'Ends against the middle',
      '-4.2 and 0.51 L* ± 0.5',
    ]);
  });
});

describe('what is said of bars of both ways', () => {
  const bar = (besideMm: number) => ({
    besideMm,
    besideSigmaMm: 0.003,
    widthMm: null,
    widthSigmaMm: null,
    raggedMm: null,
    raggedSigmaMm: null,
    profile: null,
  });
  const bars = { there: bar(0.014), back: bar(-0.0162) };
  it('is how far each lies beside its place, and from the other, to two sigmas of both', () => {
    expect(barRows(bars, DEFAULT_LIKED_UNITS)).toEqual([
      ['Way back beside way there', '-0.0302 mm ± 0.008 mm'],
      ['Way there beside its place', '0.014 mm ± 0.006 mm'],
      ['Way back beside its place', '-0.0162 mm ± 0.006 mm'],
    ]);
    expect(barRows(null, DEFAULT_LIKED_UNITS)[0]![1]).toMatch(/not told by this photo/);
  });
  it('stands on their cell, as a line’s width on its own', () => {
    const settings = { intervalMm: 0.1, direction: 'horizontal' } as BurnSettings;
    const cell = (height: number) =>
      cellOf(0, { shape: { do: 'sweep', area: [rectRing({ x: 0, y: 0, width: 4, height })] }, settings });
    const line = { ...bar(0), widthMm: 0.1234, widthSigmaMm: 0.002 };
    expect(tonelessNumber(cell(4), { line: null, bars })).toBe('-0.030');
    expect(tonelessNumber(cell(4), { line: null, bars: null })).toBeUndefined();
    expect(tonelessNumber(cell(0.1), { line, bars: null })).toBe('0.123');
    expect(tonelessNumber(cell(0.1), { line: null, bars: null })).toBeUndefined();
    expect(tonelessRows(cell(4), { line: null, bars }, DEFAULT_LIKED_UNITS)).toEqual(
      barRows(bars, DEFAULT_LIKED_UNITS),
    );
    expect(tonelessRows(cell(0.1), { line, bars: null }, DEFAULT_LIKED_UNITS)).toEqual(
      singleLineRows(line, DEFAULT_LIKED_UNITS),
    );
  });
});

import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { arealEnergyJPerMm2, lineEnergyJPerMm } from './energy';
import {
  formatAgainstBare,
  formatDuration,
  formatInterval,
  formatLength,
  formatPower,
  formatRunUp,
  formatSize,
  formatSpeed,
  formatStopwatch,
  plainNumber,
} from './format';
import { parseDuration, parseInterval, parseLength, parsePower, parseSpeed, QuantityError } from './parse';

describe('lengths as typed', () => {
  // 1 in = 25.4 mm exactly: international yard and pound agreement (1959).
  it.each([
    ['1/8 in', 3.175],
    ['1 1/2"', 38.1],
    ['0,12in', 3.048],
    ['3.1', 3.1],
    [' 12 mm ', 12],
    ['2 thou', 0.0508],
    ['100 µm', 0.1],
    ['-0.5', -0.5],
    ['.5 cm', 5],
  ])('%s is %f mm', (text, mm) => expect(parseLength(text)).toBeCloseTo(mm, 9));

  it.each(['', 'abc', 'NaN', 'mm', '1/0 in', '1e999', '3 furlongs'])('refuses "%s" with a message', (text) => {
    expect(() => parseLength(text)).toThrow(QuantityError);
  });

  it('takes a bare number in the unit the operator likes', () =>
    expect(parseLength('0.125', 'in')).toBeCloseTo(3.175, 9));
});

describe('speeds, power and intervals as typed', () => {
  it.each([
    ['600 mm/min', 10],
    ['600mm / min', 10],
    ['1 ips', 25.4],
    ['300', 300],
    ['10 mm / s', 10],
    ['10 mm  /s', 10],
    ['10 mm/  s', 10],
    ['600 mm   /   min', 10],
  ])('%s is %f mm/s', (text, speed) => expect(parseSpeed(text)).toBeCloseTo(speed, 9));

  it.each([
    ['65 %', 0.65],
    ['65', 0.65],
    ['6.5 W', 0.65],
  ])('%s of 10 W is %f', (text, fraction) => expect(parsePower(text, 10)).toBeCloseTo(fraction, 12));

  // Facts of the trade, common practice without a published source.
  it.each([
    ['254 dpi', 0.1],
    ['317.5 lpi', 0.08],
    ['100 l/cm', 0.1],
    ['0.1 mm', 0.1],
  ])('%s is an interval of %f mm', (text, mm) => expect(parseInterval(text)).toBeCloseTo(mm, 9));

  it('refuses a density of zero', () => expect(() => parseInterval('0 dpi')).toThrow(QuantityError));
});

describe('what is shown can be typed again', () => {
  prop([fc.double({ min: 0.01, max: 5000, noNaN: true })])('length', (mm) => {
    expect(parseLength(formatLength(mm))).toBeCloseTo(mm, -Math.floor(Math.log10(mm)) + 2);
  });
  prop([fc.double({ min: 0.1, max: 5000, noNaN: true })])('speed in mm/min', (speed) => {
    const liked = { length: 'mm', speed: 'mm/min', density: 'mm' } as const;
    expect(Math.abs(parseSpeed(formatSpeed(speed, liked)) / speed - 1)).toBeLessThan(1e-3);
  });
});

describe('formats', () => {
  const inches = { length: 'in', speed: 'mm/min', density: 'dpi' } as const;
  it('sizes with one unit', () => {
    expect(formatSize(40.2, 30)).toBe('40.2 × 30 mm');
    expect(formatSize(25.4, 50.8, inches)).toBe('1 × 2 in');
  });
  it('run-up as a length and as a share of speed', () => {
    expect(formatRunUp(5, 100)).toBe('5 mm each side, 5 % of speed');
    expect(formatRunUp(2.54, 127, inches)).toBe('0.1 in each side, 2 % of speed');
    expect(formatRunUp(0, 0)).toBe('0 mm each side');
  });
  it('tones against the bare stock, with L* as the detail', () => {
    expect(formatAgainstBare(60, 78)).toBe('18 darker than bare (L* 60)');
    expect(formatAgainstBare(52.25, 34)).toBe('18 brighter than bare (L* 52.3)');
    expect(formatAgainstBare(34.01, 34)).toBe('like bare (L* 34)');
  });
  it('keeps numbers short and plain', () => {
    expect([plainNumber(3.1), plainNumber(0.085), plainNumber(1200, 4), plainNumber(1e-9), plainNumber(NaN)]).toEqual([
      '3.1',
      '0.085',
      '1200',
      '0',
      '–',
    ]);
  });
  it('names units', () => {
    expect(formatPower(0.645)).toBe('64.5 %');
    expect(formatInterval(0.1, { length: 'mm', speed: 'mm/s', density: 'dpi' })).toBe('254 DPI');
    expect(formatInterval(0.1, { length: 'mm', speed: 'mm/s', density: 'lines/cm' })).toBe('100 lines/cm');
  });
  it.each([
    [9.44, '9.4 s'],
    [130, '2 min 10 s'],
    [59.97, '1 min 00 s'],
    [3900, '1 h 05 min'],
  ])('%f s is %s', (s, text) => expect(formatDuration(s)).toBe(text));
});

describe('energies', () => {
  it('follow their definitions', () => {
    expect(lineEnergyJPerMm(8, 100, 1)).toBeCloseTo(0.08, 12);
    expect(arealEnergyJPerMm2(8, 100, 0.1, 1)).toBeCloseTo(0.8, 12);
  });
  // Common practice: what dropped at 100 % and 500 mm/min also cut at 80 % and 400 mm/min.
  it('agree for settings that cut alike', () => {
    expect(lineEnergyJPerMm(0.8 * 10, parseSpeed('400 mm/min'), 1)).toBeCloseTo(
      lineEnergyJPerMm(10, parseSpeed('500 mm/min'), 1),
      9,
    );
  });
  // Common practice: 65 % at 300 mm/s and 75 % at 350 mm/s look the same, roughly.
  it('nearly agree for settings that look alike', () => {
    expect(arealEnergyJPerMm2(0.65, 300, 0.1, 1) / arealEnergyJPerMm2(0.75, 350, 0.1, 1)).toBeCloseTo(1, 1);
  });
});

describe('durations', () => {
  it.each([
    ['11:46', 706],
    ['1:05:00', 3900],
    ['0:42', 42],
    ['25 min', 1500],
    ['1 h 5 min', 3900],
    ['2min 10s', 130],
    ['90', 90],
    ['7,5 min', 450],
  ])('"%s" is %i seconds', (text, seconds) => expect(parseDuration(text)).toBe(seconds));
  it.each(['', 'soon', '11:60', '1:60:00', '-5', '3 days'])('"%s" is none', (text) =>
    expect(() => parseDuration(text)).toThrow(QuantityError),
  );
  it('are shown as on a stopwatch', () => {
    expect([0, 42.4, 706, 3900].map(formatStopwatch)).toEqual(['0:00', '0:42', '11:46', '1:05:00']);
  });
});

describe('a machine’s own scale of speed', () => {
  const perCent = {
    length: 'mm',
    speed: 'own',
    density: 'mm',
    ownSpeed: { unit: '% speed', mmPerSPerUnit: 4 },
  } as const;
  const dots = { ...perCent, ownSpeed: { unit: 'dots/s', mmPerSPerUnit: 0.0508 } } as const;
  it('is shown and read once it is told', () => {
    // 100 % are 400 mm/s; 500 dots in an inch are 0.0508 mm each.
    expect(formatSpeed(200, perCent)).toBe('50 % speed');
    // A unit of one's own is told where it is liked, and not only because there is one.
    expect(formatSpeed(200, { ...perCent, speed: 'mm/s' })).toBe('200 mm/s');
    expect(formatSpeed(101.6, dots)).toBe('2000 dots/s');
    expect(parseSpeed('50', 'own', perCent.ownSpeed)).toBeCloseTo(200, 12);
    expect(parseSpeed('50 %', 'own', perCent.ownSpeed)).toBeCloseTo(200, 12);
    expect(parseSpeed('2000 dots/s', 'mm/s', dots.ownSpeed)).toBeCloseTo(101.6, 12);
  });
  it('does not take other units away, and is refused where nobody told it', () => {
    expect(parseSpeed('600 mm/min', 'own', perCent.ownSpeed)).toBeCloseTo(10, 12);
    expect(() => parseSpeed('50 %', 'mm/s')).toThrow(QuantityError);
  });
});

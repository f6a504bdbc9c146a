import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../../tests/support/prop';
import { arealEnergyJPerMm2, lineEnergyJPerMm } from './energy';
import {
  formatAgainstBare,
  formatStrength,
  formatArealEnergy,
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
import { listed } from '../../../tests/support/listed';

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

  it.each([
    [() => parseLength('abc'), 'invalid length: "abc" does not start with a number'],
    [() => parseLength('1/0 in'), 'invalid length: "1/0 in" is not a finite number'],
    [() => parseLength('3 furlongs'), 'unknown unit in length: "furlongs" (known: mm, in, cm, um, m, ")'],
    [
      () => parseSpeed('3 sea  miles / h'),
      'unknown unit in speed: "sea miles/h" (known: mm/s, mm/min, in/s, in/min, m/s, m/min)',
    ],
    [() => parsePower('6.5 W'), 'unknown unit in power: "w" (known: %, percent)'],
    [() => parsePower('6.5 kg', 10), 'unknown unit in power: "kg" (known: %, percent, w, mw)'],
    [() => parseInterval('0 dpi'), 'invalid interval: "0 dpi" is not a density above zero'],
    [() => parseInterval('3 dots'), 'unknown unit in interval: "dots" (known: mm, in, cm, um, m, ")'],
    [() => parseDuration('11:60'), 'invalid duration: "11:60" has sixty or more after a colon'],
    [() => parseDuration('soon'), 'invalid duration: "soon" is not like 11:46 or 12 min'],
  ] as const)('%s says what is wrong: %s', (parse, words) => {
    expect(parse).toThrow(new QuantityError(words));
    expect(new QuantityError(words).name).toBe('QuantityError');
  });
  it('takes a bare number in the unit the operator likes', () =>
    expect(parseLength('0.125', 'in')).toBeCloseTo(3.175, 9));
});

describe('speeds, power and intervals as typed', () => {
  it.each([
    ['600 mm/min', 10],
    ['1 1/2 MM/S', 1.5],
    ['2e2 mm/sec', 200],
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
    ['6500 mW', 0.65],
    ['65 percent', 0.65],
  ])('%s of 10 W is %f', (text, fraction) => expect(parsePower(text, 10)).toBeCloseTo(fraction, 12));

  // Facts of the trade, common practice without a published source.
  it.each([
    ['254 dpi', 0.1],
    ['317.5 lpi', 0.08],
    ['100 l/cm', 0.1],
    ['0.1 mm', 0.1],
  ])('%s is an interval of %f mm', (text, mm) => expect(parseInterval(text)).toBeCloseTo(mm, 9));

  it('takes bare numbers in the unit that is liked', () => {
    expect(parseInterval('0.1')).toBeCloseTo(0.1, 12);
    expect(parseInterval('254', 'dpi')).toBeCloseTo(0.1, 12);
    expect(parseInterval('100', 'lines/cm')).toBeCloseTo(0.1, 12);
    expect(parseInterval('0.1 mm', 'dpi')).toBeCloseTo(0.1, 12);
    expect(parseSpeed('600', 'mm/min')).toBeCloseTo(10, 12);
  });
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
    expect(formatAgainstBare(33.9, 34)).toBe('0.1 darker than bare (L* 33.9)');
    expect(formatStrength({ strength: 24.31, sigma: 0.42 })).toBe('24.3 L* ± 0.84 from bare stock');
  });
  it('keeps numbers short and plain', () => {
    expect([plainNumber(3.1), plainNumber(0.085), plainNumber(1200, 4), plainNumber(1e-9), plainNumber(NaN)]).toEqual(
      listed('3.1; 0.085; 1200; 0; –'),
    );
  });
  it('names units', () => {
    expect(formatPower(0.645)).toBe('64.5 %');
    expect(formatInterval(0.1, { length: 'mm', speed: 'mm/s', density: 'dpi' })).toBe('254 DPI');
    expect(formatInterval(0.1, { length: 'mm', speed: 'mm/s', density: 'lines/cm' })).toBe('100 lines/cm');
    expect(formatInterval(0.12)).toBe('0.12 mm');
    expect([formatSpeed(100), formatSpeed(100, inches)]).toEqual(['100 mm/s', '6000 mm/min']);
    expect(formatArealEnergy(0.8534)).toBe('0.853 J/mm²');
    expect(plainNumber(0)).toBe('0');
  });
  it.each([
    [9.44, '9.4 s'],
    [130, '2 min 10 s'],
    [59.97, '1 min 00 s'],
    [3900, '1 h 05 min'],
    [59.95, '1 min 00 s'],
    [3599.4, '59 min 59 s'],
    [3599.6, '1 h 00 min'],
    [NaN, '–'],
    [Infinity, '–'],
  ])('%f s is %s', (s, text) => expect(formatDuration(s)).toBe(text));
});

describe('energies', () => {
  it('follow their definitions', () => {
    expect(lineEnergyJPerMm(8, 100, 1)).toBeCloseTo(0.08, 12);
    expect(arealEnergyJPerMm2(8, 100, 0.1, 1)).toBeCloseTo(0.8, 12);
    // Each pass lays down as much again.
    expect([lineEnergyJPerMm(8, 100, 3), arealEnergyJPerMm2(8, 100, 0.1, 2)].map((one) => one.toFixed(9))).toEqual([
      '0.240000000',
      '1.600000000',
    ]);
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
    expect([-3, 0, 42.4, 706, 3599, 3600, 3900].map(formatStopwatch)).toEqual(
      listed('0:00; 0:00; 0:42; 11:46; 59:59; 1:00:00; 1:05:00'),
    );
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
    expect(() => parseSpeed('50 %', 'own', dots.ownSpeed)).toThrow(QuantityError);
    expect(parseSpeed('50', 'mm/min', perCent.ownSpeed)).toBeCloseTo(50 / 60, 12);
    // Liked, but never told: a bare number is plain mm/s.
    expect(parseSpeed('50', 'own')).toBe(50);
  });
});

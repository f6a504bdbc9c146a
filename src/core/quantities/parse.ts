import type { LikedUnits, OwnSpeed } from './format';
import { MM_PER_INCH, mm, mmPerS, type Millimetres, type MillimetresPerSecond, type PowerFraction } from './quantity';

/** What a person typed could not be understood; `message` is fit to be shown beside the field. */
export class QuantityError extends Error {
  override readonly name = 'QuantityError';
}

const NUMBER = /^([+-]?)(?:(\d+)\s+(\d+)\/(\d+)|(\d+)\/(\d+)|(\d+(?:[.,]\d*)?|[.,]\d+)(e[+-]?\d+)?)/i;

interface Parsed {
  readonly value: number;
  readonly unit: string;
}

function numberAndUnit(text: string, what: string): Parsed {
  const trimmed = text.trim();
  const match = NUMBER.exec(trimmed);
  if (!match) {
    throw new QuantityError(`invalid ${what}: "${text}" does not start with a number`);
  }
  const [all, sign, whole, top, bottom, simpleTop, simpleBottom, decimal, exponent] = match;
  let value: number;
  if (whole !== undefined) value = Number(whole) + Number(top) / Number(bottom);
  else if (simpleTop !== undefined) value = Number(simpleTop) / Number(simpleBottom);
  else value = Number(`${decimal!.replace(',', '.')}${exponent ?? ''}`);
  if (sign === '-') value = -value;
  if (!Number.isFinite(value)) {
    throw new QuantityError(`invalid ${what}: "${text}" is not a finite number`);
  }
  const unit = trimmed
    .slice(all.length)
    .trim()
    .toLowerCase()
    .replace(/\s*\/\s*/g, '/')
    .replace(/\s+/g, ' ')
    .replace(/μ|µ/g, 'u');
  return { value, unit };
}

function convert(text: string, what: string, defaultUnit: string, factors: Readonly<Record<string, number>>): number {
  const { value, unit } = numberAndUnit(text, what);
  const factor = factors[unit === '' ? defaultUnit : unit];
  if (factor === undefined) {
    const known = Object.keys(factors).slice(0, 6).join(', ');
    throw new QuantityError(`unknown unit in ${what}: "${unit}" (known: ${known})`);
  }
  return value * factor;
}

const LENGTH: Readonly<Record<string, number>> = {
  mm: 1,
  in: MM_PER_INCH,
  cm: 10,
  um: 0.001,
  m: 1000,
  '"': MM_PER_INCH,
  '”': MM_PER_INCH,
  inch: MM_PER_INCH,
  inches: MM_PER_INCH,
  thou: MM_PER_INCH / 1000,
  mil: MM_PER_INCH / 1000,
};

const SPEED: Readonly<Record<string, number>> = {
  'mm/s': 1,
  'mm/min': 1 / 60,
  'in/s': MM_PER_INCH,
  'in/min': MM_PER_INCH / 60,
  'm/s': 1000,
  'm/min': 1000 / 60,
  'cm/s': 10,
  'mm/sec': 1,
  ips: MM_PER_INCH,
  ipm: MM_PER_INCH / 60,
};

/**
 * Length as typed, in millimetres. Accepts decimals with point or comma, fractions ("1/8 in", "1 1/2 in") and the
 * units mm, cm, m, um, in, ", inch, thou, mil; a bare number is in `defaultUnit`.
 * Throws QuantityError when the text has no number, an unknown unit or no finite value. Sign is kept.
 *
 * parseLength('1/8 in') === 3.175; parseLength('0,12in') === 3.048
 */
export function parseLength(text: string, defaultUnit: 'mm' | 'in' = 'mm'): Millimetres {
  return mm(convert(text, 'length', defaultUnit, LENGTH));
}

/**
 * Speed as typed, in mm/s. Units mm/s, mm/min, in/s, in/min, m/s, m/min, cm/s, ips, ipm, and a machine's own where its scale is told; a
 * bare number is in `defaultUnit`. Throws QuantityError like `parseLength`.
 *
 * parseSpeed('600 mm/min') === 10; parseSpeed('50', 'own', { unit: '% speed', mmPerSPerUnit: 4 }) === 200
 */
export function parseSpeed(
  text: string,
  defaultUnit: LikedUnits['speed'] = 'mm/s',
  own?: OwnSpeed,
): MillimetresPerSecond {
  const owns = own && { [own.unit]: own.mmPerSPerUnit, [own.unit.replace(' speed', '')]: own.mmPerSPerUnit };
  const bare = defaultUnit === 'own' ? (own?.unit ?? 'mm/s') : defaultUnit;
  return mmPerS(convert(text, 'speed', bare, { ...SPEED, ...owns }));
}

/**
 * Power as typed, as a fraction of rated power. "65 %" and "65" are 0.65; watts need `ratedPowerW` ("6.5 W" of 10 W is 0.65).
 * Throws QuantityError like `parseLength`.
 */
export function parsePower(text: string, ratedPowerW?: number): PowerFraction {
  const factors: Record<string, number> = { '%': 0.01, percent: 0.01 };
  if (ratedPowerW !== undefined) {
    factors['w'] = 1 / ratedPowerW;
    factors['mw'] = 0.001 / ratedPowerW;
  }
  return convert(text, 'power', '%', factors) as PowerFraction;
}

/**
 * Line interval as typed, in millimetres. A length is taken as it is; a density ("254 dpi", "254 lpi", "100 l/cm") is inverted:
 * interval = 25.4 / DPI = 10 / (lines per cm). A bare number is in `defaultUnit`.
 * Throws QuantityError like `parseLength`, and for a density that is not above zero.
 *
 * parseInterval('254 dpi') === 0.1
 */
export function parseInterval(text: string, defaultUnit: 'mm' | 'dpi' | 'lines/cm' = 'mm'): Millimetres {
  const { value, unit } = numberAndUnit(text, 'interval');
  const name = unit === '' ? defaultUnit : unit;
  const perMm: Readonly<Record<string, number>> = {
    dpi: MM_PER_INCH,
    lpi: MM_PER_INCH,
    'lines/in': MM_PER_INCH,
    'lines/cm': 10,
    'l/cm': 10,
    'lines/mm': 1,
  };
  const densityUnit = perMm[name];
  if (densityUnit === undefined) return mm(convert(text, 'interval', 'mm', LENGTH));
  if (!(value > 0)) throw new QuantityError(`invalid interval: "${text}" is not a density above zero`);
  return mm(densityUnit / value);
}

/**
 * A duration as typed or read off a stopwatch, in seconds: "25:00" is minutes and seconds, "1:05:00" hours too; "25 min", "1 h 5 min",
 * "90 s" and "90" as they say, a bare number in seconds. Throws QuantityError for anything else, and for minutes or seconds past 59
 * after a colon.
 *
 * parseDuration('11:46') === 706; parseDuration('1 h 5 min') === 3900
 */
export function parseDuration(text: string): number {
  const plain = text.trim().toLowerCase().replace(',', '.');
  const clock = /^(?:(\d+):)?(\d+):(\d{2}(?:\.\d+)?)$/.exec(plain);
  if (clock) {
    const [, hours, minutes, seconds] = clock;
    if (Number(seconds) >= 60 || (hours !== undefined && Number(minutes) >= 60))
      throw new QuantityError(`invalid duration: "${text}" has sixty or more after a colon`);
    return Number(hours ?? 0) * 3600 + Number(minutes) * 60 + Number(seconds);
  }
  const words =
    /^(?:(\d+(?:\.\d+)?)\s*h(?:ours?)?)?\s*(?:(\d+(?:\.\d+)?)\s*m(?:in(?:utes?)?)?)?\s*(?:(\d+(?:\.\d+)?)\s*(?:s(?:ec(?:onds?)?)?)?)?$/.exec(
      plain,
    );
  if (!words || plain === '') throw new QuantityError(`invalid duration: "${text}" is not like 11:46 or 12 min`);
  const [, hours, minutes, seconds] = words;
  return Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
}

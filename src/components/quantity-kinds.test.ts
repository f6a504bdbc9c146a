import { describe, expect, it } from 'vitest';
import { DEFAULT_LIKED_UNITS } from '../core/quantities/format';
import { QuantityError } from '../core/quantities/parse';
import { ACCELERATION, COUNT, LIGHTNESS, NANOMETRES, quantityKinds, WATTS } from './quantity-kinds';

describe('fields for quantities', () => {
  const inches = quantityKinds({ length: 'in', speed: 'mm/min', density: 'lines/cm' }, 40);
  it('take bare numbers in the liked unit and show them in it', () => {
    expect(inches.length.parse('0.5')).toBeCloseTo(12.7, 9);
    expect(inches.length.format(12.7)).toBe('0.5 in');
    expect(inches.speed.parse('600')).toBeCloseTo(10, 9);
    expect(inches.speed.format(10)).toBe('600 mm/min');
    expect(inches.interval.parse('100')).toBeCloseTo(0.1, 9);
    expect(inches.interval.format(0.1)).toBe('100 lines/cm');
  });
  it('take watts where the rated power is known', () => {
    expect(inches.power.parse('10 W')).toBeCloseTo(0.25, 9);
    expect(() => quantityKinds(DEFAULT_LIKED_UNITS).power.parse('10 W')).toThrow(QuantityError);
  });
  it.each([
    [WATTS, '55 W', 55],
    [WATTS, '5,5', 5.5],
    [NANOMETRES, '10600nm', 10600],
    [ACCELERATION, '3000 mm/s²', 3000],
    [COUNT, ' 7 ', 7],
    [LIGHTNESS, '62 L*', 62],
  ])('%# take their unit or none', (kind, text, value) => {
    expect(kind.parse(text)).toBe(value);
    expect(kind.parse(kind.format(value))).toBe(value);
  });
  it.each(['', 'many', 'NaN', '1e999', '5 parsecs'])('refuse "%s"', (text) => {
    for (const kind of [WATTS, COUNT, LIGHTNESS]) expect(() => kind.parse(text)).toThrow(QuantityError);
  });
});

import { describe, expect, it } from 'vitest';
import { AGES_AFTER_H, ageReasons, hoursSince } from './source-hours';

const burned = [
  { at: '2026-10-01T00:00:00.000Z', hours: 500 },
  { at: '2026-11-02T00:00:00.000Z', hours: 120 },
  { at: '2026-11-03T00:00:00.000Z', hours: 85 },
];

describe('hours that a source burned', () => {
  it('count from the day after a moment', () => {
    expect(hoursSince(burned, '2026-11-01T12:00:00.000Z')).toBe(205);
    expect(hoursSince(burned, '2026-11-02T12:00:00.000Z')).toBe(85);
    expect(hoursSince([], '2026-11-02T12:00:00.000Z')).toBe(0);
  });
  it('make doubtful what was found before, where the source ages by them', () => {
    expect(ageReasons('co2-glass', burned, '2026-11-01T12:00:00.000Z')).toEqual(['its source has burned 205 h since']);
    expect(ageReasons('co2-glass', burned, '2026-11-02T12:00:00.000Z')).toEqual([]);
    expect(ageReasons('blue-diode', burned, '2026-11-01T12:00:00.000Z')).toEqual([]);
    expect(
      ageReasons('blue-diode', [{ at: '2026-11-02T00:00:00.000Z', hours: AGES_AFTER_H['blue-diode'] }], '2026-11-01'),
    ).toHaveLength(1);
  });
  it('age glass tubes soonest', () => {
    for (const hours of Object.values(AGES_AFTER_H)) expect(hours).toBeGreaterThanOrEqual(AGES_AFTER_H['co2-glass']);
  });
});

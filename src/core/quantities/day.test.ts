import { describe, expect, it } from 'vitest';
import { dayOf, minuteOf, momentOf } from './day';

// Tests run in a zone that is five hours and three quarters ahead of UTC, all the year (see vitest.config.ts).
describe('days by the workshop’s clock', () => {
  it('begin at its midnight, not at that of UTC', () => {
    expect(new Date('2026-05-01T12:00:00.000Z').getTimezoneOffset()).toBe(-345);
    expect(dayOf('2026-05-01T18:14:59.999Z')).toBe('2026-05-01');
    expect(dayOf('2026-05-01T18:15:00.000Z')).toBe('2026-05-02');
    expect(minuteOf('2025-12-31T18:15:59.000Z')).toBe('2026-01-01 00:00');
    expect(minuteOf('2026-05-01T10:07:00.000Z')).toBe('2026-05-01 15:52');
  });
  it('are noted of at their end, a thousandth of a second before the next one, and today now', () => {
    const now = '2026-05-01T18:20:00.000Z';
    expect(momentOf('2026-05-01', now)).toBe('2026-05-01T18:14:59.999Z');
    expect(momentOf('2026-05-02', now)).toBe(now);
  });
  it('are none of what is no moment or no day', () => {
    for (const wrong of ['', 'yesterday', '2026-13-01T00:00:00.000Z'])
      for (const read of [dayOf, minuteOf, (day: string) => momentOf(day, '2026-05-01T18:20:00.000Z')])
        expect(() => read(wrong)).toThrow(RangeError);
  });
});

import { expect, it } from 'vitest';
import { dashesAlong, standingShare } from './perforation';
import { tuples } from '../../../tests/support/tuples';

it('stands by what the kerf leaves of its skips', () => {
  expect(standingShare({ dashMm: 3, skipMm: 0.8, kerfMm: 0.2 })).toBeCloseTo(0.6 / 3.8, 12);
  expect(standingShare({ dashMm: 3, skipMm: 0.8, kerfMm: 0 })).toBeGreaterThan(
    standingShare({ dashMm: 4, skipMm: 0.8, kerfMm: 0 }),
  );
  expect(() => standingShare({ dashMm: 3, skipMm: 0.2, kerfMm: 0.2 })).toThrow('run into each other');
});

it('has whole dashes about the middle of its line, a skip apart, and shorter ones at its ends', () => {
  expect(dashesAlong(10, { dashMm: 3, skipMm: 1 })).toEqual(tuples([0, 0.5], [1.5, 4.5], [5.5, 8.5], [9.5, 10]));
  // Ends of less than a seventh of a dash are left out.
  expect(dashesAlong(9.4, { dashMm: 3, skipMm: 1 })).toHaveLength(2);
  expect(
    dashesAlong(2, { dashMm: 3, skipMm: 1 })
      .flat()
      .every((at) => at >= 0 && at <= 2),
  ).toBe(true);
  const long = dashesAlong(57, { dashMm: 2.2, skipMm: 0.7 });
  expect(long).toHaveLength(21);
  expect(long[0]![0]).toBeCloseTo(57 - long.at(-1)![1], 9);
});

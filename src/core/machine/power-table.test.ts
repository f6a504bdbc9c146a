import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { powerTableText, readPowerTable } from './power-table';

describe('a measured power table as it is typed', () => {
  it('takes pairs with and without signs, a comma as decimal point, and passes over empty lines', () => {
    const pair = { command: 0.2, watts: 10.5 };
    for (const text of ['20 % = 10.5 W', '20: 10,5', '  20%;10.5w ', '20 10.5\n\n'])
      expect(readPowerTable(text), text).toEqual([pair]);
    expect(readPowerTable('10 = 0\n100 % = 55 W')).toEqual([
      { command: 0.1, watts: 0 },
      { command: 1, watts: 55 },
    ]);
  });
  it('is no table where nothing is typed', () => {
    expect(readPowerTable(' \n ')).toBeNull();
    expect(powerTableText(null)).toBe('');
  });
  it('keeps a line that is no pair as one that cannot pass', () => {
    for (const text of ['twenty = 10 W', '20 %', '20 = 10 = 5', '-20 = 10'])
      expect(readPowerTable(`10 = 5\n${text}`)?.[1], text).toEqual({ command: NaN, watts: NaN });
  });
  it('comes back as it was written, to a tenth of a per cent', () => {
    const table = fc.array(
      fc.record({
        command: fc.integer({ min: 0, max: 1000 }).map((tenths) => tenths / 1000),
        watts: fc.integer({ min: 0, max: 2000 }).map((tenths) => tenths / 10),
      }),
      { minLength: 1 },
    );
    fc.assert(
      fc.property(table, (points) => {
        const read = readPowerTable(powerTableText(points))!;
        expect(read).toHaveLength(points.length);
        read.forEach(({ command, watts }, index) => {
          expect(command).toBeCloseTo(points[index]!.command, 12);
          expect(watts).toBe(points[index]!.watts);
        });
      }),
    );
  });
});

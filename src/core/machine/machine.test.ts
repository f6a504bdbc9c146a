import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { deliveredPowerW, sweepLimits } from './machine';
import { tuples } from '../../../tests/support/tuples';

const { machine } = demoPairing('heron', 'birch');
const measured = (...points: [number, number][]) => ({
  ...machine,
  lowestFiringCommand: 0.1,
  powerTable: points.map(([command, watts]) => ({ command, watts })),
});

describe('delivered power', () => {
  it('is a share of what is rated until somebody measured, and nothing below the firing command', () => {
    const plain = { ...machine, ratedPowerW: 10, lowestFiringCommand: 0.1, powerTable: null };
    expect([0, 0.099, 0.1, 0.5, 1].map((command) => deliveredPowerW(plain, command))).toEqual([0, 0, 1, 5, 10]);
    expect(deliveredPowerW({ ...plain, powerTable: [] }, 0.5)).toBe(5);
  });
  it('runs straight between the points of a table, from nothing to the first and level past the last', () => {
    // By hand: half of the way to 0.2 is 1 W; a quarter of the way from 0.2 to 0.6 is 2 + 1.5 W.
    const table = measured([0.2, 2], [0.6, 8]);
    for (const [command, watts] of tuples([0.1, 1], [0.2, 2], [0.3, 3.5], [0.6, 8], [0.9, 8], [1, 8]))
      expect(deliveredPowerW(table, command), String(command)).toBeCloseTo(watts, 12);
    expect(deliveredPowerW(table, 0.05)).toBe(0);
    // A table that begins at nothing has its first point there.
    const fromZero = { ...measured([0, 0.5], [1, 10.5]), lowestFiringCommand: 0 };
    expect([0, 0.5].map((command) => deliveredPowerW(fromZero, command))).toEqual([0.5, 5.5]);
    expect(deliveredPowerW(demoPairing('marl', 'slate').machine, 0.3)).toBeCloseTo(17.25, 9);
  });
  it.each([-0.01, 1.01, NaN])('is not told for a command of %f', (command) =>
    expect(() => deliveredPowerW(machine, command)).toThrow(`invalid command: ${command}`),
  );
});

describe('what a head can do', () => {
  it('is its x axis along horizontal lines and its y axis along vertical ones', () => {
    const own = {
      ...machine,
      topSpeedXMmPerS: 500,
      topSpeedYMmPerS: 300,
      accelerationXMmPerS2: 3000,
      accelerationYMmPerS2: 1000,
    };
    expect(sweepLimits(own, 'horizontal')).toEqual({ topSpeedMmPerS: 500, accelerationMmPerS2: 3000 });
    expect(sweepLimits(own, 'vertical')).toEqual({ topSpeedMmPerS: 300, accelerationMmPerS2: 1000 });
  });
});

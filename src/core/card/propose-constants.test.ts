import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import type { Machine } from '../machine/machine';
import { FAMILIES } from '../stock/families';
import { widthAcross } from './mark-across';
import { proposeConstants } from './propose-constants';
import { fastestUsefulMmPerS } from './useful-speed';

const MM_PER_INCH = 25.4;

/** A pairing of another source, spot and family than the demo has. */
function on(sourceKind: Machine['sourceKind'], spotMm: number, family: string, grain: 'none' | 'along-width' = 'none') {
  const { machine, lens, stock } = demoPairing('marl', 'mdf');
  return {
    machine: { ...machine, sourceKind },
    lens: { ...lens, spotXMm: spotMm, spotYMm: spotMm },
    stock: { ...stock, family, type: '', grain },
  };
}
const intervalOf = (pairing: ReturnType<typeof on>): number =>
  proposeConstants({ pairing, facts: [] }).constants.intervalMm;

describe('the interval to start from', () => {
  // Common practice: a fine diode marks wood wider than its spot, 190 to 290 lines per inch.
  it.each([0.05, 0.06, 0.08, 0.1])(
    'is 190 to 290 lines per inch on wood under a diode with a spot of %f mm',
    (spot) => {
      const perInch = MM_PER_INCH / intervalOf(on('blue-diode', spot, 'plywood'));
      expect(perInch).toBeGreaterThanOrEqual(190);
      expect(perInch).toBeLessThanOrEqual(290);
    },
  );
  // Common practice: coats and plastics mark no wider than the spot, nor does ultraviolet light; lines lie 0.8 to 1.2 marks apart.
  it.each([
    ['uv', 0.02, 'plywood'],
    ['uv', 0.02, 'two-layer'],
    ['fibre', 0.03, 'leatherette'],
    ['fibre', 0.04, 'two-layer'],
    ['co2-rf', 0.08, 'tile'],
    ['co2-rf', 0.12, 'acrylic-cast'],
    ['co2-glass', 0.2, 'coated-clear'],
  ] as const)('lies 0.8 to 1 marks apart under %s, %f mm, on %s', (source, spot, family) => {
    const marks = intervalOf(on(source, spot, family)) / spot;
    expect(marks).toBeGreaterThanOrEqual(0.79);
    expect(marks).toBeLessThanOrEqual(1 + 1e-9);
  });
  it('leaves no unlit gap on any stock under any source', () => {
    for (const { id } of FAMILIES)
      for (const source of ['blue-diode', 'co2-glass', 'co2-rf', 'fibre', 'uv'] as const)
        for (const spot of [0.015, 0.0234, 0.03, 0.0432, 0.05, 0.0618, 0.08, 0.113, 0.13, 0.2, 0.35]) {
          const pairing = on(source, spot, id);
          const { constants, reasons } = proposeConstants({ pairing, facts: [] });
          const { markMm } = widthAcross(pairing, constants.direction);
          expect(constants.intervalMm, `${id} ${source} ${spot}`).toBeLessThanOrEqual(markMm + 1e-9);
          expect(constants.intervalMm).toBeGreaterThan(0.3 * spot);
          expect(reasons['constants.intervalMm']).toMatch(/usual for|spot/);
        }
  });
  it('goes by the spot across the lines, not along them', () => {
    const pairing = on('blue-diode', 0.05, 'two-layer');
    const oblong = { ...pairing, lens: { ...pairing.lens, spotXMm: 0.3 } };
    expect(intervalOf(oblong)).toBe(intervalOf(pairing));
    const turned = on('blue-diode', 0.05, 'plywood', 'along-width');
    // Lines along Y: now the spot along X is across them.
    const { machine } = turned;
    const quick = { ...turned, machine: { ...machine, accelerationYMmPerS2: machine.accelerationXMmPerS2 } };
    expect(intervalOf({ ...quick, lens: { ...quick.lens, spotXMm: 0.3 } })).toBeGreaterThan(2 * intervalOf(quick));
  });
});

describe('the fastest speed that still pays', () => {
  it('is the one past which a fill of usual lines gets slower again, or the top of the axis', () => {
    const { machine } = demoPairing('marl', 'mdf');
    // By hand: sqrt(40 mm * 3000 mm/s² / 2) = 244.95 mm/s.
    expect(fastestUsefulMmPerS({ ...machine, accelerationXMmPerS2: 3000 }, 'horizontal')).toBeCloseTo(244.949, 2);
    expect(fastestUsefulMmPerS({ ...machine, accelerationXMmPerS2: 1e6 }, 'horizontal')).toBe(machine.topSpeedXMmPerS);
    // A fill of such lines by L/v + 2v/a: slower on either side.
    const time = (v: number) => 40 / v + (2 * v) / 3000;
    expect(time(244.949 * 1.1)).toBeGreaterThan(time(244.949));
    expect(time(244.949 / 1.1)).toBeGreaterThan(time(244.949));
  });
});

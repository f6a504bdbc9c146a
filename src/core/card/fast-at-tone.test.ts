import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { deliveredPowerW } from '../machine/machine';
import { responseOf } from '../stock/response';
import { clearMark, fastAtTone, middleTone } from './fast-at-tone';
import { fastestUsefulMmPerS } from './useful-speed';

const fill = { intervalMm: 0.1, direction: 'horizontal' } as const;

describe('the fastest at a tone', () => {
  it('lays down what it is asked for, as half way between a faint mark and the deepest, where power does not reach the fastest that pays', () => {
    const pairing = demoPairing('heron', 'birch');
    const { machine, stock } = pairing;
    const { speedMmPerS, powerFraction, useful } = fastAtTone(pairing, fill, middleTone(pairing));
    const { faint, deep } = responseOf(stock, machine).energies;
    const energy = deliveredPowerW(machine, powerFraction) / speedMmPerS / fill.intervalMm;
    expect(Math.log(energy / faint) / Math.log(deep / energy)).toBeCloseTo(1, 1);
    expect(powerFraction).toBeGreaterThan(0.95 * machine.powerCap);
    expect(speedMmPerS).toBeLessThan(useful);
    expect(useful).toBe(fastestUsefulMmPerS(machine, 'horizontal'));
  });
  it('marks clearly with half of the energy past which nothing gets darker', () => {
    const pairing = demoPairing('heron', 'birch');
    expect(clearMark(pairing)).toBe(responseOf(pairing.stock, pairing.machine).energies.deep / 2);
    const { speedMmPerS, powerFraction } = fastAtTone(pairing, fill, clearMark(pairing));
    const energy = deliveredPowerW(pairing.machine, powerFraction) / speedMmPerS / fill.intervalMm;
    expect(energy / clearMark(pairing)).toBeCloseTo(1, 1);
  });
  it('is the fastest that pays where power is plenty, with no less than fires', () => {
    const pairing = demoPairing('marl', 'mdf');
    const strong = {
      ...pairing,
      machine: { ...pairing.machine, ratedPowerW: 900, powerTable: null, lowestFiringCommand: 0.2 },
    };
    const { speedMmPerS, powerFraction, useful } = fastAtTone(strong, fill, middleTone(strong));
    expect(speedMmPerS).toBe(Math.floor(useful));
    expect(powerFraction).toBeCloseTo(0.22, 9);
  });
});

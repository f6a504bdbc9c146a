import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { deliveredPowerW } from '../machine/machine';
import { responseOf } from '../stock/response';
import { fastAtMiddleTone } from './middle-tone';
import { fastestUsefulMmPerS } from './useful-speed';

const fill = { intervalMm: 0.1, direction: 'horizontal' } as const;

describe('the fastest at a middle tone', () => {
  it('lays half way, by ratio, between a faint mark and the deepest, where power does not reach the fastest that pays', () => {
    const pairing = demoPairing('heron', 'birch');
    const { machine, stock } = pairing;
    const { speedMmPerS, powerFraction, useful } = fastAtMiddleTone(pairing, fill);
    const { faint, deep } = responseOf(stock, machine).energies;
    const energy = deliveredPowerW(machine, powerFraction) / speedMmPerS / fill.intervalMm;
    expect(Math.log(energy / faint) / Math.log(deep / energy)).toBeCloseTo(1, 1);
    expect(powerFraction).toBeGreaterThan(0.95 * machine.powerCap);
    expect(speedMmPerS).toBeLessThan(useful);
    expect(useful).toBe(fastestUsefulMmPerS(machine, 'horizontal'));
  });
  it('is the fastest that pays where power is plenty, with no less than fires', () => {
    const pairing = demoPairing('marl', 'mdf');
    const strong = { ...pairing, machine: { ...pairing.machine, ratedPowerW: 900, powerTable: null, lowestFiringCommand: 0.2 } }; // prettier-ignore
    const { speedMmPerS, powerFraction, useful } = fastAtMiddleTone(strong, fill);
    expect(speedMmPerS).toBe(Math.floor(useful));
    expect(powerFraction).toBeCloseTo(0.22, 9);
  });
});

import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { commandFor } from './command';

const { machine } = demoPairing('marl', 'alder');
const plain = { ...machine, powerTable: null, ratedPowerW: 40, lowestFiringCommand: 0.1 };

describe('the command for a power', () => {
  it('is its share of the rated power where no table was measured', () => {
    for (const watts of [4, 10, 33.3, 40]) expect(commandFor(plain, watts)).toBeCloseTo(watts / 40, 6);
  });
  it('is the lowest that fires for less than that gives', () => expect(commandFor(plain, 1)).toBeCloseTo(0.1, 6));
  it('is all there is for more than the machine has', () => expect(commandFor(plain, 99)).toBe(1));
  it('is read off the table by straight lines', () => {
    // Marl's points: 20 % give 10.5 W, 40 % give 24 W.
    expect(commandFor(machine, 10.5)).toBeCloseTo(0.2, 6);
    expect(commandFor(machine, (10.5 + 24) / 2)).toBeCloseTo(0.3, 6);
  });
});

import { describe, expect, it } from 'vitest';
import { meanAndSpread } from '../core/stats/robust';
import { specimenOf, takenBy } from './specimens';

const MDF = { family: 'mdf', type: 'MDF' };

describe('sheets of one stock', () => {
  it('take as much of the light as their batch does, the same each time, a few hundredths more or less than another', () => {
    expect([undefined, '', 'M-22'].map((batch) => takenBy(batch === undefined ? MDF : { ...MDF, batch }))).toEqual([
      1, 1, 1,
    ]);
    const logs = Array.from({ length: 2000 }, (_, k) => Math.log(takenBy({ ...MDF, batch: `lot ${k}` })));
    const { mean, spread } = meanAndSpread(logs);
    expect(mean).toBeCloseTo(0, 2);
    expect(spread).toBeCloseTo(0.06, 2);
    const sheet = { family: 'leatherette', type: 'brown', batch: 'roll 9' };
    const [usual, other] = [specimenOf({ ...sheet, batch: '' }), specimenOf(sheet)];
    expect(takenBy(sheet)).not.toBe(1);
    expect(other.takes.far / usual.takes.far).toBeCloseTo(takenBy(sheet), 12);
    expect(other.below!.near! / usual.below!.near!).toBeCloseTo(takenBy(sheet), 12);
    expect({ ...other, takes: null, below: null }).toEqual({ ...usual, takes: null, below: null });
  });
  it('are made of what their family is, and of nothing that the bench has none of', () => {
    expect(() => specimenOf({ family: 'granite', type: 'grey' })).toThrow(/unknown specimen/);
  });
});

import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { checkBed } from './check';
import { burnOrder, type OrderedCell } from './order';

const { machine, lens } = demoPairing('heron', 'birch');
const on = { machine: { ...machine, head: 'gantry' as const, bedWidthMm: 200, bedDepthMm: 100 }, lens };
const reach = { left: -5, top: -2, right: 45, bottom: 33 };

describe('whether a head stays over its bed', () => {
  it('counts what it reaches beyond the card, on each side for itself', () => {
    // By hand: 200 wide and 100 deep, reached from -5 to 45 and from -2 to 33 of the card's corner.
    expect(checkBed(reach, on, { leftMm: 5, rearMm: 2 })).toEqual({
      inside: true,
      beyondMm: { left: 0, right: 0, rear: 0, front: 0 },
    });
    expect(checkBed(reach, on, { leftMm: 155, rearMm: 67 }).inside).toBe(true);
    expect(checkBed(reach, on, { leftMm: 4, rearMm: 2 })).toEqual({
      inside: false,
      beyondMm: { left: 1, right: 0, rear: 0, front: 0 },
    });
    expect(checkBed(reach, on, { leftMm: 157.5, rearMm: 2 }).beyondMm).toEqual({
      left: 0,
      right: 2.5,
      rear: 0,
      front: 0,
    });
    expect(checkBed(reach, on, { leftMm: 5, rearMm: 0 }).beyondMm).toEqual({ left: 0, right: 0, rear: 2, front: 0 });
    expect(checkBed(reach, on, { leftMm: 5, rearMm: 70 }).beyondMm).toEqual({ left: 0, right: 0, rear: 0, front: 3 });
  });
  it('ends where a galvo lens’s field does, square in the middle of the bed', () => {
    const galvo = { machine: { ...on.machine, head: 'galvo' as const }, lens: { ...lens, fieldMm: 80 } };
    // The field spans 60 to 140 and 10 to 90.
    expect(checkBed(reach, galvo, { leftMm: 65, rearMm: 12 }).inside).toBe(true);
    expect(checkBed(reach, galvo, { leftMm: 95, rearMm: 57 }).inside).toBe(true);
    expect(checkBed(reach, galvo, { leftMm: 64, rearMm: 11 }).beyondMm).toEqual({
      left: 1,
      right: 0,
      rear: 1,
      front: 0,
    });
    expect(checkBed(reach, galvo, { leftMm: 96, rearMm: 58 }).beyondMm).toEqual({
      left: 0,
      right: 1,
      rear: 0,
      front: 1,
    });
    // A field larger than the bed takes nothing from it, and a gantry's lens has none.
    expect(checkBed(reach, { ...galvo, lens: { ...lens, fieldMm: 300 } }, { leftMm: 5, rearMm: 2 }).inside).toBe(true);
    expect(checkBed(reach, { ...on, lens: { ...lens, fieldMm: 80 } }, { leftMm: 5, rearMm: 2 }).inside).toBe(true);
  });
});

describe('the order of cells', () => {
  const row = (risks: readonly number[], groups: readonly string[] = []): OrderedCell[] =>
    risks.map((risk, index) => ({
      index,
      risk,
      box: { x: index * 6, y: 0, width: 5, height: 5 },
      ...(groups[index] === undefined ? {} : { group: groups[index] }),
    }));
  it('of a row of five, by hand: the riskiest last, before it the riskiest that is no neighbour, and so on', () => {
    // Backwards: 4 (risk 5), then 2 (risk 3), then 0 (risk 1); 3 and 1 are left, 1 stands by 4, 3 by 0.
    const order = burnOrder(row([1, 2, 3, 4, 5]));
    expect(order.at(-1)).toBe(4);
    expect(order.at(-2)).toBe(2);
    expect([...order].sort()).toEqual([0, 1, 2, 3, 4]);
    order.slice(1).forEach((index, place) => expect(Math.abs(index - order[place]!)).toBeGreaterThan(1));
  });
  it('keeps neighbours apart in rows of every length from four', () => {
    for (let count = 4; count <= 14; count++) {
      const order = burnOrder(row(Array.from({ length: count }, (_, index) => (index * 7) % count)));
      expect(order).toHaveLength(count);
      order
        .slice(1)
        .forEach((index, place) => expect(Math.abs(index - order[place]!), String(count)).toBeGreaterThan(1));
    }
  });
  it('is by risk alone where every cell is a neighbour of every other', () => {
    expect(burnOrder(row([3, 1]))).toEqual([1, 0]);
    expect(burnOrder(row([1, 3]))).toEqual([0, 1]);
    expect(burnOrder(row([2, 3, 1]))).toEqual([2, 0, 1]);
  });
  it('burns groups by the riskiest cell of each, and of equal ones the one that comes first on the card', () => {
    const spread = [5, 1, 1, 9, 1, 1, 2, 1];
    const groups = ['b', 'a', 'c', 'a', 'b', 'c', 'c', 'a'];
    const order = burnOrder(row(spread, groups)).map((index) => groups[index]);
    expect(order.filter((group, place) => group !== order[place - 1])).toEqual(['c', 'b', 'a']);
    const equal = burnOrder(row([4, 4, 4, 4], ['y', 'x', 'y', 'x'])).map((index) => ['y', 'x', 'y', 'x'][index]);
    expect(equal).toEqual(['y', 'y', 'x', 'x']);
  });
});

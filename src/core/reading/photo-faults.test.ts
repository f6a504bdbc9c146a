import { describe, expect, it } from 'vitest';
import { cellOf, layoutOf } from '../../../tests/support/bare-layout';
import { readingOf } from '../../../stand-ins/made-up-reading';
import type { Burn } from '../card/shape';
import type { PhotoContext } from './photo-context';
import { photoFaults } from './photo-faults';
import { points } from '../../../tests/support/points';
import { listed } from '../../../tests/support/listed';

/** Four cells of 4 by 4 mm with a millimetre between them, on a card of 11 by 11. */
const CORNERS = points([1, 1], [6, 1], [1, 6], [6, 6]);
const cells = CORNERS.map(({ x, y }, index) => cellOf(index, {} as Burn, { box: { x, y, width: 4, height: 4 } }));
const layout = layoutOf(cells, { widthMm: 11, heightMm: 11 });
const context = (field: object, change: object = {}): PhotoContext =>
  ({
    field: { clippedShare: 0, clippedAt: [], shadow: null, smoke: null, at: () => [0.5, 0.5, 0.5], ...field },
    stockLinear: [0.5, 0.5, 0.5],
    photoPxPerMm: 20,
    frameErrorMm: 0.1,
    lightIsTold: false,
    ...change,
  }) as unknown as PhotoContext;
const faultsOf = (field: object, change: object = {}, added: Parameters<typeof photoFaults>[1] = null) =>
  photoFaults(context(field, change), added, layout, []);
const shadow = (through: { x: number; y: number }, along: { x: number; y: number }, leaves = 0.4) =>
  faultsOf({ shadow: { through, along, leaves } })[0];

describe('the faults of a photo', () => {
  it('are none of a plain one, and of the whole photo where markers lie off, it is far, dark or sooty', () => {
    expect(faultsOf({})).toEqual([]);
    const whole = { area: null, line: null, cells: [] };
    expect(faultsOf({}, { frameErrorMm: 0.5 })).toEqual([{ fault: 'not-flat', amount: 0.5, ...whole }]);
    expect(faultsOf({}, { photoPxPerMm: 7 })).toEqual([{ fault: 'too-far', amount: 7, ...whole }]);
    // An eighth of white: three stops.
    expect(faultsOf({ at: () => [0.0625, 0.0625, 0.0625] })).toEqual([
      { fault: 'too-dark', amount: expect.closeTo(3, 9), ...whole },
    ]);
    expect(faultsOf({ smoke: { takes: 0.05 } })).toEqual([{ fault: 'smoke', amount: 0.05, ...whole }]);
    expect(faultsOf({ smoke: { takes: 0.02 } })).toEqual([]);
    // The bounds themselves are none yet.
    expect(faultsOf({ smoke: { takes: 0.03 } }, { frameErrorMm: 0.4, photoPxPerMm: 8 })).toEqual([]);
    const stops = 2 ** -2.5;
    expect(faultsOf({ at: () => [stops / 2, stops / 2, stops / 2] }, { stockLinear: [0.5, 0.5, 0.5] })).toEqual([]);
    // It is as bright as its brightest part.
    const corner = (x: number, y: number) => (x > 8 && y > 8 ? [0.4, 0.4, 0.4] : [0.01, 0.01, 0.01]);
    expect(faultsOf({ at: corner })).toEqual([]);
  });
  it('are told worst first', () => {
    const all = faultsOf(
      {
        clippedShare: 0.5,
        smoke: { takes: 0.2 },
        shadow: { through: { x: 5, y: 5 }, along: { x: 1, y: 0 }, leaves: 0.5 },
      },
      { frameErrorMm: 1, photoPxPerMm: 4 },
      { range: 0.1, at: () => 0.1 } as never,
    );
    expect(all.map(({ fault }) => fault)).toEqual(listed('not-flat; overexposed; reflection; too-far; shadow; smoke'));
  });
});

describe('a shadow’s edge', () => {
  it('goes from border to border of the card, whichever way it lies', () => {
    expect(shadow({ x: 3, y: 5 }, { x: 0, y: 1 })!.line).toEqual(points([3, 0], [3, 11]));
    expect(shadow({ x: 3, y: 5 }, { x: -2, y: 0 })!.line).toEqual(points([11, 5], [0, 5]));
    expect(shadow({ x: 0, y: 2 }, { x: 1, y: 1 })!.line).toEqual(points([0, 2], [9, 11]));
    // Beside the card it has no line on it, along a border or aslant.
    expect(shadow({ x: 12, y: 5 }, { x: 0, y: 1 })!.line).toBeNull();
    expect(shadow({ x: 5, y: -1 }, { x: 1, y: 0 })!.line).toBeNull();
    expect(shadow({ x: 0, y: 12 }, { x: 1, y: 1 })!.line).toBeNull();
  });
  it('lies on the cells that it crosses, and is worth a word where it takes a tenth', () => {
    expect(shadow({ x: 3, y: 5 }, { x: 0, y: 1 })!.cells).toEqual([0, 2]);
    expect(shadow({ x: 5.5, y: 5 }, { x: 0, y: 1 })!.cells).toEqual([]);
    expect(shadow({ x: 0, y: 0 }, { x: 1, y: 1 })!.cells).toEqual([0, 3]);
    expect(shadow({ x: 3, y: 3 }, { x: -2, y: 0 })!.cells).toEqual([0, 1]);
    expect(shadow({ x: 0, y: 4 }, { x: 2, y: 1 })!.cells).toEqual([0, 2, 3]);
    expect(shadow({ x: 0, y: 5.5 }, { x: 1, y: 0 })!.cells).toEqual([]);
    expect(shadow({ x: 3, y: 5 }, { x: 0, y: 1 }, 0.89)!.amount).toBe(0.89);
    expect(shadow({ x: 3, y: 5 }, { x: 0, y: 1 }, 0.91)).toBeUndefined();
  });
});

describe('bare stock that is overexposed', () => {
  const spots = Array.from({ length: 25 }, (_, at) => ({ x: 0.5 + (at % 5), y: 0.5 + Math.floor(at / 5) }));
  it('is where it is clipped, with the cells that stand in it', () => {
    const [fault] = faultsOf({ clippedShare: 0.3, clippedAt: spots });
    expect(fault).toMatchObject({ fault: 'overexposed', amount: 0.3, cells: [0] });
    // All but a fiftieth at either end.
    expect(fault!.area!.x).toBeCloseTo(0.5, 9);
    expect(fault!.area!.width).toBeCloseTo(4, 9);
    expect(fault!.area!.height).toBeCloseTo(4, 9);
    const many = Array.from({ length: 200 }, (_, at) => ({ x: 0.05 * at, y: 0.03 * at }));
    const { area } = faultsOf({ clippedShare: 0.3, clippedAt: many })[0]!;
    expect([area!.x, area!.y, area!.width, area!.height].map((mm) => Math.round(1000 * mm))).toEqual([
      199, 119, 9552, 5731,
    ]);
    // Five of them are near the second cell, and that is none yet.
    const five = spots.slice(0, 5).map(({ y }, at) => ({ x: 10.5, y: y + at }));
    expect(faultsOf({ clippedShare: 0.3, clippedAt: five })[0]!.cells).toEqual([]);
    expect(faultsOf({ clippedShare: 0.3, clippedAt: [...five, { x: 10.9, y: 1 }] })[0]!.cells).toEqual([1]);
    expect(faultsOf({ clippedShare: 0.3 })[0]!.area).toBeNull();
  });
  it('is not said of little, nor where something else tells the light', () => {
    expect(faultsOf({ clippedShare: 0.02, clippedAt: spots })).toEqual([]);
    expect(faultsOf({ clippedShare: 0.9, clippedAt: spots }, { lightIsTold: true })).toEqual([]);
  });
});

describe('a reflection', () => {
  const lamp = (range: number, at: (x: number, y: number) => number) => faultsOf({}, {}, { range, at } as never);
  it('is as much as it adds at the most, and lies where it adds a third of that', () => {
    const [fault] = lamp(0.1, (x) => (x < 4 ? 0.2 : x < 5 ? 0.071 : 0.069));
    expect(fault).toMatchObject({ fault: 'reflection', amount: 0.2, cells: [0, 2] });
    // Squares of a millimetre, by their middles.
    expect(fault!.area).toEqual({ x: 0, y: 0, width: 5, height: 11 });
    expect(lamp(0.019, () => 1)).toEqual([]);
    expect(lamp(0.02, (_, y) => (y > 6 ? 1 : 0))[0]!.cells).toEqual([2, 3]);
  });
});

describe('blur', () => {
  /** Burned cells whose left and upper edges run evenly over so many mm. */
  const blurred = (wideMm: number, highMm = wideMm) => {
    const burned = (mm: number, wide: number): number =>
      [1, 6].reduce(
        (most, from) => Math.max(most, mm < from + 4 ? Math.min(1, Math.max(0, (mm - from) / wide + 0.5)) : 0),
        0,
      );
    const data = Float32Array.from({ length: 110 * 110 * 3 }, (_, at) => {
      const pixel = Math.floor(at / 3);
      return (
        0.5 - 0.4 * burned(((pixel % 110) + 0.5) / 10, wideMm) * burned((Math.floor(pixel / 110) + 0.5) / 10, highMm)
      );
    });
    return context(
      {},
      { rectified: { width: 110, height: 110, pxPerMm: 10, data, clipped: new Uint8Array(110 * 110) } },
    );
  };
  const read = (indexes: readonly number[], deltaLightness = -30) =>
    indexes.map((index) => ({ ...readingOf(index), deltaLightness }));
  const faults = (of: PhotoContext, readings: ReturnType<typeof read>) =>
    photoFaults(of, null, layout, readings).map(({ fault, amount }) => [fault, Math.round(100 * amount)]);
  it('is told by four strong cells, in the direction that is blurred more', () => {
    expect(faults(blurred(0.6), read([0, 1, 2, 3]))).toEqual([['out-of-focus', 48]]);
    for (const of of [blurred(0.6, 0.1), blurred(0.1, 0.6)])
      expect(faults(of, read([0, 1, 2, 3]))).toEqual([['out-of-focus', 48]]);
    expect(faults(blurred(0.3), read([0, 1, 2, 3]))).toEqual([]);
    expect(faults(blurred(0.6), read([0, 1, 2]))).toEqual([]);
    expect(faults(blurred(0.6), read([0, 1, 2, 3], -11))).toEqual([]);
    expect(faults(blurred(0.6), read([0, 1, 2, 3], 12))).toEqual([['out-of-focus', 48]]);
  });
});

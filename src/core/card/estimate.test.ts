import { PLACE } from '../../../stand-ins/burn';
import { programOfCard } from '../../formats/gcode';
import { beforeEach, describe, expect, it } from 'vitest';
import { focus } from '../../cards/focus';
import { grid } from '../../cards/grid';
import { demoPairing } from '../../../stand-ins/demo';
import { UNTIMED } from '../motion/pace';
import { beyond, estimateCard, movesOf, wayOf } from './estimate';
import { layCard } from './lay';
import { mainBurn, type Layout } from './layout';
import type { PathStep } from './path';

const pairing = demoPairing('heron', 'birch');
const { machine } = pairing;
const proposed = grid.propose({ pairing, facts: [] }).plan;
let layout: Layout;
let strip: Layout;
beforeEach(() => {
  layout = layCard(grid, proposed, pairing, { cardNumber: 7 });
  strip = layCard(focus, focus.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 7 });
});

describe('the way beyond a line’s end', () => {
  it('goes on straight, by so many mm', () => {
    expect(beyond({ x: 0, y: 0 }, { x: 3, y: 4 }, 5)).toEqual({ x: 6, y: 8 });
    expect(beyond({ x: 3, y: 4 }, { x: 0, y: 0 }, 2.5)).toEqual({ x: -1.5, y: -2 });
  });
  it('is none where there is no line, or nothing to go', () => {
    expect(beyond({ x: 1, y: 1 }, { x: 1, y: 1 }, 9)).toEqual({ x: 1, y: 1 });
    expect(beyond({ x: 0, y: 0 }, { x: 1, y: 0 }, 0)).toEqual({ x: 1, y: 0 });
  });
  it('lies before the first and after the last point of what is followed', () => {
    const points = [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 4, y: 4 },
    ];
    const stroke = { step: 'stroke', points, runUpMm: 2, powerFraction: 1, speedMmPerS: 10 } as const;
    expect(wayOf(stroke)).toEqual([{ x: -2, y: 0 }, ...points, { x: 4, y: 6 }]);
    expect(wayOf({ ...stroke, runUpMm: 0 })).toEqual(points);
    expect(wayOf({ ...stroke, points: points.slice(0, 1) })).toEqual(points.slice(0, 1));
    const stop = { step: 'stop' } as unknown as PathStep;
    expect(wayOf(stop)).toEqual([]);
    expect(movesOf(stop, machine)).toBe(0);
  });
});

describe('the estimate of a card', () => {
  it('is its frame and its cells, and nothing besides', () => {
    const { totalS, frameS, cellsS } = estimateCard(layout, machine);
    expect(totalS).toBeCloseTo(frameS + cellsS.reduce((sum, s) => sum + s, 0), 9);
    const alone = estimateCard(layout, machine, { cells: [], frame: true });
    expect(alone.totalS).toBeCloseTo(frameS, 9);
    expect(alone.cellsS.every((s) => s === 0)).toBe(true);
  });
  it('counts the cells that are asked for', () => {
    const some = layout.order.slice(0, 3);
    const { cellsS, frameS } = estimateCard(layout, machine, { cells: some, frame: false });
    expect(frameS).toBe(0);
    cellsS.forEach((s, index) => expect(s > 0, `cell ${index}`).toBe(some.includes(index)));
  });
  it('grows by the machine’s own pace: all by one factor, each line by its overhead', () => {
    const plain = estimateCard(layout, machine);
    const twice = estimateCard(layout, machine, null, { ...UNTIMED, scale: 2 });
    expect(twice.totalS).toBeCloseTo(2 * plain.totalS, 9);
    expect(twice.frameS).toBeCloseTo(2 * plain.frameS, 9);
    for (const on of [machine, { ...machine, addsRunUp: true }]) {
      // All moves of the program but for the last, out of the way.
      const moves = programOfCard(layout, on, PLACE).text.match(/^G[01] X/gm)!.length - 1;
      const shares = { ...UNTIMED.shares, lineOverheadS: 0.01 };
      const slow = estimateCard(layout, on, null, { ...UNTIMED, shares });
      expect(slow.totalS - estimateCard(layout, on).totalS).toBeCloseTo(0.01 * moves, 6);
    }
  });
  it('counts the stops at which a hand sets the focus, and none where a motor does', () => {
    const offsets = new Set(strip.cells.map(({ levels }) => levels.focus));
    // One for each offset but the one that the frame was burned at, and one more where the order comes back to it.
    expect(offsets.size).toBeGreaterThan(2);
    const byHand = estimateCard(strip, { ...machine, automaticFocus: false }).handStops;
    expect(byHand).toBeGreaterThanOrEqual(offsets.size - 1);
    expect(byHand).toBeLessThanOrEqual(offsets.size + 1);
    expect(estimateCard(strip, { ...machine, automaticFocus: true }).handStops).toBe(0);
    expect(estimateCard(layout, { ...machine, automaticFocus: false }).handStops).toBe(0);
  });
  it('reaches over the card and the run-up of its outermost lines, along them', () => {
    const runUpMm = 12;
    const { direction } = proposed.constants;
    const long = layCard(grid, { ...proposed, constants: { ...proposed.constants, runUpMm } }, pairing, {
      cardNumber: 7,
    });
    const { reach } = estimateCard(long, machine);
    const boxes = long.order.map((index) => long.cells[index]!.box);
    const [from, to, least, most] =
      direction === 'vertical'
        ? ([
            reach.top,
            reach.bottom,
            Math.min(...boxes.map(({ y }) => y)),
            Math.max(...boxes.map(({ y, height }) => y + height)),
          ] as const)
        : ([
            reach.left,
            reach.right,
            Math.min(...boxes.map(({ x }) => x)),
            Math.max(...boxes.map(({ x, width }) => x + width)),
          ] as const);
    expect(from).toBeCloseTo(least - runUpMm, 6);
    expect(to).toBeCloseTo(most + runUpMm, 6);
    const galvo = demoPairing('tern', 'twoLayer');
    const card = layCard(grid, grid.propose({ pairing: galvo, facts: [] }).plan, galvo, { cardNumber: 7 });
    const mirrors = estimateCard(card, galvo.machine).reach;
    expect(mirrors).toMatchObject({ left: 0, top: 0 });
    expect(mirrors.right).toBeCloseTo(card.widthMm, 9);
    expect(mirrors.bottom).toBeCloseTo(card.heightMm, 9);
  });
  it('counts cells that are left out as nothing', () => {
    const power = { ...proposed.across, from: 0.02 };
    const cut = layCard(grid, { ...proposed, across: power, leaveOutFailing: true }, pairing, { cardNumber: 7 });
    const { cellsS } = estimateCard(cut, machine);
    expect(cut.cells.some(({ leftOut }) => leftOut)).toBe(true);
    for (const { index, leftOut } of cut.cells) expect(cellsS[index]! > 0, `cell ${index}`).toBe(!leftOut);
  });
});

describe('the estimate of cells that are filled each by itself', () => {
  const on = demoPairing('marl', 'mdf').machine;
  const four = (constants: object = {}): Layout =>
    layCard(
      grid,
      {
        ...proposed,
        cellMm: 4,
        leaveOutFailing: false,
        sweeps: 'cells',
        across: { channel: 'power', from: 0.2, to: 0.4, count: 2, spacing: 'even' },
        down: { channel: 'speed', from: 100, to: 200, count: 2, spacing: 'even' },
        constants: { ...proposed.constants, intervalMm: 0.1, bothWays: true, direction: 'horizontal', ...constants },
      },
      demoPairing('marl', 'mdf'),
      { cardNumber: 9 },
    );
  it('is for each what its lines, ramps and steps take', () => {
    const cells = four();
    // By hand: 40 lines of 4 mm at 200 mm/s, ramps 2 v/a outside the mark, 39 steps of 0.1 mm from rest to rest.
    const lines = 40 * (4 / 200 + (2 * 200) / on.accelerationXMmPerS2);
    const steps = 39 * 2 * Math.sqrt(0.1 / on.accelerationYMmPerS2);
    const fast = cells.cells.find((cell) => mainBurn(cell).settings.speedMmPerS === 200)!;
    // Travel to the cell comes on top: at most a card's diagonal.
    const travelS = estimateCard(cells, on).cellsS[fast.index]! - lines - steps;
    expect(travelS).toBeGreaterThan(0);
    expect(travelS).toBeLessThan(0.4);
  });
  it('doubles with the passes and takes longer one way, as the trade has it: both ways about halves a fill', () => {
    const timeS = (constants: object): number =>
      estimateCard(four(constants), on).cellsS.reduce((sum, s) => sum + s, 0);
    expect(timeS({ passes: 2 }) / timeS({})).toBeCloseTo(2, 1);
    expect(timeS({ bothWays: false }) / timeS({})).toBeGreaterThan(1.4);
    expect(timeS({ bothWays: false }) / timeS({})).toBeLessThan(2.1);
  });
});

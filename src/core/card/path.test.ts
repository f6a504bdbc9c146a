import { beforeEach, describe, expect, it } from 'vitest';
import { grid } from '../../cards/grid';
import type { GridPlan } from '../../cards/grid/plan';
import { demoPairing } from '../../../stand-ins/demo';
import { runUpMm } from '../motion/move';
import { estimateCard } from './estimate';
import { layCard } from './lay';
import type { Layout } from './layout';
import { mainBurn } from './layout';
import { MARKER_MODULES, markerModules } from './markers';
import { cardPath, fillRegion, fillTogether, type Sweep } from './path';
import { rectRing, type Region } from './shape';
import { points } from '../../../tests/support/points';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('marl', 'mdf');
const { machine } = pairing;
const proposed = grid.propose({ pairing, facts: [] }).plan;
const plan: GridPlan = {
  ...proposed,
  cellMm: 4,
  leaveOutFailing: false,
  sweeps: 'cells',
  across: { channel: 'power', from: 0.2, to: 0.4, count: 2, spacing: 'even' },
  down: { channel: 'speed', from: 100, to: 200, count: 2, spacing: 'even' },
  constants: { ...proposed.constants, intervalMm: 0.1, passes: 1, bothWays: true, direction: 'horizontal' },
};
const lay = (change: Partial<GridPlan['constants']> = {}) =>
  layCard(grid, { ...plan, constants: { ...plan.constants, ...change } }, pairing, { cardNumber: 9 });
const sweepsOfCell = (layout: Layout, index: number): Sweep[] => {
  const found: Sweep[] = [];
  let now: number | undefined;
  for (const step of cardPath(layout, machine)) {
    if (step.step === 'part') now = step.cells[0];
    else if (step.step === 'sweep' && now === index) found.push(step);
  }
  return found;
};

describe('the path over a cell', () => {
  let layout: Layout;
  let sweeps: Sweep[];
  let cell: Layout['cells'][number];
  beforeEach(() => {
    layout = lay();
    sweeps = sweepsOfCell(layout, 0);
    cell = layout.cells[0]!;
  });
  it('is one line for each interval, centred, to and fro, with run-up for its speed', () => {
    expect(sweeps).toHaveLength(40);
    expect(sweeps[0]!.from.y - cell.box.y).toBeCloseTo(cell.box.y + cell.box.height - sweeps.at(-1)!.from.y, 9);
    sweeps.slice(1).forEach((sweep, index) => {
      expect(sweep.from.y - sweeps[index]!.from.y).toBeCloseTo(0.1, 9);
      expect(Math.sign(sweep.to.x - sweep.from.x)).toBe(-Math.sign(sweeps[index]!.to.x - sweeps[index]!.from.x));
    });
    for (const sweep of sweeps) expect(sweep.runUpMm).toBeCloseTo(runUpMm(200, machine.accelerationXMmPerS2), 9);
  });
  it('goes one way only when asked, down the card when asked, and again for each pass', () => {
    for (const sweep of sweepsOfCell(lay({ bothWays: false }), 0)) expect(sweep.to.x).toBeGreaterThan(sweep.from.x);
    for (const sweep of sweepsOfCell(lay({ direction: 'vertical' }), 0))
      expect(sweep.to.x).toBeCloseTo(sweep.from.x, 9);
    expect(sweepsOfCell(lay({ passes: 3 }), 0)).toHaveLength(120);
  });
});

describe('the path over a marker', () => {
  it('lights each row’s burned modules and nothing else', () => {
    const layout = lay();
    const marker = layout.frame.markers[2]!;
    const module = marker.sizeMm / MARKER_MODULES;
    const modules = markerModules(marker.id);
    const sweeps: Sweep[] = [];
    let inside = false;
    for (const step of cardPath(layout, machine)) {
      if (step.step === 'part') inside = step.name === `marker ${marker.corner}`;
      else if (step.step === 'sweep' && inside) sweeps.push(step);
    }
    for (const sweep of sweeps) {
      const row = Math.min(MARKER_MODULES - 1, Math.floor((sweep.from.y - marker.y) / module));
      const wanted = modules.slice(row * MARKER_MODULES, (row + 1) * MARKER_MODULES).filter(Boolean).length * module;
      expect(sweep.lit.reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0)).toBeCloseTo(wanted, 9);
      const way = Math.sign(sweep.to.x - sweep.from.x);
      for (const { fromMm, toMm } of sweep.lit) {
        const first = sweep.from.x + way * fromMm - marker.x;
        const last = sweep.from.x + way * toMm - marker.x;
        for (const at of [first + way * module * 0.5, last - way * module * 0.5])
          expect(modules[row * MARKER_MODULES + Math.floor(at / module)]).toBe(true);
      }
    }
  });
});

describe('the path of a region', () => {
  const settings = { ...mainBurn(lay().cells[0]!).settings, intervalMm: 0.5, passes: 1 };
  const litOf = (area: Region, change: Partial<typeof settings> = {}): [number, number, number][] =>
    [...fillRegion(area, { ...settings, ...change }, 0)].flatMap((sweep) => {
      const way = Math.sign(sweep.to.x - sweep.from.x);
      return sweep.lit.map(({ fromMm, toMm }): [number, number, number] => {
        const ends = [sweep.from.x + way * fromMm, sweep.from.x + way * toMm].sort((a, b) => a - b);
        return [sweep.from.y, ends[0]!, ends[1]!];
      });
    });
  it('leaves a hole dark, and lights a slanted outline as far as it goes', () => {
    const outer = rectRing({ x: 0, y: 0, width: 10, height: 4 });
    const hole = rectRing({ x: 3, y: 1, width: 2, height: 2 });
    for (const [y, from, to] of litOf([outer, hole])) {
      if (y > 1 && y < 3) expect([from, to].every((x) => x <= 3 + 1e-9 || x >= 5 - 1e-9)).toBe(true);
      else expect([from, to]).toEqual([0, 10]);
    }
    const triangle = points([0, 0], [8, 0], [0, 4]);
    for (const [y, from, to] of litOf([triangle])) {
      expect(from).toBeCloseTo(0, 9);
      expect(to).toBeCloseTo(8 * (1 - y / 4), 9);
    }
  });
  it('covers the area: lit length times interval is the area, for any rectangle', () => {
    const [w, h] = [7.3, 5];
    const lit = litOf([rectRing({ x: 1, y: 2, width: w, height: h })], { intervalMm: 0.1 });
    expect(lit.reduce((sum, [, from, to]) => sum + to - from, 0) * 0.1).toBeCloseTo(w * h, 6);
  });
  it('shifts the way back, and only that, by the scan offset against its own direction of travel', () => {
    const area = [rectRing({ x: 2, y: 0, width: 6, height: 2 })];
    const plain = [...fillRegion(area, settings, 0)];
    const shifted = [...fillRegion(area, { ...settings, scanOffsetMm: 0.07 }, 0)];
    plain.forEach((sweep, index) => {
      const by = shifted[index]!.from.x - sweep.from.x;
      expect(by).toBeCloseTo(sweep.to.x > sweep.from.x ? 0 : -0.07, 9);
    });
    const down = [...fillRegion(area, { ...settings, direction: 'vertical', scanOffsetMm: 0.07 }, 0)];
    expect(down.slice(0, 2).map(({ from }) => from.y)).toEqual([0, expect.closeTo(2 - 0.07, 9)]);
  });
  it('is drawn longer at either end of what is lit, there and back, and no further than the middle of a gap', () => {
    const gap = [rectRing({ x: 1, y: 0, width: 2, height: 1 }), rectRing({ x: 3.05, y: 0, width: 2, height: 1 })];
    for (const [, from, to] of litOf([gap[0]!], { lengthenMm: 0.06 }))
      expect([from, to]).toEqual([expect.closeTo(0.97, 9), expect.closeTo(3.03, 9)]);
    const ends = (byMm: number) =>
      litOf(gap, { lengthenMm: byMm })
        .slice(0, 2)
        .flatMap(([, from, to]) => [from, to]);
    const near = (values: number[]) => values.map((value) => expect.closeTo(value, 9) as number);
    expect(ends(0.04)).toEqual(near([0.98, 3.02, 3.03, 5.07]));
    expect(ends(0.2)).toEqual(near([0.9, 3.025, 3.025, 5.15]));
    expect(ends(-0.04)).toEqual(near([1.02, 2.98, 3.07, 5.03]));
  });
  it('is drawn shorter down to a fifth of itself and no further: no dot is lost', () => {
    const dot = [rectRing({ x: 1, y: 0, width: 0.1, height: 0.5 })];
    const [[, from, to]] = litOf(dot, { lengthenMm: -0.3 }) as [[number, number, number]];
    expect([from, to]).toEqual([expect.closeTo(1.04, 9), expect.closeTo(1.06, 9)]);
  });
  it('is one stretch where outlines touch, and two where a thousandth of a millimetre lies between', () => {
    const besides = (gap: number) => [
      rectRing({ x: 1, y: 0, width: 2, height: 1 }),
      rectRing({ x: 3 + gap, y: 0, width: 2, height: 1 }),
    ];
    expect(litOf(besides(0))).toEqual(tuples([0.25, 1, 5], [0.75, 1, 5]));
    expect(litOf(besides(0.001))).toHaveLength(4);
  });
  it('counts a corner that lies on a line once', () => {
    const diamond = points([0, 2], [2, 0], [4, 2], [2, 4]);
    expect(litOf([diamond], { intervalMm: 4 })).toEqual([[2, 0, 4]]);
  });
  it('keeps the coordinates of lines along an axis as exact as they were drawn', () => {
    const area = [rectRing({ x: 0, y: 10, width: 1, height: 3 })];
    const ends = [...fillRegion(area, { ...settings, direction: 'vertical' }, 0)].map(({ from, to }) => [from, to]);
    expect(ends).toEqual([points([0.25, 10], [0.25, 13]), points([0.75, 13], [0.75, 10])]);
  });
  it('leaves no run-up, no shift and no line out of an area thinner than the interval', () => {
    expect(litOf([rectRing({ x: 1, y: 2, width: 3, height: 0.2 })])).toEqual([[2.1, 1, 4]]);
  });
});

describe('turned and crossed lines', () => {
  const area = [rectRing({ x: 10, y: 10, width: 20, height: 10 })];
  const settings = {
    ...lay().cells[0]!.burns[0]!.settings,
    intervalMm: 0.5,
    passes: 1,
    direction: 'horizontal' as const,
    bothWays: true,
  };
  const lengthOf = (sweeps: readonly Sweep[]): number =>
    sweeps.flatMap(({ lit }) => lit).reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0);
  it.each([0, 30, 45, 75])(
    'at %i degrees lie that much turned, an interval apart, inside the area, and fill it',
    (angle) => {
      const sweeps = [...fillRegion(area, { ...settings, lineAngleDeg: angle }, 0)];
      // A fill's lines times their distance is the area, whatever way they run.
      expect(lengthOf(sweeps) * 0.5).toBeGreaterThan(200 * 0.94);
      expect(lengthOf(sweeps) * 0.5).toBeLessThan(200 * 1.06);
      for (const { from, to } of sweeps) {
        for (const { x, y } of [from, to]) {
          expect(x).toBeGreaterThan(10 - 1e-6);
          expect(x).toBeLessThan(30 + 1e-6);
          expect(y).toBeGreaterThan(10 - 1e-6);
          expect(y).toBeLessThan(20 + 1e-6);
        }
        // Counter-clockwise as the card is read: y runs down, so a rising line has a falling y.
        const turn = (Math.atan2(-(to.y - from.y), to.x - from.x) * 180) / Math.PI;
        expect((((turn % 180) + 180) % 180) - angle).toBeCloseTo(0, 6);
      }
    },
  );
  it('are done again at right angles when crossed: twice the line, each half as if alone', () => {
    const alone = [...fillRegion(area, settings, 0)];
    const down = [...fillRegion(area, { ...settings, direction: 'vertical' }, 0)];
    expect([...fillRegion(area, { ...settings, crossHatch: true }, 0)]).toEqual([...alone, ...down]);
  });
});

describe('a row crossed in one sweep', () => {
  const rows: GridPlan = { ...plan, sweeps: 'rows' };
  let layout: Layout;
  beforeEach(() => {
    layout = layCard(grid, rows, pairing, { cardNumber: 9 });
  });
  it('goes over the row’s cells line by line, each with its own power and none between', () => {
    expect(layout.together).toHaveLength(2);
    const steps = [...cardPath(layout, machine)];
    const start = steps.findIndex((step) => step.step === 'part' && step.cells.length === 2);
    const part = steps[start]!;
    if (part.step !== 'part') throw new Error('no part');
    const cells = part.cells.map((index) => layout.cells[index]!);
    const sweeps = steps.slice(start + 1, start + 41) as Sweep[];
    expect(sweeps.every((sweep) => sweep.step === 'sweep' && sweep.lit.length === 2)).toBe(true);
    for (const sweep of sweeps) {
      const sense = Math.sign(sweep.to.x - sweep.from.x);
      for (const { fromMm, toMm, powerFraction } of sweep.lit) {
        const ends = [sweep.from.x + sense * fromMm, sweep.from.x + sense * toMm].sort((a, b) => a - b);
        const cell = cells.find(({ box }) => Math.abs(box.x - ends[0]!) < 1e-6)!;
        expect(ends[1]).toBeCloseTo(cell.box.x + cell.box.width, 6);
        expect(powerFraction).toBe(cell.levels.power);
      }
    }
    expect(
      sweeps
        .slice(1)
        .every(
          (sweep, index) =>
            Math.sign(sweep.to.x - sweep.from.x) !== Math.sign(sweeps[index]!.to.x - sweeps[index]!.from.x),
        ),
    ).toBe(true);
  });
  it('takes as many lines as a cell alone, and less time than its cells one by one', () => {
    const alone = layCard(grid, plan, pairing, { cardNumber: 9 });
    const sweepsOf = (of: Layout): number => [...cardPath(of, machine)].filter((step) => step.step === 'sweep').length;
    expect(sweepsOf(alone) - sweepsOf(layout)).toBe(2 * 40);
    expect(estimateCard(layout, machine).totalS).toBeLessThan(estimateCard(alone, machine).totalS);
  });
  it('lets the riskiest row be the last, and leaves out what is left out', () => {
    const last = layout.cells[layout.order.at(-1)!]!;
    expect(last.levels.speed).toBe(Math.min(...layout.cells.map((cell) => Number(cell.levels.speed))));
    const sparse = layCard(grid, { ...rows, across: { ...rows.across, from: 0.02 }, leaveOutFailing: true }, pairing, {
      cardNumber: 9,
    });
    const out = sparse.cells.filter((cell) => cell.leftOut).map((cell) => cell.index);
    expect(out.length).toBeGreaterThan(0);
    expect(sparse.order.filter((index) => out.includes(index))).toEqual([]);
  });
  it('is nothing where nothing is swept', () => {
    const { settings } = mainBurn(layout.cells[0]!);
    expect(fillTogether([], 1)).toEqual([]);
    const followed = {
      shape: {
        do: 'follow' as const,
        lines: [points([0, 0], [5, 0])],
      },
      settings,
    };
    expect(fillTogether([followed, followed], 1)).toEqual([]);
  });
  it('is refused for burns that are not filled by the same lines', () => {
    const [a, b] = layout.cells.map((cell) => cell.burns[0]!);
    expect(() => fillTogether([a!, { ...b!, settings: { ...b!.settings, intervalMm: 0.2 } }], 1)).toThrow(RangeError);
    // Four lines, and a fifth at the same distance: whichever of three cells has one line more or less.
    const tall = (x: number, lines: number) => ({
      ...a!,
      shape: { do: 'sweep' as const, area: [rectRing({ x, y: 0, width: 2, height: 0.5 * lines })] },
      settings: { ...a!.settings, intervalMm: 0.5 },
    });
    for (const counts of tuples([4, 5], [5, 4], [4, 4, 5], [4, 5, 4], [5, 4, 5]))
      expect(
        () =>
          fillTogether(
            counts.map((lines, index) => tall(5 * index, lines)),
            1,
          ),
        counts.join(),
      ).toThrow(RangeError);
    expect(fillTogether([tall(0, 4), tall(5, 4), tall(10, 4)], 1)).toHaveLength(4);
  });
});

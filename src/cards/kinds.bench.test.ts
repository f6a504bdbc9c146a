import { describe, expect, it } from 'vitest';
import { placeOf } from '../../stand-ins/burn';
import { UNTIMED } from '../core/motion/pace';
import { machinesOf, proposed, type Proposed } from '../../tests/support/kinds';
import { SimulatedLaser, type Trace } from '../bench/laser';
import { benchMachineOf } from '../bench/of-records';
import { laserTruthOf, type BenchMachine, type LaserTruth, type PlacedCard } from '../bench/truth';
import { checkBed } from '../core/card/check';
import { deliveredBy } from '../core/card/energy';
import { estimateCard } from '../core/card/estimate';
import type { Pairing } from '../core/card/contract';
import type { Layout } from '../core/card/layout';
import type { BurnSettings } from '../core/card/settings';
import { burnedOf } from '../core/card/picture-shape';
import { dotsOf, isArea, type Shape } from '../core/card/shape';
import type { Machine } from '../core/machine/machine';
import { coverageOf } from '../core/picture/screen';
import { programOfCard, type Program } from '../formats/gcode';
import { CARD_KIND_NAMES, cardKind } from './registry';

/** Area of a shape that is filled, or length of one that is followed, from its own corners; of dots, the area of those burned. */
function extentOf(shape: Shape, settings: BurnSettings): number {
  if (shape.do === 'dots') return coverageOf(dotsOf(shape, settings)) * shape.box.width * shape.box.height;
  if (shape.do === 'picture') {
    // Powers between floor and top in proportion to each place's grey, or dots of the top; each over a place's own area.
    const { columns, rows, data } = shape.wanted;
    const burned = burnedOf(shape);
    const place = (shape.box.width * shape.box.height) / (columns * rows);
    const { powerFraction: top } = settings;
    return Buffer.from(data, 'base64').reduce((sum, byte, at) => {
      const share = shape.mode === 'power' ? byte / 255 : burned[at]!;
      const power = shape.mode === 'power' ? shape.floorFraction + share * (top - shape.floorFraction) : top * share;
      return sum + (share > 0 ? (place * power) / top : 0);
    }, 0);
  }
  if (shape.do === 'sweep')
    return shape.area.reduce((sum, ring) => {
      const twice = ring.reduce((total, { x, y }, index) => {
        const next = ring[(index + 1) % ring.length]!;
        return total + x * next.y - next.x * y;
      }, 0);
      return sum + Math.abs(twice) / 2;
    }, 0);
  return shape.lines.reduce(
    (sum, line) =>
      sum + line.slice(1).reduce((way, { x, y }, index) => way + Math.hypot(x - line[index]!.x, y - line[index]!.y), 0),
    0,
  );
}

/** Whether lines begin with less run-up than they need, which is v² / 2a. */
const startsSlow = ({ runUpMm, speedMmPerS, direction }: BurnSettings, machine: Machine): boolean =>
  machine.head !== 'galvo' &&
  runUpMm !== null &&
  runUpMm <
    speedMmPerS ** 2 / (2 * (direction === 'horizontal' ? machine.accelerationXMmPerS2 : machine.accelerationYMmPerS2));

/** A laser that does what the record says, neither weaker nor later, nor less level. */
const asRecorded = (machine: BenchMachine, place: PlacedCard): LaserTruth => ({
  ...laserTruthOf(machine, place),
  efficiency: 1,
  powerExponent: 1,
  lagS: 0,
  slowOnS: 0,
  scaleX: 1,
  scaleY: 1,
  board: null,
  lossAlongX: 0,
  lossAlongY: 0,
});

interface SetUp {
  readonly on: Pairing;
  readonly layout: Layout;
}

/** The first of all pairings in every way its machine might be set up, and some more as they are: places. */
const setUps = (all: readonly Proposed[]): SetUp[] =>
  all
    .slice(0, 3)
    .flatMap(({ pairing, layout }, place) =>
      (place === 0 ? machinesOf(pairing) : [pairing]).map((on) => ({ on, layout })),
    );

/** The same for energies, which do not go by where zero is: other stocks and speeds, and machines whose power or head is another. */
const energySetUps = (all: readonly Proposed[]): SetUp[] => {
  const [first] = all;
  const others = machinesOf(first!.pairing).filter(
    ({ machine }) => machine.rampPower === 'constant' || machine.head === 'galvo',
  );
  return [
    ...all.slice(0, 5).map(({ pairing, layout }) => ({ on: pairing, layout })),
    ...others.slice(0, 2).map((on) => ({ on, layout: first!.layout })),
  ];
};

/** What a laser drew under a program to its end, and how long it took. */
function drawnBy(program: Program, truth: LaserTruth): { traces: readonly Trace[]; elapsedS: number } {
  const laser = new SimulatedLaser(truth);
  const refused: string[] = [];
  for (const line of program.text.split('\n')) {
    const answer = laser.send(line);
    if (!answer.ok) refused.push(`${line}: ${answer.message}`);
    if (laser.waitsForHand) laser.proceed({ focusOffsetMm: null });
  }
  expect(refused).toEqual([]);
  return { traces: laser.finish(), elapsedS: laser.elapsedS };
}

describe.each(CARD_KIND_NAMES)('kind %s on the bench', (name) => {
  const all = proposed(cardKind(name));

  it('is taken whole by the bench, which burns what was drawn, where it was drawn, in about the estimated time', () => {
    for (const { on, layout } of setUps(all)) {
      const machine = benchMachineOf(on.machine, on.lens);
      const place = { ...placeOf(layout, on), widthMm: layout.widthMm, heightMm: layout.heightMm };
      const truth = laserTruthOf(machine, place);
      // As it is estimated once timed burns have told what the controller takes for a move.
      const { lineOverheadS } = truth;
      const pace = { ...UNTIMED, shares: { ...UNTIMED.shares, lineOverheadS } };
      const { totalS, reach } = estimateCard(layout, on.machine, null, pace);
      expect(checkBed(reach, on, placeOf(layout, on)).inside).toBe(true);
      const { traces, elapsedS } = drawnBy(programOfCard(layout, on.machine, placeOf(layout, on)), truth);
      const edges = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity };
      for (const { x0, y0, x1, y1 } of traces) {
        edges.left = Math.min(edges.left, x0, x1);
        edges.right = Math.max(edges.right, x0, x1);
        edges.top = Math.min(edges.top, machine.bedDepthMm - Math.max(y0, y1));
        edges.bottom = Math.max(edges.bottom, machine.bedDepthMm - Math.min(y0, y1));
      }
      const slack = 0.25;
      expect(edges.left).toBeGreaterThan(placeOf(layout, on).leftMm - slack);
      expect(edges.top).toBeGreaterThan(placeOf(layout, on).rearMm - slack);
      expect(edges.right).toBeLessThan(placeOf(layout, on).leftMm + layout.widthMm + slack);
      expect(edges.bottom).toBeLessThan(placeOf(layout, on).rearMm + layout.heightMm + slack);
      expect(elapsedS / totalS).toBeGreaterThan(0.97);
      expect(elapsedS / totalS).toBeLessThan(1.12);
    }
  });

  it('lays down in each cell the energy that its settings were said to deliver', () => {
    let compared = 0;
    for (const { on: real, layout } of energySetUps(all)) {
      const on = { ...real, machine: { ...real.machine, powerTable: null } };
      const machine = benchMachineOf(on.machine, on.lens);
      const truth = asRecorded(machine, { ...placeOf(layout, on), widthMm: layout.widthMm, heightMm: layout.heightMm });
      const laid = layout.cells.map(() => 0);
      const slack = 0.3;
      for (const { x0, y0, x1, y1, joulesPerMm } of drawnBy(
        programOfCard(layout, on.machine, placeOf(layout, on)),
        truth,
      ).traces) {
        const x = (x0 + x1) / 2 - placeOf(layout, on).leftMm;
        const y = machine.bedDepthMm - placeOf(layout, on).rearMm - (y0 + y1) / 2;
        // A hole comes after the part that it lies in.
        const index = layout.cells.findLastIndex(
          ({ box }) =>
            x > box.x - slack && x < box.x + box.width + slack && y > box.y - slack && y < box.y + box.height + slack,
        );
        if (index >= 0) laid[index]! += joulesPerMm * Math.hypot(x1 - x0, y1 - y0);
      }
      for (const cell of layout.cells) {
        const burns = cell.leftOut ? [] : cell.burns;
        // The first and the last line of a fill stand for half an interval more or less than they cover.
        const doubt = Math.max(0, ...burns.map(({ settings }) => settings.intervalMm / cell.box.height));
        const planned = burns.reduce((sum, { shape, settings }) => {
          const { arealJPerMm2, lineJPerMm } = deliveredBy(settings, on);
          return sum + extentOf(shape, settings) * (isArea(shape) ? arealJPerMm2 : lineJPerMm);
        }, 0);
        // A head that begins before it is up to speed burns more where power does not follow it.
        if (burns.some(({ settings }) => startsSlow(settings, on.machine)))
          expect(laid[cell.index]! / planned, `cell ${cell.index}`).toBeGreaterThan(0.98 - doubt);
        else
          expect(Math.abs(laid[cell.index]! - planned), `cell ${cell.index}`).toBeLessThanOrEqual(
            (0.02 + doubt) * planned,
          );
        compared++;
      }
    }
    expect(compared).toBeGreaterThanOrEqual(7);
  });
});

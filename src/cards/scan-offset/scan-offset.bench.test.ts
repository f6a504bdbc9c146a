import { describe, expect, it } from 'vitest';
import { PLACE } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { tracesOfProgram } from '../../bench/bench';
import { benchMachineOf } from '../../bench/of-records';
import { laserTruthOf } from '../../bench/truth';
import { layCard } from '../../core/card/lay';
import { scanOffsetAt } from '../../core/motion/lag';
import { programOfCard } from '../../formats/gcode';
import { grid } from '../grid';

const pairing = demoPairing('heron', 'leather');
const { plan } = grid.propose({ pairing, facts: [] });

/** How far the lines of both ways begin and end from each other in a cell of the fastest row, by what the laser drew. */
function endsOfBothWays(
  scanOffsetMm: (speedMmPerS: number) => number,
  lengthenMm: (speedMmPerS: number) => number = () => 0,
): { there: [number, number]; back: [number, number]; drawn: [number, number] } {
  const speed = Math.round(plan.down.to);
  const flat = {
    ...plan,
    sweeps: 'cells' as const,
    leaveOutFailing: false,
    down: { ...plan.down, to: speed },
    constants: {
      ...plan.constants,
      direction: 'horizontal' as const,
      scanOffsetMm: scanOffsetMm(speed),
      lengthenMm: lengthenMm(speed),
    },
  };
  const layout = layCard(grid, flat, pairing, { cardNumber: 3 });
  const { box } = layout.cells.find(({ levels }) => levels.speed === speed)!;
  const machine = benchMachineOf(pairing.machine, pairing.lens);
  const { text, lines } = programOfCard(layout, pairing.machine, PLACE);
  const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
  const inside = tracesOfProgram({ text, lines, hands: [] }, machine, place)
    .map(({ x0, x1, y0 }) => ({
      x0: x0 - PLACE.leftMm,
      x1: x1 - PLACE.leftMm,
      y: machine.bedDepthMm - y0 - PLACE.rearMm,
    }))
    .filter(
      ({ x0, x1, y }) =>
        y > box.y &&
        y < box.y + box.height &&
        Math.min(x0, x1) > box.x - 0.5 &&
        Math.max(x0, x1) < box.x + box.width + 0.5,
    );
  const ends = (back: boolean): [number, number] => {
    const lit = inside.filter(({ x0, x1 }) => x1 < x0 === back);
    expect(lit.length).toBeGreaterThan(10);
    return [Math.min(...lit.flatMap(({ x0, x1 }) => [x0, x1])), Math.max(...lit.flatMap(({ x0, x1 }) => [x0, x1]))];
  };
  return { there: ends(false), back: ends(true), drawn: [box.x, box.x + box.width] };
}

/** How far the lines of both ways begin and end from each other. */
function apart(scanOffsetMm: (speedMmPerS: number) => number): number[] {
  const { there, back } = endsOfBothWays(scanOffsetMm);
  return [back[0] - there[0], back[1] - there[1]];
}

const truth = laserTruthOf(benchMachineOf(pairing.machine, pairing.lens), { ...PLACE, widthMm: 40, heightMm: 40 });

describe('a scan offset on the bench', () => {
  it('brings the ends of both ways together, which lie apart without', () => {
    // Lines that begin late lie later by half of that.
    const lagS = truth.lagS + truth.slowOnS / 2;
    const without = apart(() => 0);
    for (const mm of without) expect(mm).toBeLessThan(-0.02);
    // Programs say places in thousandths of a millimetre.
    for (const mm of apart((speed) => scanOffsetAt({ lagS, standingMm: 0 }, speed)))
      expect(Math.abs(mm)).toBeLessThan(0.002);
    // The other way round they lie twice as far apart.
    const wrong = apart((speed) => -scanOffsetAt({ lagS, standingMm: 0 }, speed));
    wrong.forEach((mm, end) => expect(Math.abs(mm - 2 * without[end]!)).toBeLessThan(0.004));
  });
});

describe('the length of dots on the bench', () => {
  const lengthOf = ([from, to]: [number, number]): number => to - from;
  it('is as drawn where each is drawn longer by what its beam comes on late, and shorter by that where it is not', () => {
    const speed = Math.round(plan.down.to);
    const slowMm = truth.slowOnS * speed;
    expect(slowMm).toBeGreaterThan(0.004);
    const plain = endsOfBothWays(() => 0);
    const longer = endsOfBothWays(
      () => 0,
      (at) => truth.slowOnS * at,
    );
    for (const way of ['there', 'back'] as const) {
      expect(lengthOf(plain[way])).toBeCloseTo(lengthOf(plain.drawn) - slowMm, 2);
      expect(Math.abs(lengthOf(longer[way]) - lengthOf(longer.drawn))).toBeLessThan(0.0015);
    }
  });
});

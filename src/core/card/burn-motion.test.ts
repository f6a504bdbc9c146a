import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { grid } from '../../cards/grid';
import { kerf } from '../../cards/kerf';
import type { Leg } from '../motion/corners';
import { motionTimeS } from '../motion/pace-fit';
import { UNTIMED } from '../motion/pace';
import { burnMotion } from './burn-motion';
import { estimateCard } from './estimate';
import { layCard } from './lay';
import { tuples } from '../../../tests/support/tuples';

const pairing = demoPairing('marl', 'alder');
const { machine } = pairing;
const cards = [
  layCard(grid, grid.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 5 }),
  layCard(kerf, kerf.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 6 }),
];

describe('what a burn’s time is made of', () => {
  it('adds up to the estimate, which goes over the path step by step', () => {
    for (const layout of cards) {
      const motion = burnMotion(layout, machine);
      const { totalS } = estimateCard(layout, machine);
      // Ways are told to a micrometre.
      expect(motionTimeS(motion, machine) / totalS).toBeCloseTo(1, 3);
      expect(motion.ways.length).toBeLessThan(4000);
    }
  });
  it('tells ways that are each other’s mirror image once', () => {
    // A kerf square is gone round the same way each time; two of a size are one way, and no line of a number is told twice for its sense.
    const { ways } = burnMotion(cards[1]!, machine);
    const turned = (legs: readonly Leg[], x: 1 | -1, y: 1 | -1): string =>
      JSON.stringify(legs.map(([dx, dy]) => [x * dx + 0, y * dy + 0]));
    for (const { legs, speedMmPerS } of ways)
      for (const [x, y] of tuples([-1, 1], [1, -1], [-1, -1])) {
        const image = turned(legs, x, y);
        const others = ways.filter((way) => way.speedMmPerS === speedMmPerS && JSON.stringify(way.legs) === image);
        expect(others.every((way) => way.legs === legs)).toBe(true);
      }
  });
  it('grows with a machine’s pace: line by line, and by slower ramps', () => {
    const [layout] = cards;
    const motion = burnMotion(layout!, machine);
    const plain = estimateCard(layout!, machine);
    const shares = { acceleration: 0.6, travelSpeed: 0.8, lineOverheadS: 0.02 };
    const slower = estimateCard(layout!, machine, null, { ...UNTIMED, by: 'motion', shares });
    expect(slower.totalS / motionTimeS(motion, machine, shares)).toBeCloseTo(1, 3);
    const overhead = estimateCard(layout!, machine, null, {
      ...UNTIMED,
      shares: { ...UNTIMED.shares, lineOverheadS: 0.02 },
    });
    expect(overhead.totalS - plain.totalS).toBeCloseTo(0.02 * motion.lines, 6);
  });
});

import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../tests/support/demo';
import { grid } from '../../cards/grid';
import { kerf } from '../../cards/kerf';
import { motionTimeS } from '../motion/pace-fit';
import { UNTIMED } from '../motion/pace';
import { burnMotion } from './burn-motion';
import { estimateCard } from './estimate';
import { layCard } from './lay';

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
  it('grows with a machine’s pace: line by line, by slower ramps, and by one factor', () => {
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
    const scaled = estimateCard(layout!, machine, null, { ...UNTIMED, by: 'scale', scale: 1.5 });
    expect(scaled.totalS).toBeCloseTo(1.5 * plain.totalS, 9);
    expect(scaled.frameS).toBeCloseTo(1.5 * plain.frameS, 9);
    expect(scaled.cellsS[3]!).toBeCloseTo(1.5 * plain.cellsS[3]!, 9);
  });
});

import { describe, expect, it } from 'vitest';
import { burnedCard, PLACE, willingHands } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { photographed } from '../../../stand-ins/observers/photographed';
import { burnTraces, laserTruthOf, tracesOfProgram } from '../../bench/bench';
import { benchMachineOf, benchSheetOf } from '../../bench/of-records';
import type { Pairing } from '../../core/card/contract';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { programOfCard } from '../../formats/gcode';
import { focus } from '.';

const layOn = (pairing: Pairing): Layout => {
  const first = focus.propose({ pairing, facts: [] }).plan;
  return layCard(focus, focus.follow({ ...first, way: 'tilt' }, 'way', first, pairing), pairing, { cardNumber: 5 });
};

/** The offset that the card calls the place where the beam really is sharpest: by bed, board and mark, none of which are as they were meant. */
function trueWaist(layout: Layout, pairing: Pairing): number {
  const tilt = layout.tilt!;
  const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm, tilt };
  const { board, tiltX, tiltY, bedWidthMm, bedDepthMm } = laserTruthOf(
    benchMachineOf(pairing.machine, pairing.lens),
    place,
  );
  const acrossBed =
    tiltX * (PLACE.leftMm - bedWidthMm / 2) + tiltY * (PLACE.rearMm + layout.heightMm / 2 - bedDepthMm / 2);
  // Linear along x: where it is 0.
  const x = (board!.fall * (board!.levelX - PLACE.leftMm) - acrossBed) / (board!.fall + tiltX);
  return tilt.fallMmPerMm * (x - tilt.levelAtMm);
}

describe('a focus card over a tilted board, on the bench', () => {
  it.each([
    ['marl', 'alder'],
    ['heron', 'leather'],
  ] as const)('tells where %s is sharpest on %s', (machineName, stockName) => {
    const pairing = demoPairing(machineName, stockName);
    const layout = layOn(pairing);
    for (const seed of ['one', 'two']) {
      const seen = photographed(burnedCard(layout, pairing, `tilted ${seed}`), seed, 3000);
      const { waistMm, waistSigmaMm } = focus.find(layout, seen, { pairing, facts: [] });
      expect(Math.abs(waistMm! - trueWaist(layout, pairing))).toBeLessThan(2 * waistSigmaMm!);
      expect(waistSigmaMm!).toBeLessThan(0.2);
    }
  });
  it('names no waist where nobody tilted the board', () => {
    const pairing = demoPairing('marl', 'alder');
    const layout = layOn(pairing);
    const program = programOfCard(layout, pairing.machine, PLACE);
    const machine = benchMachineOf(pairing.machine, pairing.lens);
    const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
    const drawn = tracesOfProgram(
      { text: program.text, lines: program.lines, hands: willingHands(program) },
      machine,
      place,
    );
    const piece = burnTraces(drawn, machine, benchSheetOf(pairing.stock), place, 'level', false, null);
    const seen = photographed({ layout, pairing, seed: 'level', piece }, 'level', 3000);
    const { fit, says } = focus.find(layout, seen, { pairing, facts: [] });
    expect(fit).toBeNull();
    expect(says).not.toMatch(/sharpest/);
  });
});

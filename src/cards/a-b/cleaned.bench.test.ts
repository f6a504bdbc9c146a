import { describe, expect, it } from 'vitest';
import { PLACE, willingHands } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { photographed } from '../../../stand-ins/observers/photographed';
import { trueLightness } from '../../../stand-ins/true-lightness';
import { burnTraces, tracesOfProgram, type Piece } from '../../bench/bench';
import { benchMachineOf, benchSheetOf } from '../../bench/of-records';
import { layCard } from '../../core/card/lay';
import { programOfCard } from '../../formats/gcode';
import { findAB } from './find';
import { cleanedSetup } from './plan';
import { aB } from '.';
import { tuples } from '../../../tests/support/tuples';

describe.each(tuples(['mdf', 'off', 6], ['slate', 'off', 1]))(
  'patches burned on %s with air %s, %i times as slowly as usual, photographed before they are wiped and after',
  (stock, air, slower) => {
    it('come out lighter by the soot that was wiped off, or the same where none lay', () => {
      const pairing = demoPairing('marl', stock);
      const { plan } = aB.propose({ pairing, facts: [] });
      const cleaned = {
        ...plan,
        what: 'cleaned' as const,
        constants: { ...plan.constants, air, speedMmPerS: plan.constants.speedMmPerS / slower },
        setup: cleanedSetup(plan.setup),
      };
      const layout = layCard(aB, cleaned, pairing, { cardNumber: 5 });
      const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
      const program = programOfCard(layout, pairing.machine, PLACE);
      const burned = { text: program.text, lines: program.lines, hands: willingHands(program) };
      const machine = benchMachineOf(pairing.machine, pairing.lens);
      const drawn = tracesOfProgram(burned, machine, place);
      const [sooty, clean] = [false, true].map((wiped) =>
        burnTraces(drawn, machine, benchSheetOf(pairing.stock), place, 'cleaned', wiped, null),
      ) as [Piece, Piece];
      const meanOf = (piece: Piece): number =>
        layout.cells.reduce((sum, { index }) => sum + trueLightness(piece, layout, pairing, index), 0) /
        layout.cells.length;
      const truth = meanOf(clean) - meanOf(sooty);
      const seed = 'one';
      const seen = (piece: Piece, moment: string) =>
        photographed({ piece, layout, pairing, seed }, `${seed} ${moment}`).readings;
      const { told, missing } = findAB(
        layout,
        { before: seen(sooty, 'before'), readings: seen(clean, 'after'), answers: [] },
        { pairing, facts: [] },
      );
      expect(missing).toEqual([]);
      expect(Math.abs(told!.difference - truth)).toBeLessThan(told!.half);
      // Each patch with itself: by few patches, and closer than two photos of one piece are ever off.
      expect(told!.half).toBeLessThan(1.5);
      // Soot takes about one L* of what is dark anyway: too little for two photos, and the most that is not excluded says so.
      expect(told!.verdict).toBe('same');
      expect(told!.largest).toBeGreaterThan(truth);
      if (stock === 'slate') expect(truth).toBe(0);
    });
  },
);

import { describe, expect, it } from 'vitest';
import { PLACE, willingHands } from '../../tests/support/burn';
import { expectDark, machinesOf, proposed } from '../../tests/support/kinds';
import { tracesOfProgram } from '../bench/bench';
import { SimulatedLaser } from '../bench/laser';
import { benchMachineOf } from '../bench/of-records';
import { laserTruthOf } from '../bench/truth';
import { checkBed } from '../core/card/check';
import { estimateCard } from '../core/card/estimate';
import { programOfCard } from '../formats/gcode';
import { CARD_KIND_NAMES, cardKind } from './registry';

describe.each(CARD_KIND_NAMES)('kind %s on the bench', (name) => {
  const all = proposed(cardKind(name));

  it('never leaves the beam on: rapids, stops, focus moves, start and end are dark, by another parser’s reading', () => {
    for (const { pairing, layout } of all)
      for (const { machine } of machinesOf(pairing)) expectDark(programOfCard(layout, machine, PLACE), machine);
  });

  it('is taken whole by the bench, which burns what was drawn, where it was drawn, in about the estimated time', () => {
    for (const { pairing, layout } of all.slice(0, 5)) {
      for (const on of machinesOf(pairing)) {
        const program = programOfCard(layout, on.machine, PLACE);
        expect(checkBed(estimateCard(layout, on.machine).reach, on, PLACE).inside).toBe(true);
        const machine = benchMachineOf(on.machine, on.lens);
        const burned = { text: program.text, lines: program.lines, hands: willingHands(program) };
        const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
        const traces = tracesOfProgram(burned, machine, place);
        const xs = traces.flatMap(({ x0, x1 }) => [x0 - PLACE.leftMm, x1 - PLACE.leftMm]);
        const ys = traces.flatMap(({ y0, y1 }) => [y0, y1].map((y) => machine.bedDepthMm - PLACE.rearMm - y));
        const slack = 0.25;
        const least = (values: readonly number[]): number =>
          values.reduce((low, value) => Math.min(low, value), Infinity);
        expect(Math.min(least(xs), least(ys))).toBeGreaterThan(-slack);
        expect(least(xs.map((x) => layout.widthMm - x))).toBeGreaterThan(-slack);
        expect(least(ys.map((y) => layout.heightMm - y))).toBeGreaterThan(-slack);
        const laser = new SimulatedLaser(laserTruthOf(machine, place));
        for (const line of program.text.split('\n')) {
          laser.send(line);
          if (laser.waitsForHand) laser.proceed({ focusOffsetMm: null });
        }
        laser.finish();
        const ratio = laser.elapsedS / estimateCard(layout, on.machine).totalS;
        expect(ratio).toBeGreaterThan(0.97);
        expect(ratio).toBeLessThan(1.16);
      }
    }
  });
});

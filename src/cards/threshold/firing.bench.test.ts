import { expect, it } from 'vitest';
import { burnOnBench, PLACE } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { trueLightness } from '../../../stand-ins/true-lightness';
import { benchMachineOf } from '../../bench/of-records';
import { laserTruthOf } from '../../bench/truth';
import { layCard } from '../../core/card/lay';
import { MARK_FIELD } from './asks';
import { followWay } from './firing';
import { threshold } from '.';

it.each([
  ['marl', 'alder'],
  ['heron', 'birch'],
] as const)('the bench’s %s begins to fire where its strip on %s says', (machine, stock) => {
  const pairing = demoPairing(machine, stock);
  const usual = threshold.propose({ pairing, facts: [] }).plan;
  const plan = followWay({ ...usual, way: 'firing' }, 'way', usual, pairing);
  const layout = layCard(threshold, plan, pairing, { cardNumber: 9 });
  const piece = burnOnBench(layout, pairing, 'firing');
  const answers = layout.cells.map(({ index }) => ({
    field: MARK_FIELD,
    cellIndex: index,
    repeat: 0,
    value:
      Math.abs(trueLightness(piece, layout, pairing, index) - pairing.stock.bareLightness) > 2 ? 'marked' : 'nothing',
  }));
  const { firing, missing } = threshold.find(layout, { readings: [], answers }, { pairing, facts: [] });
  expect(missing).toEqual([]);
  const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
  const truth = laserTruthOf(benchMachineOf(pairing.machine, pairing.lens), place).firingCommand;
  expect(firing!.low).toBeLessThan(truth);
  expect(firing!.high).toBeGreaterThan(truth);
  expect(Math.abs(firing!.power / truth - 1)).toBeLessThan(0.08);
});

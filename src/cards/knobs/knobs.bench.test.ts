import { expect, it } from 'vitest';
import { edgeOfMate, tryMate } from '../../bench/try-mate';
import { burnedCard } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { cutBoxOf } from '../../../stand-ins/observers/part';
import { layCard } from '../../core/card/lay';
import { knobs } from '.';

// Common practice: a knob whose cuts nobody makes up for is loose; made up for whole it holds; beyond that it does not come apart or go in.
it('knobs are loose where nothing is made up for, and hold where both cuts are', () => {
  const pairing = demoPairing('marl', 'acrylic');
  const { plan } = knobs.propose({ pairing, facts: [] });
  const layout = layCard(knobs, { ...plan, fromMm: 0, stepMm: 0.07, holes: 1, parts: 4 }, pairing, { cardNumber: 5 });
  const { piece } = burnedCard(layout, pairing, 'knobs');
  const [hole, ...parts] = layout.cells.map((cell) =>
    edgeOfMate(piece, cutBoxOf(cell), cell.levels.side as 'hole' | 'part'),
  );
  const goes = parts.map((part) =>
    tryMate({ hole: hole!, part, families: ['acrylic-cast', 'acrylic-cast'], seed: 'a' }),
  );
  expect(goes[0]).toEqual({ goes: 'loose' });
  expect(goes[3]).toEqual({ goes: 'no' });
  // What gives decides how far it can be forced.
  const at = goes.findIndex((one) => 'goes' in one && one.goes === 'no');
  const soft = tryMate({ hole: hole!, part: parts[at]!, families: ['acrylic-cast', 'cork'], seed: 'a' });
  expect(soft).toEqual({ goes: 'press' });
  expect(tryMate({ hole: null, part: parts[0]!, families: ['cork', 'cork'], seed: 'a' })).toHaveProperty('cannot');
});

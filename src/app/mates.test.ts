import { expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { knobs } from '../cards/knobs';
import type { KnobsPlan } from '../cards/knobs/plan';
import { layCard } from '../core/card/lay';
import { isOtherHalf } from './mates';

it('the other half of an inlay has the other side of the same shape, by the same steps', () => {
  const pairing = demoPairing('marl', 'acrylic');
  const { plan } = knobs.propose({ pairing, facts: [] });
  const half = (change: Partial<KnobsPlan>) => ({
    layout: layCard(knobs, { ...plan, ...change }, pairing, { cardNumber: 5 }),
  });
  const holes = half({ cutHere: 'holes' });
  expect(isOtherHalf(holes, half({ cutHere: 'parts' }))).toBe(true);
  expect(isOtherHalf(half({ cutHere: 'parts' }), holes)).toBe(true);
  for (const other of [
    holes,
    half({ cutHere: 'both' }),
    half({ cutHere: 'parts', stepMm: 0.02 }),
    half({ cutHere: 'parts', parts: 3 }),
    half({ cutHere: 'parts', holes: 3 }),
    // The same holes, with half as many parts between them.
    half({ cutHere: 'parts', parts: 2, stepMm: 2 * plan.stepMm }),
    half({ cutHere: 'parts', headMm: 12 }),
    half({ cutHere: 'parts', shape: 'round' }),
  ])
    expect(isOtherHalf(holes, other)).toBe(false);
});

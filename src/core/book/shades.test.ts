import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { cardKind } from '../../cards/registry';
import { layCard } from '../card/lay';
import { mainBurn } from '../card/layout';
import { type FactNow, type FactOrigin } from './facts';
import { provenShade, shadesOf } from './shades';

const pairing = demoPairing('heron', 'birch');
const kind = cardKind('grid');
const layout = layCard(kind, kind.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 3 });
const burned = mainBurn(layout.cells[8]!).settings;

const fact = (at: object, change: object = {}, origin: FactOrigin = 'brought', name = 'engrave'): FactNow =>
  ({ name, at, origin, value: { settings: { ...burned, ...change } }, stale: [] }) as unknown as FactNow;

describe('the shades of a pairing', () => {
  it('are the names of its engravings, in their order; one without a name has none', () => {
    expect(shadesOf([fact({ shade: 'pale' }), fact({}), fact({ shade: 'dark' })])).toEqual(['pale', 'dark']);
    expect(shadesOf([fact({ shade: 'pale' }, {}, 'card', 'kerf')])).toEqual([]);
  });
});

describe('the shade that a card proves', () => {
  it('is that of an unproven setting which one of its cells burns', () => {
    expect(provenShade([fact({ shade: 'pale' })], layout)).toBe('pale');
    expect(provenShade([fact({ shade: 'pale' }, {}, 'copied')], layout)).toBe('pale');
    expect(provenShade([fact({}), fact({ shade: 'pale' })], layout)).toBe('');
  });
  it('is none where it was burned here before, or power or speed differ', () => {
    expect(provenShade([fact({ shade: 'pale' }, {}, 'card')], layout)).toBe('');
    for (const share of [0.99, 1.01]) {
      expect(provenShade([fact({ shade: 'pale' }, { powerFraction: burned.powerFraction * share })], layout)).toBe('');
      expect(provenShade([fact({ shade: 'pale' }, { speedMmPerS: burned.speedMmPerS * share })], layout)).toBe('');
    }
    // Rounding on the way is no difference.
    for (const share of [0.997, 1.003])
      expect(provenShade([fact({ shade: 'pale' }, { speedMmPerS: burned.speedMmPerS * share })], layout)).toBe('pale');
  });
});

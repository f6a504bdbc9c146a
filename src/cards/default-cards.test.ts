import { describe, expect, it } from 'vitest';
import { BURNABLE, demoPairing } from '../../stand-ins/demo';
import { RUNGS } from '../core/book/rungs';
import type { Pairing } from '../core/card/contract';
import { estimateCard } from '../core/card/estimate';
import { layCard } from '../core/card/lay';
import { factNow } from '../../stand-ins/facts';
import type { GridPlan } from './grid/plan';
import type { IntervalPlan } from './interval/plan';
import { CARD_KIND_NAMES, CARD_KINDS, cardKind, type CardKindName } from './registry';

/** Burn time and area of the card of a kind that is proposed where nothing is known; null where the kind is not for this pairing. */
function costOf(name: CardKindName, pairing: Pairing): { seconds: number; areaCm2: number } | null {
  const kind = cardKind(name);
  try {
    const layout = layCard(kind, kind.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1 });
    return {
      seconds: estimateCard(layout, pairing.machine).totalS,
      areaCm2: (layout.widthMm * layout.heightMm) / 100,
    };
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** What stands between a new stock and its engraving and photo settings; the others are of the machine, or asked when wanted. */
const OF_THE_STOCK = ['grid', 'threshold', 'ceiling', 'line-width', 'interval', 'tone', 'showpiece'] as const;
/** Its places lie all over the work area. */
const ALL_OVER: readonly CardKindName[] = ['bed'];

describe('interval strips after a slow setting was kept', () => {
  it('are narrower, so that they burn in under three minutes as well', () => {
    const heron = demoPairing('heron', 'birch');
    const { constants } = cardKind('grid').propose({ pairing: heron, facts: [] }).plan as GridPlan;
    const settings = { ...constants, powerFraction: 0.6, speedMmPerS: 20 };
    const kept = factNow('engrave', { settings, lightness: 40, lightnessSigma: 0.5, confidence: 1 });
    const kind = cardKind('interval');
    const { plan } = kind.propose({ pairing: heron, facts: [kept] });
    const layout = layCard(kind, plan, heron, { cardNumber: 1 });
    expect(estimateCard(layout, heron.machine).totalS).toBeLessThan(180);
    // Each of its three steps still holds a dozen of the coarsest lines.
    const { stripWidthMm, interval } = plan as IntervalPlan;
    expect(stripWidthMm / 3 / interval.to).toBeGreaterThan(12);
  });
});

describe.each(BURNABLE)('cards proposed for %s on %s', (machine, stock) => {
  const pairing = demoPairing(machine, stock);
  it('burn in under three minutes on 25 cm² each; cuts in under four, on 35', () => {
    for (const name of CARD_KIND_NAMES) {
      const cost = costOf(name, pairing);
      if (!cost) continue;
      const cuts = RUNGS[CARD_KINDS[name].rung].foot === 'cut';
      expect(cost.seconds, name).toBeLessThan(cuts ? 240 : 180);
      if (!ALL_OVER.includes(name)) expect(cost.areaCm2, name).toBeLessThan(cuts ? 35 : 25);
    }
  });
  it('take a new stock to its photo settings in 15 minutes and 80 cm²', () => {
    const costs = OF_THE_STOCK.map((name) => costOf(name, pairing)!);
    expect(costs.reduce((sum, { seconds }) => sum + seconds, 0)).toBeLessThan(15 * 60);
    expect(costs.reduce((sum, { areaCm2 }) => sum + areaCm2, 0)).toBeLessThan(80);
  });
});

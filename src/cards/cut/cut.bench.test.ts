import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { isLoose } from '../../bench/gauges';
import { layCard } from '../../core/card/lay';
import { DROP } from '../../core/card/usual-asks';
import { findCut, USUAL_CUT_WISH } from './find';
import { cut } from './index';

describe('cut squares of the bench', () => {
  it.each([
    ['marl', 'alder'],
    ['marl', 'acrylic'],
  ] as const)(
    'say how to cut: %s on %s drops squares elsewhere on the sheet so, and not with half of that',
    (machine, stock) => {
      const on = demoPairing(machine, stock);
      const { plan } = cut.propose({ pairing: on, facts: [] });
      const card = layCard(cut, plan, on, { cardNumber: 44 });
      const tapped = (seed: string, of = card): number[] => {
        const piece = burnOnBench(of, on, seed);
        return of.order.filter((index) => isLoose(piece, of.cells[index]!.box));
      };
      const dropped = tapped(`cut ${stock}`);
      const answers = card.order.map((cellIndex) => ({
        field: DROP.field,
        cellIndex,
        repeat: 0,
        value: dropped.includes(cellIndex) ? 'clean' : 'not-through',
      }));
      const finding = findCut(card, { readings: [], answers }, { pairing: on, facts: [] }, USUAL_CUT_WISH);
      expect(finding.missing).toEqual([]);
      const { settings } = finding.chosen!;
      // A card of one setting all over: its speeds and powers lie within a thousandth of it.
      const fresh = (speedMmPerS: number) => {
        const alike = {
          ...plan,
          cut: settings,
          speed: { from: speedMmPerS * 0.999, to: speedMmPerS, count: 4, spacing: 'ratio' as const },
          rows: {
            channel: 'power' as const,
            from: settings.powerFraction * 0.999,
            to: settings.powerFraction,
            count: 4,
            spacing: 'ratio' as const,
          },
        };
        return tapped(`elsewhere ${stock}`, layCard(cut, alike, on, { cardNumber: 45 })).length;
      };
      // 16 squares of which 98 in 100 drop: 14 or more, but for one such card in three hundred.
      expect(fresh(settings.speedMmPerS)).toBeGreaterThanOrEqual(14);
      expect(fresh(settings.speedMmPerS * 2)).toBeLessThan(8);
    },
  );
});

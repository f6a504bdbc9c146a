import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { caliperReading, isLoose } from '../../bench/gauges';
import type { Answer } from '../../core/card/asks';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { kerf } from '.';

const reading = (cellIndex: number, field: string, repeat: number, value: number | string): Answer => ({
  field,
  cellIndex,
  repeat,
  value,
});

describe('kerf squares of the bench', () => {
  it.each([
    ['marl', 'alder'],
    ['marl', 'acrylic'],
  ] as const)('cut on the bench (%s, %s), drop, and their kerf is what the calipers really meet', (machine, stock) => {
    const on = demoPairing(machine, stock);
    const proposed = kerf.propose({ pairing: on, facts: [] }).plan;
    const card: Layout = layCard(kerf, proposed, on, { cardNumber: 44 });
    const piece = burnOnBench(card, on, `kerf ${stock}`);
    const answers = card.order.flatMap((index) => {
      expect(isLoose(piece, card.cells[index]!.box)).toBe(true);
      return (['width-x', 'width-y', 'hole-x', 'hole-y'] as const).flatMap((field) =>
        [0, 1, 2].map((turn) => {
          const place = {
            axis: field.endsWith('x') ? 'x' : 'y',
            on: field.startsWith('hole') ? 'hole' : 'part',
          } as const;
          const shown = caliperReading(piece, card.cells[index]!.box, place, { owner: machine, turn });
          if (!('shows' in shown)) throw new Error(shown.cannot);
          return reading(index, field, turn, Number(shown.shows));
        }),
      );
    });
    const finding = kerf.find(card, { readings: [], answers }, { pairing: on, facts: [] });
    expect(finding.missing).toEqual([]);
    for (const axis of [finding.x!, finding.y!]) {
      // Usual kerfs of such sources (common practice): a tenth to a third of a millimetre.
      expect(axis.kerf.mean).toBeGreaterThan(0.05);
      expect(axis.kerf.mean).toBeLessThan(0.4);
      // Two jaws that are off by up to 0.02 mm each: 0.02 / sqrt 3 / sqrt 2, twice.
      expect(axis.kerf.expanded95).toBeGreaterThan(0.014);
      expect(axis.kerf.expanded95).toBeLessThan(0.03);
    }
  });
});

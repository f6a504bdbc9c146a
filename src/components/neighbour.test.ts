import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { CARD_KIND_NAMES, cardKind } from '../cards/registry';
import { layCard } from '../core/card/lay';
import { neighbourOf } from './neighbour';

const pairing = demoPairing('marl', 'alder');
const STEPS = ['left', 'right', 'up', 'down'] as const;
const BACK = { left: 'right', right: 'left', up: 'down', down: 'up' } as const;

/** Where three parts lie beside each other below a wide one, all three are left by the same way up: a step is not undone by the one against it. */
const UNEVEN: ReadonlySet<string> = new Set(['showpiece']);

describe('arrow keys', () => {
  it.each(CARD_KIND_NAMES)('reach every cell of a %s card from every other one', (name) => {
    const kind = cardKind(name);
    const { cells } = layCard(kind, kind.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1 });
    for (const from of cells) {
      const seen = new Set([from]);
      for (const cell of seen)
        for (const step of STEPS) {
          const next = neighbourOf(cells, cell, step);
          if (!next) continue;
          if (!UNEVEN.has(name)) expect(neighbourOf(cells, next, BACK[step])).toBe(cell);
          seen.add(next);
        }
      expect(seen.size).toBe(cells.length);
    }
  });
  it('pass over cells that are left out, and stop at the edge', () => {
    const kind = cardKind('grid');
    const { cells } = layCard(kind, kind.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 1 });
    const holed = cells.map((cell) => (cell.index === 1 ? { ...cell, leftOut: true } : cell));
    expect(neighbourOf(holed, holed[0]!, 'right')!.index).toBe(2);
    expect(neighbourOf(cells, cells[0]!, 'left')).toBeUndefined();
    expect(neighbourOf(cells, cells[0]!, 'up')).toBeUndefined();
  });
});

import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { crossing, lightnessOfPiece } from '../../../stand-ins/observers/measures';
import { photographed } from '../../../stand-ins/observers/photographed';
import type { Piece } from '../../bench/piece';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { median } from '../../core/stats/robust';
import { findCeiling } from './find';
import { ceiling } from '.';

/** The power at which stock beside patches is 2 L* darker than before the burn, from the piece itself: the middle one of five neighbours in power. */
function rimsDarkenFrom(piece: Piece, layout: Layout): number {
  const bare = { ...piece, after: piece.before };
  const rims = layout.cells
    .map((cell): [number, number] => {
      const { x, y, width, height } = cell.box;
      const strips = [x - 0.4, x + width + 0.15].map((left) => ({ x: left, y, width: 0.25, height }));
      const darker = strips.map((strip) => lightnessOfPiece(bare, strip) - lightnessOfPiece(piece, strip));
      return [mainBurn(cell).settings.powerFraction, (darker[0]! + darker[1]!) / 2];
    })
    .sort(([a], [b]) => a - b);
  const middles = rims.map(([power], at): [number, number] => [
    power,
    median(rims.slice(Math.max(0, at - 2), at + 3).map(([, darker]) => darker)),
  ]);
  return crossing(middles, 2);
}

describe('edges of step wedges on the bench', () => {
  const pairing = demoPairing('heron', 'birch');
  const proposed = ceiling.propose({ pairing, facts: [] }).plan;
  const plan = { ...proposed, top: { ...proposed.top, count: 3 }, patchMm: 2 };
  const found = (seed: string, constants: Partial<typeof plan.constants>) => {
    const layout = layCard(ceiling, { ...plan, constants: { ...plan.constants, ...constants } }, pairing, {
      cardNumber: 5,
    });
    const piece = burnOnBench(layout, pairing, seed);
    const seen = photographed({ layout, pairing, piece, seed }, seed);
    return { edges: findCeiling(layout, seen, { pairing, facts: [] }).edges, truth: rimsDarkenFrom(piece, layout) };
  };

  it('darken without air, far too slow, from about where the piece has it', () => {
    for (const seed of ['edges a', 'edges b']) {
      const { edges, truth } = found(seed, { air: 'off', speedMmPerS: 0.45 * plan.constants.speedMmPerS });
      const reach = edges!.high - edges!.low;
      expect(reach, seed).toBeLessThan(0.45);
      expect(truth, seed).toBeGreaterThan(edges!.low - reach / 2);
      expect(truth, seed).toBeLessThan(edges!.high + reach / 2);
    }
  });

  it('stay as they were at usual powers with air', () => {
    expect(found('edges e', {}).edges).toBeNull();
  });
});

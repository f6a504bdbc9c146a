import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { photographed } from '../../../stand-ins/observers/photographed';
import { trueLightness } from '../../../stand-ins/true-lightness';
import type { FactNow } from '../../core/book/facts';
import type { Pairing } from '../../core/card/contract';
import { layCard } from '../../core/card/lay';
import type { PictureMode } from '../../core/picture/mode';
import { tone } from '.';

/** A wedge that is burned on the bench, photographed and found; a kept table corrects it. */
function wedge(pairing: Pairing, mode: PictureMode, facts: readonly FactNow[], seed: string) {
  const known = { pairing, facts };
  const { plan } = tone.propose(known);
  const layout = layCard(tone, { ...plan, mode }, pairing, { cardNumber: 7 });
  const piece = burnOnBench(layout, pairing, seed);
  const finding = tone.find(layout, photographed({ layout, pairing, piece, seed }, seed), known);
  expect(finding.missing).toEqual([]);
  // How straight it is in truth, by the piece itself: each grey that was asked for, and a line to the darkest.
  const greys = [...new Set(layout.cells.map(({ levels }) => Number(levels.grey)))];
  const strengths = greys.map((grey) => {
    const own = layout.cells.filter(({ levels }) => levels.grey === grey);
    const mean = own.reduce((sum, { index }) => sum + trueLightness(piece, layout, pairing, index), 0) / own.length;
    return Math.abs(mean - pairing.stock.bareLightness);
  });
  const darkest = strengths.at(-1)!;
  const off = Math.sqrt(strengths.reduce((sum, one, at) => sum + (one - greys[at]! * darkest) ** 2, 0) / greys.length);
  return { finding, layout, off, plan };
}

describe.each([
  ['marl', 'mdf', 'power'],
  ['heron', 'birch', 'floyd-steinberg'],
] as const)('a tone wedge of %s on %s by %s', (machine, stock, mode) => {
  it('makes a table by which the next wedge comes out straight to 2.5 L*, and far straighter than without', () => {
    const pairing = demoPairing(machine, stock);
    const first = wedge(pairing, mode, [], 'tone');
    const [draft] = tone.settle(first.finding, first.layout);
    const kept = factNow('tone', draft!.value, { at: draft!.at });
    const proof = wedge(pairing, mode, [kept], 'proof');
    expect(proof.plan).toMatchObject({ corrected: true, mode });
    expect(proof.off).toBeLessThan(2.5);
    expect(proof.off).toBeLessThan(first.off / 2);
    expect(proof.finding.says).toMatch(/^The table holds/);
  });
});

import { describe, expect, it } from 'vitest';
import { burnOnBench } from '../../../stand-ins/burn';
import { demoPairing } from '../../../stand-ins/demo';
import { factNow } from '../../../stand-ins/facts';
import { photographed } from '../../../stand-ins/observers/photographed';
import { trueLuminanceRatio, type Piece } from '../../bench/piece';
import type { FactNow } from '../../core/book/facts';
import type { Pairing } from '../../core/card/contract';
import { layCard } from '../../core/card/lay';
import { mainBurn, type Layout } from '../../core/card/layout';
import { lightnessOfLuminance, luminanceOfLightness } from '../../core/color/lab';
import { cardKind } from '../registry';
import { picture } from '.';
import { tuples } from '../../../tests/support/tuples';

/** The table that a tone wedge makes on the bench, as it is kept. */
function toneFact(pairing: Pairing): FactNow {
  const tone = cardKind('tone');
  const known = { pairing, facts: [] };
  const layout = layCard(tone, tone.propose(known).plan, pairing, { cardNumber: 7 });
  const piece = burnOnBench(layout, pairing, 'wedge');
  const seen = photographed({ layout, pairing, piece, seed: 'wedge' }, 'wedge');
  const [draft] = tone.settle(tone.find(layout, seen, known, {}), layout, seen, {});
  return factNow('tone', draft!.value as never, { at: draft!.at });
}

const SIDE_MM = 1;

/** How far a burned picture is off in truth: squares of a millimetre of the piece itself against the light that was wanted of them, black as it came out. */
function trulyOff(layout: Layout, piece: Piece, index: number, bare: number, way: number): number {
  const { shape } = mainBurn(layout.cells[index]!);
  if (shape.do !== 'picture') throw new Error('no picture');
  const { x, y, width, height } = shape.box;
  const bytes = Buffer.from(shape.wanted.data, 'base64');
  const perMm = shape.wanted.columns / width;
  const pairs: [strength: number, shares: number[]][] = [];
  for (let top = 0.5; top + SIDE_MM < height - 0.5; top += SIDE_MM)
    for (let left = 0.5; left + SIDE_MM < width - 0.5; left += SIDE_MM) {
      // The truth is of an area's inner 60 %.
      const around = 0.2 / 0.6;
      const side = SIDE_MM / 0.6;
      const ratio = trueLuminanceRatio(piece, { x: x + left - around, y: y + top - around, width: side, height: side });
      const strength = way * (lightnessOfLuminance(luminanceOfLightness(bare) * ratio) - bare);
      const shares: number[] = [];
      for (let row = Math.round(top * perMm); row < Math.round((top + SIDE_MM) * perMm); row++)
        for (let column = Math.round(left * perMm); column < Math.round((left + SIDE_MM) * perMm); column++)
          shares.push(bytes[row * shape.wanted.columns + column]! / 255);
      pairs.push([strength, shares]);
    }
  const wanted = (shares: readonly number[], black: number): number => {
    const light = shares.reduce((sum, share) => sum + luminanceOfLightness(Math.max(0, bare + way * black * share)), 0);
    return way * (lightnessOfLuminance(light / shares.length) - bare);
  };
  const off = (black: number): number =>
    Math.sqrt(
      pairs.reduce((sum, [strength, shares]) => sum + (strength - wanted(shares, black)) ** 2, 0) / pairs.length,
    );
  // The black that makes them most alike, by trying.
  return Math.min(...Array.from({ length: 120 }, (_, step) => off(5 + 0.5 * step)));
}

describe.each(tuples(['marl', 'mdf'], ['marl', 'slate']))('a picture burned by %s on %s', (machine, stock) => {
  it('comes out nearer to what was wanted through the table of a tone wedge than without, and says so', () => {
    const pairing = demoPairing(machine, stock);
    const known = { pairing, facts: [toneFact(pairing)] };
    const { plan } = picture.propose(known);
    expect(plan).toMatchObject({ corrected: true, beside: true, negative: stock === 'slate' });
    const layout = layCard(picture, plan, pairing, { cardNumber: 9 });
    const piece = burnOnBench(layout, pairing, 'picture');
    const seen = photographed({ layout, pairing, piece, seed: 'picture' }, 'picture');
    // A picture is neither uneven nor too far from bare stock to be told.
    expect(seen.readings.flatMap(({ doubts }) => doubts)).toEqual([]);
    const finding = picture.find(layout, seen, known);
    expect(finding.missing).toEqual([]);
    const way = stock === 'slate' ? 1 : -1;
    const truth = [0, 1].map((index) => trulyOff(layout, piece, index, pairing.stock.bareLightness, way));
    expect(truth[0]).toBeLessThan(2.5);
    expect(truth[0]).toBeLessThan(truth[1]!);
    // The photo tells either as well as a millimetre of the piece itself does, and finer things beside.
    finding.parts.forEach(({ fit }, index) => expect(Math.abs(fit.rmsL - truth[index]!)).toBeLessThan(1.5));
    expect(finding.parts[0]!.fit.rmsL).toBeLessThan(finding.parts[1]!.fit.rmsL);
    const [kept] = picture.settle(finding, layout);
    expect(kept).toMatchObject({
      name: 'photo',
      cellIndex: 0,
      value: { table: plan.table!.entries, floorFraction: plan.floorFraction },
    });
  });
});
